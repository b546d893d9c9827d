import type { ItemKind } from '../../core/course/model'
import type { Knex } from 'knex'
import { datesOf, type ItemDates } from '../../core/course/dates'
import type { Effect } from '../../core/plan/compile'
import { planDocument, type PlanDocument } from '../../core/plan/document'
import type { ShellFacts } from '../../core/plan/shell-facts'
import type { TraceRecord } from '../../core/student-data/traces/record'
import type { RunReply } from '../../shared/api/plans'
import { json, jsonOf, selectRows, type Json } from '../db/rows'
import type { AuditLine, FactChange, RunEntryRow, RunRow } from '../db/tables'
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
}
type RunColumns = RunRow & NamedRow
const runRows = (db: Knex) =>
  db('runs')
    .join('people', 'people.id', 'runs.person_id')
    .select<RunColumns[]>('runs.*', 'given_name', 'family_name')
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
  effect: jsonOf(row.effect),
  audit: jsonOf(row.audit),
  traces: row.traces && jsonOf(row.traces),
})

export async function findRun(db: Knex, id: string): Promise<Run | null> {
  const [row] = await runRows(db).where('runs.id', id)
  return row ? runFrom(row) : null
}
/** Runs into some courses, the latest first. */
export async function runsInto(db: Knex, targetIds: readonly string[]): Promise<Run[]> {
  if (targetIds.length === 0) return []
  const rows = await runRows(db)
    .whereIn('target_course_id', targetIds)
    .orderBy([
      { column: 'finished_at', order: 'desc' },
      { column: 'runs.id', order: 'desc' },
    ])
  return rows.map(runFrom)
}
/** Which course each shell was last filled from. */
export async function filledFrom(db: Knex): Promise<Map<string, string>> {
  const rows = await db('runs').orderBy('finished_at').select('source_course_id', 'target_course_id')
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
    started_at: run.at,
    finished_at: run.at,
  })
}
export async function keepSnapshot(trx: Knex, runId: string, snapshotId: string): Promise<void> {
  await trx('runs').where({ id: runId }).update({ snapshot_id: snapshotId, source_course_id: snapshotId })
}
export async function finishRun(
  trx: Knex,
  id: string,
  { audit, traces }: { audit: AuditLine[]; traces: TraceRecord },
  at: string,
): Promise<void> {
  await trx('runs')
    .where({ id })
    .update({ audit: json(audit), traces: json(traces), finished_at: at })
}

const factColumns = {
  title: 'shown_title',
  label: 'label',
  enrolFrom: 'enrol_from',
  enrolTo: 'enrol_to',
  openFrom: 'open_from',
  openTo: 'open_to',
} as const satisfies Record<keyof ShellFacts, string>
/** Writes the names and windows of a shell, and keeps what they were. What a plan leaves as it is is not written. */
export async function setShellFacts(
  trx: Knex,
  runId: string,
  courseId: string,
  facts: Partial<ShellFacts>,
): Promise<void> {
  const former = await trx('courses').where({ id: courseId }).first()
  if (!former) return
  const changes = Object.entries(facts).flatMap(([fact, after]) => {
    const column = factColumns[fact as keyof ShellFacts]
    const before = former[column]
    return before === after ? [] : [{ column, before, after }]
  })
  if (changes.length === 0) return
  const told = changes.map(({ column, before, after }): [string, FactChange] => [
    column,
    { before: before ?? (column === 'shown_title' ? former.title : null), after },
  ])
  await trx('run_entries').insert({
    run_id: runId,
    entity: 'course',
    lineage: courseId,
    action: 'replaced',
    position: 0,
    former: json(Object.fromEntries(told)),
  })
  await trx('courses')
    .where({ id: courseId })
    .update(Object.fromEntries(changes.map(({ column, after }) => [column, after])))
}
/** What a run changed in the shell itself: its names and windows, before and after. */
export async function shellFactsOfRun(
  db: Knex,
  runId: string,
  courseId: string,
): Promise<(FactChange & { field: string })[]> {
  const row = await db('run_entries')
    .where({ run_id: runId, entity: 'course', lineage: courseId })
    .first('former')
  const changes = row?.former ? (jsonOf(row.former) as Record<string, FactChange>) : {}
  return Object.entries(changes).map(([field, change]) => ({ field, ...change }))
}

/** One thing that a run did, with its title as it was in the source. */
export interface EntryLine extends ItemDates {
  entity: 'category' | 'unit' | 'item'
  lineage: string
  action: Exclude<RunEntryRow['action'], 'moved'>
  title: string
  kind: ItemKind | null
  flags: readonly string[]
  /** The course that it was taken from, where that is no source of the plan; and whether the plan made it. */
  from: string | null
  isMade: boolean
  /** How the run put its text together; null: the source's as it was. */
  text: RunReply['entries'][number]['text']
}
type EntryColumns = Omit<RunEntryRow, 'details'> & { from_course: string | null } & Pick<
    EntryLine,
    'entity' | 'action' | 'kind'
  > & { details: Json<EntryLine['text']> | null }
const named = (table: string): string => `
  LEFT JOIN ${table}
    ON ${table}.course_id = COALESCE(e.source_course_id, :source) AND ${table}.lineage = e.source_lineage`
// Columns and texts in JSON differ in how they are compared; here they are only told.
const text = (column: string): string => `CONVERT(${column} USING utf8mb4)`
const inDetails = (column: 'former' | 'details'): string => `JSON_VALUE(e.${column}, '$.title')`
export async function loadEntries(db: Knex, run: Pick<Run, 'id' | 'sourceId'>): Promise<EntryLine[]> {
  const rows = await selectRows<EntryColumns>(
    db,
    `SELECT e.*, IF(e.action = 'cleared', ${inDetails('former')},
       COALESCE(${inDetails('details')}, ${text('e.title')}, ${text('items.title')}, ${text('units.title')},
         ${text('grade_categories.title')})) AS title,
       COALESCE(${text('items.kind')}, JSON_VALUE(e.former, '$.kind'), ${text('e.kind')}) AS kind,
       TRIM(TRAILING '-' FROM CONCAT(taken.code, '-', taken.section)) AS from_course
     FROM run_entries e LEFT JOIN courses taken ON taken.id = e.source_course_id AND e.alone ${named('items')} ${named('units')} ${named('grade_categories')}
     WHERE e.run_id = :run AND e.entity IN ('category', 'unit', 'item') AND e.action <> 'moved'
     ORDER BY e.entity, e.position`,
    { source: run.sourceId, run: run.id },
  )
  return rows.map(row => ({
    entity: row.entity,
    lineage: row.lineage,
    action: row.action,
    title: row.title ?? '',
    kind: row.kind,
    ...datesOf(row),
    from: row.from_course,
    isMade: row.source_course_id === null && row.text_from !== 'source',
    flags: row.reasons ? jsonOf(row.reasons).flags : [],
    text: row.entity === 'item' && row.details ? jsonOf(row.details) : null,
  }))
}
