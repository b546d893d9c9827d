import type { Knex } from 'knex'
import type { Effect } from '../../core/plan/effect'
import { effectAsNow } from '../../core/plan/effect-before'
import { planDocument, type PlanDocument } from '../../core/plan/document'
import type { ShellFacts } from '../../core/plan/shell-facts'
import {
  unpackedEntries,
  type PackedEntries,
  type RecordEntry,
  type RecordLeft,
} from '../../core/plan/record'
import { traceRecord, type TraceRecord } from '../../core/student-data/traces/record'
import { json, jsonOf, selectRows, unpacked, type Packed } from '../db/rows'
import type { AuditLine, FactChange, RunRow } from '../db/tables'
import { shortName, type NamedRow } from '../people/names'

export interface Run {
  id: string
  planId: string
  snapshotId: string | null
  document: PlanDocument
  sourceId: string
  targetId: string
  by: string
  startedAt: string
  finishedAt: string
  effect: Effect
  audit: AuditLine[]
  traces: TraceRecord | null
  /** How the course stood before: what an undo goes back to; null of runs of before this was kept. */
  beforeId: string | null
  undoneAt: string | null
}
/** All of a run but what it did thing by thing. */
const runColumns = [
  'id',
  'plan_id',
  'source_course_id',
  'target_course_id',
  'snapshot_id',
  'document',
  'effect',
  'audit',
  'traces',
  'started_at',
  'finished_at',
  'before_id',
  'undone_at',
] as const satisfies (keyof RunRow)[]
type RunColumns = Pick<RunRow, (typeof runColumns)[number]> & NamedRow
const runRows = (db: Knex) =>
  db('runs')
    .join('people', 'people.id', 'runs.person_id')
    .select<RunColumns[]>(...runColumns.map(column => `runs.${column}`), 'given_name', 'family_name')
const runFrom = (row: RunColumns): Run => ({
  id: row.id,
  planId: row.plan_id,
  snapshotId: row.snapshot_id,
  document: planDocument.parse(jsonOf(row.document)),
  sourceId: row.source_course_id,
  targetId: row.target_course_id,
  by: shortName(row),
  startedAt: row.started_at,
  finishedAt: row.finished_at,
  effect: effectAsNow(jsonOf(row.effect)),
  audit: jsonOf(row.audit),
  // Of runs before something was looked at, the schema says that nothing was.
  traces: row.traces && traceRecord.parse(jsonOf(row.traces)),
  beforeId: row.before_id,
  undoneAt: row.undone_at,
})
/** What a run did, thing by thing; what it left behind; and what it changed of the courses themselves. */
export interface RunDetails {
  entries: readonly RecordEntry[]
  left: readonly RecordLeft[]
  facts: Readonly<Record<string, FactChanges>>
}
export async function runDetails(db: Knex, id: string): Promise<RunDetails> {
  const row = await db('runs').where({ id }).first('entries', 'facts')
  const { entries, left } = row?.entries ? unpackedEntries(unpacked(row.entries)) : { entries: [], left: [] }
  return { entries, left, facts: row ? jsonOf(row.facts) : {} }
}

export async function findRun(db: Knex, id: string): Promise<Run | null> {
  const [row] = await runRows(db).where('runs.id', id)
  return row ? runFrom(row) : null
}
/** Runs into some courses that were not undone, the latest first. */
export async function runsInto(db: Knex, targetIds: readonly string[]): Promise<Run[]> {
  if (targetIds.length === 0) return []
  const rows = await runRows(db)
    .whereIn('target_course_id', targetIds)
    .whereNull('undone_at')
    .orderBy([
      { column: 'finished_at', order: 'desc' },
      { column: 'runs.id', order: 'desc' },
    ])
  return rows.map(runFrom)
}
/** The latest run of a plan, where that was undone. */
export async function undoneRunOf(
  db: Knex,
  planId: string,
): Promise<Pick<RunRow, 'id' | 'undone_at'> | null> {
  const row = await db('runs').where({ plan_id: planId }).orderBy('id', 'desc').first('id', 'undone_at')
  return row?.undone_at ? row : null
}
/** Those of some plans of which a run was undone. */
export const undonePlans = async (db: Knex, planIds: readonly string[]): Promise<Set<string>> =>
  new Set(
    await db('runs')
      .whereIn('plan_id', [...planIds])
      .whereNotNull('undone_at')
      .distinct()
      .pluck<string[]>('plan_id'),
  )
