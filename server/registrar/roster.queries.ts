import type { Knex } from 'knex'
import { now, stampOf } from '../clock'
import { groupBy, inBatches, newId } from '../db/rows'
import type { CourseRow, EnrolmentRole, EnrolmentRow, MeetingRow, OrgRow, PersonRow } from '../db/tables'

/** A class as it is kept now. */
export interface KeptClass {
  id: string
  sourceId: string
  code: string
  section: string
  title: string
  termId: string
  missing: boolean
  meetings: Omit<MeetingRow, 'course_id' | 'position'>[]
}
/** Classes as they are kept now, by the registrar's key. */
export async function classesBySource(db: Knex, keys: readonly string[]): Promise<Map<string, KeptClass>> {
  const classes = new Map<string, KeptClass>()
  for (const batch of inBatches(keys)) {
    const rows = await db('courses')
      .whereIn('source_id', batch)
      .select('id', 'source_id', 'code', 'section', 'title', 'term_id', 'missing_since')
    const ids = rows.map(row => row.id)
    const meetings = groupBy(
      await db('meetings').whereIn('course_id', ids).orderBy('position'),
      row => row.course_id,
    )
    for (const { id, source_id, code, section, title, term_id, missing_since } of rows)
      classes.set(source_id, {
        id,
        sourceId: source_id,
        code,
        section,
        title,
        termId: term_id,
        missing: missing_since !== null,
        meetings: meetings.get(id) ?? [],
      })
  }
  return classes
}
const keptEnrolments = (db: Knex) =>
  db('enrolments').select(
    'id',
    'course_id',
    'person_id',
    'role',
    'is_primary',
    'source_id',
    'origin',
    'dropped_at',
    'missing_since',
  )
/** The registrar's classes of some terms that are not marked as missing. */
export const classesOfTerms = (
  db: Knex,
  termIds: readonly string[],
): Promise<Pick<CourseRow, 'id' | 'source_id'>[]> =>
  db('courses')
    .whereIn('term_id', termIds)
    .where({ origin: 'registrar' })
    .whereNull('missing_since')
    .select('id', 'source_id')

export type KeptEnrolment = Omit<EnrolmentRow, 'may_run'>
export async function enrolmentsOf(db: Knex, courseIds: readonly string[]): Promise<KeptEnrolment[]> {
  const found: KeptEnrolment[] = []
  for (const batch of inBatches(courseIds)) {
    found.push(...(await keptEnrolments(db).whereIn('course_id', batch)))
  }
  return found
}
/** Enrolments that the registrar knows by some keys, in whichever class of theirs; what was made from one is no class of theirs. */
export async function enrolmentsBySource(db: Knex, keys: readonly string[]): Promise<KeptEnrolment[]> {
  const found: KeptEnrolment[] = []
  const classes = db('courses').whereIn('origin', ['registrar', 'snapshot']).select('id')
  for (const batch of inBatches(keys))
    found.push(
      ...(await keptEnrolments(db)
        .where({ origin: 'registrar' })
        .whereIn('course_id', classes.clone())
        .whereIn('source_id', batch)),
    )
  return found
}
export interface ListedEnrolment {
  course_id: string
  person_id: string
  role: EnrolmentRole
  is_primary: boolean
  source_id: string
}
/** Enrolments from the registrar. One who is there already keeps what was set by hand, and is there again. */
export async function upsertEnrolments(db: Knex, listed: readonly ListedEnrolment[]): Promise<void> {
  const rows = listed.map(row => ({
    ...row,
    id: newId(),
    origin: 'registrar' as const,
    dropped_at: null,
    missing_since: null,
  }))
  for (const batch of inBatches(rows))
    await db('enrolments')
      .insert(batch)
      .onConflict(['course_id', 'person_id', 'role'])
      .merge(['is_primary', 'source_id', 'origin', 'dropped_at', 'missing_since'])
}
/** Notes that people have dropped, or that the registrar does not list them any more. */
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
/** Closes the sign-in of people whom the registrar deletes; whoever is listed again has it again. Answers their ids. */
export async function closePeople(db: Knex, sourceIds: readonly string[]): Promise<string[]> {
  const closed: string[] = []
  for (const batch of inBatches(sourceIds)) {
    const ids = await db('people').whereIn('source_id', batch).where({ active: true }).pluck('id')
    await db('people').whereIn('id', ids).update({ active: false })
    closed.push(...ids)
  }
  return closed
}
/** Whose sign-in name is whose, among some names. */
export async function ownersOfLogins(db: Knex, logins: readonly string[]): Promise<Map<string, string>> {
  const owners = new Map<string, string>()
  for (const batch of inBatches(logins)) {
    const rows = await db('people').whereIn('login', batch).select('login', 'source_id')
    for (const { login, source_id } of rows) if (login !== null) owners.set(login, source_id)
  }
  return owners
}

type SourcedTable = 'orgs' | 'people' | 'courses'
interface SourcedRow {
  source_id: string
  [column: string]: unknown
}
/** Ids of what is there already, by source id. */
export async function idsBySource(
  db: Knex,
  table: SourcedTable,
  keys: readonly string[],
): Promise<Map<string, string>> {
  const ids = new Map<string, string>()
  for (const batch of inBatches([...new Set(keys)])) {
    const rows = await db<{ id: string; source_id: string }>(table)
      .whereIn('source_id', batch)
      .select<{ id: string; source_id: string }[]>('id', 'source_id')
    for (const row of rows) ids.set(row.source_id, row.id)
  }
  return ids
}
/** Inserts rows, or brings those with the same `source_id` up to date; ids stay what they were, and a row that says nothing new is not written. Returns ids by source id. */
async function upsertBySource(
  db: Knex,
  table: SourcedTable,
  rows: readonly SourcedRow[],
  columns: readonly string[],
): Promise<Map<string, string>> {
  for (const batch of inBatches(rows)) {
    const keys = batch.map(row => row.source_id)
    const there = await db<SourcedRow>(table)
      .whereIn('source_id', keys)
      .select<SourcedRow[]>('source_id', ...columns)
    const old = new Map(there.map(row => [row.source_id, row]))
    const fresh = batch.filter(row => {
      const before = old.get(row.source_id)
      return !before || columns.some(column => (row[column] ?? null) !== before[column])
    })
    if (fresh.length === 0) continue
    await db<SourcedRow>(table)
      .insert(fresh.map(row => ({ id: newId(), ...row })))
      .onConflict('source_id')
      .merge([...columns])
  }
  return idsBySource(
    db,
    table,
    rows.map(row => row.source_id),
  )
}
export const upsertOrgs = (db: Knex, rows: readonly Omit<OrgRow, 'id'>[]) =>
  upsertBySource(db, 'orgs', [...rows], ['name', 'type', 'parent_source_id'])
export const upsertPeople = (db: Knex, rows: readonly Omit<PersonRow, 'id' | 'password' | 'of_course'>[]) =>
  upsertBySource(
    db,
    'people',
    [...rows],
    [
      'login',
      'given_name',
      'family_name',
      'email',
      'active',
      'middle_name',
      'nickname',
      'number',
      'user_name',
      'phone_keys',
    ],
  )
export type ListedClass = Pick<
  CourseRow,
  'source_id' | 'term_id' | 'org_id' | 'code' | 'section' | 'title' | 'created_at'
>
export const upsertCourses = (db: Knex, rows: readonly ListedClass[]) =>
  upsertBySource(db, 'courses', [...rows], ['term_id', 'org_id', 'code', 'section', 'title'])
