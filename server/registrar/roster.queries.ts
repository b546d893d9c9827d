import type { Knex } from 'knex'
import { now, stampOf } from '../clock'
import { inBatches, jsonOf, newId } from '../db/rows'
import { personName } from '../courses/courses.queries'

export interface EnrolmentRow {
  id: string
  courseId: string
  personId: string
  role: string
  isPrimary: boolean
  sourceId: string | null
  origin: 'registrar' | 'hand'
  dropped: boolean
  missing: boolean
}
export interface ClassRow {
  id: string
  sourceId: string
  code: string
  section: string
  title: string
  termId: string
  missing: boolean
  meetings: { weekday: number; start: string; end: string; room: string | null }[]
}

/** Classes as they are kept now, by the registrar's key. */
export async function classesBySource(db: Knex, keys: readonly string[]): Promise<Map<string, ClassRow>> {
  const classes = new Map<string, ClassRow>()
  for (const batch of inBatches(keys)) {
    const rows = await db('courses')
      .whereIn('source_id', batch)
      .select('id', 'source_id', 'code', 'section', 'title', 'term_id', 'missing_since')
    const byId = new Map<string, ClassRow>(
      rows.map(row => [
        row.id,
        {
          id: row.id,
          sourceId: row.source_id,
          code: row.code,
          section: row.section,
          title: row.title,
          termId: row.term_id,
          missing: row.missing_since !== null,
          meetings: [],
        },
      ]),
    )
    for (const row of await db('meetings')
      .whereIn('course_id', [...byId.keys()])
      .orderBy('position'))
      byId
        .get(row.course_id)!
        .meetings.push({ weekday: row.weekday, start: row.start, end: row.end, room: row.room })
    for (const row of byId.values()) classes.set(row.sourceId, row)
  }
  return classes
}
/** The registrar's classes of some terms that are not marked as missing. */
export async function classesOfTerms(
  db: Knex,
  termIds: readonly string[],
): Promise<{ id: string; sourceId: string }[]> {
  return (
    await db('courses')
      .whereIn('term_id', termIds)
      .where({ origin: 'registrar' })
      .whereNull('missing_since')
      .select('id', 'source_id')
  ).map(row => ({ id: row.id, sourceId: row.source_id }))
}
export async function enrolmentsOf(db: Knex, courseIds: readonly string[]): Promise<EnrolmentRow[]> {
  const found: EnrolmentRow[] = []
  for (const batch of inBatches(courseIds))
    for (const row of await db('enrolments')
      .whereIn('course_id', batch)
      .select(
        'id',
        'course_id',
        'person_id',
        'role',
        'is_primary',
        'source_id',
        'origin',
        'dropped_at',
        'missing_since',
      ))
      found.push({
        id: row.id,
        courseId: row.course_id,
        personId: row.person_id,
        role: row.role,
        isPrimary: Boolean(row.is_primary),
        sourceId: row.source_id,
        origin: row.origin,
        dropped: row.dropped_at !== null,
        missing: row.missing_since !== null,
      })
  return found
}
/** Enrolments from the registrar. One who is there already keeps what was set by hand, and is there again. */
export async function upsertEnrolments(
  db: Knex,
  rows: { course_id: string; person_id: string; role: string; is_primary: boolean; source_id: string }[],
): Promise<void> {
  for (const batch of inBatches(rows)) {
    await db('enrolments')
      .insert(
        batch.map(row => ({
          id: newId(),
          origin: 'registrar',
          dropped_at: null,
          missing_since: null,
          ...row,
        })),
      )
      .onConflict(['course_id', 'person_id', 'role'])
      .merge(['is_primary', 'source_id', 'origin', 'dropped_at', 'missing_since'])
  }
}
export async function markEnrolments(
  db: Knex,
  ids: readonly string[],
  column: 'dropped_at' | 'missing_since',
): Promise<void> {
  for (const batch of inBatches(ids))
    await db('enrolments')
      .whereIn('id', batch)
      .update({ [column]: stampOf(now()) })
}
export async function markClasses(db: Knex, ids: readonly string[], missing: boolean): Promise<void> {
  for (const batch of inBatches(ids))
    await db('courses')
      .whereIn('id', batch)
      .update({ missing_since: missing ? stampOf(now()) : null })
}
/** Whose sign-in name is whose, among some names. */
export async function ownersOfLogins(db: Knex, logins: readonly string[]): Promise<Map<string, string>> {
  const owners = new Map<string, string>()
  for (const batch of inBatches(logins))
    for (const row of await db('people').whereIn('login', batch).select('login', 'source_id'))
      owners.set(row.login, row.source_id)
  return owners
}
export async function namesOf(db: Knex, ids: readonly string[]): Promise<Map<string, string>> {
  const names = new Map<string, string>()
  for (const batch of inBatches([...new Set(ids)]))
    for (const row of await db('people').whereIn('id', batch).select('id', 'given_name', 'family_name'))
      names.set(row.id, `${row.given_name} ${row.family_name}`)
  return names
}

