import type { ItemKind } from '../../core/course/model'
import type { Knex } from 'knex'
import { datesOf, noDates, type ItemDates } from '../../core/course/dates'
import { reasonsOf } from '../../core/dates/plan'
import type { Effect, Placement } from '../../core/plan/compile'
import { planDocument, type PlanDocument } from '../../core/plan/document'
import type { ShellFacts } from '../../core/plan/shell-facts'
import { inBatches, json, jsonOf, selectRows, written } from '../db/rows'
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
export async function finishRun(trx: Knex, id: string, audit: AuditLine[], at: string): Promise<void> {
  await trx('runs')
    .where({ id })
    .update({ audit: json(audit), finished_at: at })
}

/** Writes down what a run is about to do; the content is then written from these rows. `sourceIds`: by a placement's `from`. */
export async function insertEntries(
  trx: Knex,
  runId: string,
  sourceIds: readonly string[],
  placements: readonly Placement[],
): Promise<void> {
  const rows = placements.map(({ action, entity, lineage, parent, position, dates, from }) => ({
    run_id: runId,
    source_course_id: sourceIds[from] ?? null,
    entity,
    lineage,
    action,
    parent_lineage: parent,
    position,
    ...datesOf(dates ?? noDates),
    reasons: dates && json({ flags: dates.flags, reasons: reasonsOf(dates) }),
  }))
  for (const batch of inBatches(rows)) await trx('run_entries').insert(batch)
}

/** How many rows of each sort a run wrote. */
export type WrittenCounts = Record<'category' | 'unit' | 'item', number>
const addedFrom = (table: string, entity: string): string => `
  FROM run_entries e
  JOIN ${table} s ON s.course_id = e.source_course_id AND s.lineage = e.lineage
  WHERE e.run_id = :runId AND e.entity = '${entity}' AND e.action = 'added'`
/** Copies what a run's entries name from their sources into the shell, set by set: rows of metadata only, bodies stay shared. */
export async function copyContent(trx: Knex, runId: string, targetId: string): Promise<WrittenCounts> {
  const names = { runId, targetId }
  const category = await written(
    trx,
    `INSERT INTO grade_categories (course_id, lineage, title, weight, position)
     SELECT :targetId, s.lineage, s.title, s.weight, e.position ${addedFrom('grade_categories', 'category')}`,
    names,
  )
  const unit = await written(
    trx,
    `INSERT INTO units (course_id, lineage, parent_lineage, position, title, state)
     SELECT :targetId, s.lineage, e.parent_lineage, e.position, s.title, s.state ${addedFrom('units', 'unit')}`,
    names,
  )
  const item = await written(
    trx,
    `INSERT INTO items (course_id, lineage, parent_lineage, position, kind, title, state, exam, points,
       category_lineage, opens, due, closes, body_hash, media_type, settings)
     SELECT :targetId, s.lineage, e.parent_lineage, e.position, s.kind, s.title, s.state, s.exam, s.points,
       s.category_lineage, e.opens, e.due, e.closes, s.body_hash, s.media_type, s.settings
     ${addedFrom('items', 'item')}`,
    names,
  )
  return { category, unit, item }
}
/** Gives the items of a course the dates that a run's entries name. Answers how many items have dates by them. */
export async function writeDates(trx: Knex, runId: string, courseId: string): Promise<void> {
  await written(
    trx,
    `UPDATE items JOIN run_entries e ON e.run_id = :runId AND e.entity = 'item' AND e.lineage = items.lineage
     SET items.opens = e.opens, items.due = e.due, items.closes = e.closes
     WHERE items.course_id = :courseId`,
    { runId, courseId },
  )
}
/** How many dates stand in a course on the items that a run wrote. */
export async function countDates(trx: Knex, runId: string, courseId: string): Promise<number> {
  const [row] = await selectRows<{ dates: number }>(
    trx,
    `SELECT COUNT(items.opens) + COUNT(items.due) + COUNT(items.closes) AS dates
     FROM items JOIN run_entries e ON e.run_id = :runId AND e.entity = 'item' AND e.lineage = items.lineage
     WHERE items.course_id = :courseId`,
    { runId, courseId },
  )
  return row?.dates ?? 0
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
  return Object.entries(row?.former ? jsonOf(row.former) : {}).map(([field, change]) => ({
    field,
    ...change,
  }))
}

/** One thing that a run did, with its title as it was in the source. */
export interface EntryLine extends ItemDates {
  entity: 'category' | 'unit' | 'item'
  lineage: string
  action: RunEntryRow['action']
  title: string
  kind: ItemKind | null
  flags: readonly string[]
}
type EntryColumns = RunEntryRow & { entity: EntryLine['entity']; title: string | null; kind: ItemKind | null }
const named = (table: string): string => `
  LEFT JOIN ${table}
    ON ${table}.course_id = COALESCE(e.source_course_id, :source) AND ${table}.lineage = e.lineage`
export async function loadEntries(db: Knex, run: Pick<Run, 'id' | 'sourceId'>): Promise<EntryLine[]> {
  const rows = await selectRows<EntryColumns>(
    db,
    `SELECT e.*, COALESCE(items.title, units.title, grade_categories.title) AS title, items.kind AS kind
     FROM run_entries e ${named('items')} ${named('units')} ${named('grade_categories')}
     WHERE e.run_id = :run AND e.entity <> 'course'
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
    flags: row.reasons ? jsonOf(row.reasons).flags : [],
  }))
}
