import type { Knex } from 'knex'
import { slotNames } from '../../core/dates/rule'
import { reasonsOf } from '../../core/dates/plan'
import type { Effect, Placement } from '../../core/plan/compile'
import { planDocument, type PlanDocument } from '../../core/plan/document'
import { inBatches, jsonOf } from '../db/rows'
import { personName } from '../courses/courses.queries'

export interface AuditLine {
  kind: string
  before: number
  after: number
  onNewItems: number
}
export interface RunRow {
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

const runs = (db: Knex) =>
  db('runs').join('people', 'people.id', 'runs.person_id').select('runs.*', 'given_name', 'family_name')
const runOf = (row: Record<string, string>): RunRow => ({
  id: row.id!,
  planId: row.plan_id!,
  snapshotId: row.snapshot_id ?? null,
  document: planDocument.parse(jsonOf(row.document)),
  sourceId: row.source_course_id!,
  targetId: row.target_course_id!,
  by: personName(row as { given_name: string; family_name: string }),
  startedAt: row.started_at!,
  finishedAt: row.finished_at!,
  effect: jsonOf(row.effect),
  audit: jsonOf(row.audit),
})
export async function findRun(db: Knex, id: string): Promise<RunRow | null> {
  const row = await runs(db).where('runs.id', id).first()
  return row ? runOf(row) : null
}
/** Runs into some courses, the latest first. */
export async function runsInto(db: Knex, targetIds: readonly string[]): Promise<RunRow[]> {
  return targetIds.length === 0
    ? []
    : (
        await runs(db)
          .whereIn('target_course_id', targetIds)
          .orderBy([
            { column: 'finished_at', order: 'desc' },
            { column: 'runs.id', order: 'desc' },
          ])
      ).map(runOf)
}
export async function insertRun(
  trx: Knex,
  run: {
    id: string
    planId: string
    sourceId: string
    targetId: string
    personId: string
    document: PlanDocument
    effect: Effect
    at: string
  },
): Promise<void> {
  await trx('runs').insert({
    id: run.id,
    plan_id: run.planId,
    source_course_id: run.sourceId,
    target_course_id: run.targetId,
    person_id: run.personId,
    document: JSON.stringify(run.document),
    effect: JSON.stringify(run.effect),
    audit: '[]',
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
    .update({ audit: JSON.stringify(audit), finished_at: at })
}

/** Writes down what a run is about to add. The content is inserted from these rows. */
export async function insertEntries(
  trx: Knex,
  runId: string,
  sourceIds: readonly string[],
  placements: readonly Placement[],
): Promise<void> {
  for (const batch of inBatches(placements)) {
    await trx('run_entries').insert(
      batch.map(({ action, entity, lineage, parent, position, dates, from }) => ({
        run_id: runId,
        source_course_id: sourceIds[from],
        entity,
        lineage,
        action,
        parent_lineage: parent,
        position,
        opens: dates?.opens ?? null,
        due: dates?.due ?? null,
        closes: dates?.closes ?? null,
        reasons: dates && JSON.stringify({ flags: dates.flags, reasons: reasonsOf(dates) }),
      })),
    )
  }
}

/**
 * Copies what a run's entries name from their sources into the shell, set by set: rows of metadata only, bodies stay shared.
 * Returns how many rows of each kind were written.
 */
export async function copyContent(
  trx: Knex,
  runId: string,
  targetId: string,
): Promise<{ category: number; unit: number; item: number; slots: number }> {
  const write = async (sql: string, bindings: string[]): Promise<number> =>
    Number(((await trx.raw(sql, bindings)) as [{ affectedRows: number }])[0].affectedRows)
  const from = (table: string, entity: string) =>
    `FROM run_entries e JOIN ${table} s ON s.course_id = e.source_course_id AND s.lineage = e.lineage WHERE e.run_id = ? AND e.entity = '${entity}' AND e.action = 'added'`
  const category = await write(
    `INSERT INTO grade_categories (course_id, lineage, title, weight, position) SELECT ?, s.lineage, s.title, s.weight, e.position ${from('grade_categories', 'category')}`,
    [targetId, runId],
  )
  const unit = await write(
    `INSERT INTO units (course_id, lineage, parent_lineage, position, title, state) SELECT ?, s.lineage, e.parent_lineage, e.position, s.title, s.state ${from('units', 'unit')}`,
    [targetId, runId],
  )
  const item = await write(
    `INSERT INTO items (course_id, lineage, parent_lineage, position, kind, title, state, exam, points, category_lineage, body_hash, media_type, settings)
    SELECT ?, s.lineage, e.parent_lineage, e.position, s.kind, s.title, s.state, s.exam, s.points, s.category_lineage, s.body_hash, s.media_type, s.settings ${from('items', 'item')}`,
    [targetId, runId],
  )
  return { category, unit, item, slots: await writeSlots(trx, runId, targetId) }
}
/** Writes the dates that a run's entries name. Returns how many. */
export async function writeSlots(trx: Knex, runId: string, targetId: string): Promise<number> {
  const write = async (sql: string, bindings: string[]): Promise<number> =>
    Number(((await trx.raw(sql, bindings)) as [{ affectedRows: number }])[0].affectedRows)
  let slots = 0
  for (const slot of slotNames)
    slots += await write(
      `INSERT INTO slots (course_id, lineage, slot, at) SELECT ?, lineage, '${slot}', ${slot} FROM run_entries WHERE run_id = ? AND entity = 'item' AND ${slot} IS NOT NULL`,
      [targetId, runId],
    )
  return slots
}

/** The names and windows of a shell as a run found them, and writes the new ones. What a plan leaves as it is is not written. */
export async function setCourseFacts(
  trx: Knex,
  runId: string,
  courseId: string,
  change: Record<string, string | null>,
): Promise<void> {
  const former = await trx('courses')
    .where({ id: courseId })
    .first('title', 'shown_title', 'label', 'enrol_from', 'enrol_to', 'open_from', 'open_to')
  const told = Object.keys(change).filter(key => change[key] !== (former[key] ?? null))
  if (told.length === 0) return
  await trx('run_entries').insert({
    run_id: runId,
    entity: 'course',
    lineage: courseId,
    action: 'replaced',
    parent_lineage: null,
    position: 0,
    former: JSON.stringify(
      Object.fromEntries(
        told.map(key => [
          key,
          { before: former[key] ?? (key === 'shown_title' ? former.title : null), after: change[key] },
        ]),
      ),
    ),
  })
  await trx('courses').where({ id: courseId }).update(change)
}
/** What a run changed in the shell itself: its names and windows, before and after. */
export async function courseFactsOf(
  db: Knex,
  runId: string,
): Promise<{ field: string; before: string | null; after: string | null }[]> {
  const row = await db('run_entries').where({ run_id: runId, entity: 'course' }).first('former')
  return row
    ? Object.entries(jsonOf<Record<string, { before: string | null; after: string | null }>>(row.former)).map(
        ([field, change]) => ({ field, ...change }),
      )
    : []
}

export interface EntryRow {
  entity: 'category' | 'unit' | 'item'
  lineage: string
  action: 'added' | 'replaced' | 'cleared'
  title: string
  kind: string | null
  opens: string | null
  due: string | null
  closes: string | null
  flags: string[]
}
/** What a run did, with titles as they were in its source. */
export async function loadEntries(db: Knex, run: Pick<RunRow, 'id' | 'sourceId'>): Promise<EntryRow[]> {
  const named = (table: string) =>
    `LEFT JOIN ${table} ON ${table}.course_id = COALESCE(e.source_course_id, :source) AND ${table}.lineage = e.lineage`
  const [rows] = (await db.raw(
    `SELECT e.*, COALESCE(items.title, units.title, grade_categories.title) AS title, items.kind AS kind FROM run_entries e
    ${named('items')} ${named('units')} ${named('grade_categories')} WHERE e.run_id = :run AND e.entity <> 'course' ORDER BY e.entity, e.position`,
    { source: run.sourceId, run: run.id },
  )) as [Record<string, string | null>[]]
  return rows.map(row => ({
    entity: row.entity as EntryRow['entity'],
    lineage: row.lineage!,
    action: row.action as EntryRow['action'],
    title: row.title ?? '',
    kind: row.kind ?? null,
    opens: row.opens ?? null,
    due: row.due ?? null,
    closes: row.closes ?? null,
    flags: row.reasons === null ? [] : jsonOf<{ flags: string[] }>(row.reasons).flags,
  }))
}
