import type { Knex } from 'knex'
import type { Finding } from '../../core/formats/findings'
import { now, stampOf } from '../clock'
import { inBatches, json, jsonOf, newId, written } from '../db/rows'
import type { FetchRow } from '../db/tables'
import { shortName, type NamedRow } from '../people/names'
import type { ChangeKind, RosterChange } from './roster-changes'

/** A fetch of the registrar's list, as it stands. */
export interface Fetch {
  id: string
  startedAt: string
  finishedAt: string | null
  state: FetchRow['state']
  problem: string | null
  by: string | null
  counts: Record<string, number>
  findings: Finding[]
}
type FetchColumns = FetchRow & { [C in keyof NamedRow]: string | null }
export async function latestFetches(db: Knex, most: number): Promise<Fetch[]> {
  const rows = await db('fetches')
    .leftJoin('people', 'people.id', 'fetches.person_id')
    .orderBy([
      { column: 'started_at', order: 'desc' },
      { column: 'fetches.id', order: 'desc' },
    ])
    .limit(most)
    .select<FetchColumns[]>('fetches.*', 'given_name', 'family_name')
  return rows.map(row => ({
    id: row.id,
    startedAt: row.started_at,
    finishedAt: row.finished_at,
    state: row.state,
    problem: row.problem,
    by:
      row.given_name && row.family_name
        ? shortName({ given_name: row.given_name, family_name: row.family_name })
        : null,
    counts: jsonOf(row.counts),
    findings: jsonOf(row.findings),
  }))
}
/** Notes that a fetch is wanted; null where the stretch of time it stands for has one already. */
export async function insertFetch(
  db: Knex,
  personId: string | null,
  period: number | null,
): Promise<string | null> {
  const id = newId()
  const inserted = await written(
    db,
    `INSERT IGNORE INTO fetches (id, period, person_id, started_at, state, counts, findings)
     VALUES (:id, :period, :personId, :at, 'waiting', '{}', '[]')`,
    { id, period, personId, at: stampOf(now()) },
  )
  return inserted > 0 ? id : null
}
/** The ETag of the last list that was brought in. */
export async function lastEtag(db: Knex): Promise<string | null> {
  const row = await db('fetches')
    .whereIn('state', ['new', 'same'])
    .whereNotNull('etag')
    .orderBy([
      { column: 'started_at', order: 'desc' },
      { column: 'id', order: 'desc' },
    ])
    .first('etag')
  return row?.etag ?? null
}

export interface FetchEnd {
  state: 'new' | 'same' | 'failed'
  etag?: string | null
  problem?: string
  counts?: Record<string, number>
  findings?: Finding[]
}
export async function endFetch(db: Knex, id: string, end: FetchEnd): Promise<void> {
  await db('fetches')
    .where({ id })
    .update({
      state: end.state,
      etag: end.etag ?? null,
      problem: end.problem ?? null,
      counts: json(end.counts ?? {}),
      findings: json(end.findings ?? []),
      finished_at: stampOf(now()),
    })
}

export async function insertChanges(
  db: Knex,
  fetchId: string,
  changes: readonly RosterChange[],
): Promise<void> {
  const at = stampOf(now())
  const rows = changes.map(({ courseId, kind, count, detail }) => ({
    id: newId(),
    fetch_id: fetchId,
    at,
    course_id: courseId,
    kind,
    count,
    detail: json(detail),
  }))
  for (const batch of inBatches(rows)) await db('roster_changes').insert(batch)
}
export interface KeptChange extends RosterChange {
  id: string
  fetchId: string
  at: string
}
/** The latest changes in some courses, the newest first. */
export async function changesIn(
  db: Knex,
  courseIds: readonly string[],
  since: string,
  most = 200,
): Promise<KeptChange[]> {
  if (courseIds.length === 0) return []
  const rows = await db('roster_changes')
    .whereIn('course_id', courseIds)
    .where('at', '>=', since)
    .orderBy([
      { column: 'at', order: 'desc' },
      { column: 'id', order: 'desc' },
    ])
    .limit(most)
  return rows.map(row => ({
    id: row.id,
    fetchId: row.fetch_id,
    at: row.at,
    courseId: row.course_id,
    // Only kinds of the list are ever written (insertChanges).
    kind: row.kind as ChangeKind,
    count: row.count,
    detail: jsonOf(row.detail),
  }))
}