export const changeKinds = [
  'appeared',
  'renamed',
  'meetings',
  'joined',
  'dropped',
  'returned',
  'unlisted',
  'gone',
  'cancelled',
  'back',
] as const
export type ChangeKind = (typeof changeKinds)[number]
/** What a registrar's list changed in one course. `count`: people, or 1. `detail`: names, or before and after, in words. */
export interface RosterChange {
  courseId: string
  kind: ChangeKind
  count: number
  detail: { names?: string[]; before?: string; after?: string }
}

export async function insertChanges(
  db: Knex,
  fetchId: string,
  changes: readonly RosterChange[],
): Promise<void> {
  const at = stampOf(now())
  for (const batch of inBatches(changes))
    await db('roster_changes').insert(
      batch.map(change => ({
        id: newId(),
        fetch_id: fetchId,
        at,
        course_id: change.courseId,
        kind: change.kind,
        count: change.count,
        detail: JSON.stringify(change.detail),
      })),
    )
}
export interface ChangeRow extends RosterChange {
  id: string
  fetchId: string
  at: string
}
const changeOf = (row: Record<string, unknown>): ChangeRow => ({
  id: row.id as string,
  fetchId: row.fetch_id as string,
  at: row.at as string,
  courseId: row.course_id as string,
  kind: row.kind as ChangeKind,
  count: Number(row.count),
  detail: jsonOf(row.detail),
})
/** The latest changes in some courses, the newest first. */
export async function changesIn(
  db: Knex,
  courseIds: readonly string[],
  since: string,
  most = 200,
): Promise<ChangeRow[]> {
  return courseIds.length === 0
    ? []
    : (
        await db('roster_changes')
          .whereIn('course_id', courseIds)
          .where('at', '>=', since)
          .orderBy('at', 'desc')
          .orderBy('id', 'desc')
          .limit(most)
      ).map(changeOf)
}

export interface FetchRow {
  id: string
  startedAt: string
  finishedAt: string | null
  state: 'waiting' | 'new' | 'same' | 'failed'
  problem: string | null
  by: string | null
  mark: string | null
  counts: Record<string, number>
  findings: { severity: string; where: string; message: string; count?: number }[]
}
export async function latestFetches(db: Knex, most: number): Promise<FetchRow[]> {
  const rows = await db('fetches')
    .leftJoin('people', 'people.id', 'fetches.person_id')
    .orderBy('started_at', 'desc')
    .orderBy('fetches.id', 'desc')
    .limit(most)
    .select('fetches.*', 'given_name', 'family_name')
  return rows.map(row => ({
    id: row.id,
    startedAt: row.started_at,
    finishedAt: row.finished_at,
    state: row.state,
    problem: row.problem,
    by: row.person_id === null ? null : personName(row),
    mark: row.mark,
    counts: jsonOf(row.counts),
    findings: jsonOf(row.findings),
  }))
}
/** Notes that a fetch is wanted; null where the stretch of time it stands for has one already. */
export async function insertFetch(
  db: Knex,
  personId: string | null,
  slot: number | null,
): Promise<string | null> {
  const id = newId()
  const [result] = (await db.raw(
    `INSERT IGNORE INTO fetches (id, slot, person_id, started_at, state, counts, findings) VALUES (?, ?, ?, ?, 'waiting', '{}', '[]')`,
    [id, slot, personId, stampOf(now())],
  )) as [{ affectedRows: number }]
  return result.affectedRows > 0 ? id : null
}
export async function findFetch(db: Knex, id: string): Promise<{ id: string; state: string } | null> {
  return (await db('fetches').where({ id }).first('id', 'state')) ?? null
}
/** The mark (ETag) of the last list that was taken in. */
export async function lastMark(db: Knex): Promise<string | null> {
  return (
    (
      await db('fetches')
        .whereIn('state', ['new', 'same'])
        .whereNotNull('mark')
        .orderBy('started_at', 'desc')
        .orderBy('id', 'desc')
        .first('mark')
    )?.mark ?? null
  )
}
export async function endFetch(
  db: Knex,
  id: string,
  end: {
    state: 'new' | 'same' | 'failed'
    mark?: string | null
    problem?: string
    counts?: Record<string, number>
    findings?: unknown[]
  },
): Promise<void> {
  await db('fetches')
    .where({ id })
    .update({
      state: end.state,
      mark: end.mark ?? null,
      problem: end.problem ?? null,
      counts: JSON.stringify(end.counts ?? {}),
      findings: JSON.stringify(end.findings ?? []),
      finished_at: stampOf(now()),
    })
}