/** Which course each shell was last filled from. */
export async function filledFrom(db: Knex): Promise<Map<string, string>> {
  const rows = await db('runs')
    .whereNull('undone_at')
    .orderBy('finished_at')
    .select('source_course_id', 'target_course_id')
  return new Map(rows.map(row => [row.target_course_id, row.source_course_id]))
}

export interface NewRun {
  id: string
  planId: string
  sourceId: string
  targetId: string
  personId: string
  document: PlanDocument
  effect: Effect
  entries: Packed<PackedEntries>
  /** In place it is known once the snapshot is made. */
  beforeId: string | null
  at: string
}
export async function insertRun(trx: Knex, run: NewRun): Promise<void> {
  await trx('runs').insert({
    id: run.id,
    plan_id: run.planId,
    source_course_id: run.sourceId,
    target_course_id: run.targetId,
    person_id: run.personId,
    document: json(run.document),
    effect: json(run.effect),
    audit: json([]),
    entries: run.entries,
    before_id: run.beforeId,
    started_at: run.at,
    finished_at: run.at,
  })
}
export async function keepSnapshot(
  trx: Knex,
  runId: string,
  snapshotId: string,
  beforeId: string,
): Promise<void> {
  const kept = { snapshot_id: snapshotId, source_course_id: snapshotId, before_id: beforeId }
  await trx('runs').where({ id: runId }).update(kept)
}
/** Says how the course stood before a run that was put back: undone once more, it goes there. */
export async function setBefore(trx: Knex, runId: string, beforeId: string): Promise<void> {
  await trx('runs').where({ id: runId }).update({ before_id: beforeId })
}
export async function finishRun(
  trx: Knex,
  id: string,
  { audit, traces, facts }: { audit: AuditLine[]; traces: TraceRecord; facts: RunDetails['facts'] },
  at: string,
): Promise<void> {
  await trx('runs')
    .where({ id })
    .update({ audit: json(audit), traces: json(traces), facts: json(facts), finished_at: at })
}

const factColumns = {
  title: 'shown_title',
  label: 'label',
  enrolFrom: 'enrol_from',
  enrolTo: 'enrol_to',
  openFrom: 'open_from',
  openTo: 'open_to',
} as const satisfies Record<keyof ShellFacts, string>
/** Writes the names and windows of a shell, and answers what they were. What a plan leaves as it is is not written. */
export async function setShellFacts(
  trx: Knex,
  courseId: string,
  facts: Partial<ShellFacts>,
): Promise<FactChanges> {
  const former = await trx('courses').where({ id: courseId }).first()
  if (!former) return {}
  const changes = Object.entries(facts).flatMap(([fact, after]) => {
    const column = factColumns[fact as keyof ShellFacts]
    const before = former[column]
    return before === after ? [] : [{ column, before, after }]
  })
  if (changes.length === 0) return {}
  await trx('courses')
    .where({ id: courseId })
    .update(Object.fromEntries(changes.map(({ column, after }) => [column, after])))
  return Object.fromEntries(
    changes.map(({ column, before, after }): [string, FactChange] => [
      column,
      { before: before ?? (column === 'shown_title' ? former.title : null), after },
    ]),
  )
}
/** By column, before and after. */
export type FactChanges = Readonly<Record<string, FactChange>>
/** The keys of what was added to a course by hand after a run, and stands there: ids grow with time, also where the clock stands still. */
export async function addedSince(db: Knex, courseId: string, runId: string): Promise<string[]> {
  const rows = await selectRows<{ added: string }>(
    db,
    `SELECT JSON_VALUE(former, '$.added') AS added FROM course_edits
     WHERE course_id = :courseId AND id > :runId AND undone_at IS NULL AND JSON_VALUE(former, '$.added') IS NOT NULL`,
    { courseId, runId },
  )
  return rows.map(row => row.added)
}
