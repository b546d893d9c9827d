import type { Knex } from 'knex'
import { partValuesOf } from '../../core/carry/again'
import type { CarriedBase } from '../../core/carry/base'
import type { CarriedRow } from '../db/tables'
import { inBatches, json, jsonOf } from '../db/rows'
import { loadOutline } from './content.queries'

/** What was carried into a course last, or was seen and declined, and how its template's things came. */
export async function loadBases(db: Knex, courseId: string): Promise<CarriedBase[]> {
  const rows = await db('carried').where({ course_id: courseId })
  return rows.map(row => ({
    source: row.source_lineage,
    lineage: row.lineage,
    type: row.entity,
    how: row.how,
    parts: jsonOf(row.parts),
    wrote: row.wrote,
    ...(row.wrote_settings !== null && { wroteSettings: row.wrote_settings }),
  }))
}
/** Under which keys of a course the things of its sources stand, where those are others: a page that took an empty place. */
export async function standIns(db: Knex, courseId: string): Promise<Map<string, string>> {
  const rows = await db('carried')
    .where({ course_id: courseId, origin: 'run' })
    .whereNot({ how: 'left' })
    .whereRaw('source_lineage <> lineage')
    .select('source_lineage', 'lineage')
  return new Map(rows.map(row => [row.source_lineage, row.lineage]))
}
const rowOf = (courseId: string, base: CarriedBase, runId: string | null): CarriedRow => ({
  course_id: courseId,
  origin: base.how === 'template' ? 'template' : 'run',
  source_lineage: base.source,
  lineage: base.lineage,
  entity: base.type,
  how: base.how,
  parts: json(base.parts),
  wrote: base.wrote ?? null,
  wrote_settings: base.wroteSettings ?? null,
  run_id: runId,
})
/** Keeps what the next run compares with; of what was kept of a thing before, this takes the place. */
export async function keepBases(
  db: Knex,
  courseId: string,
  bases: readonly CarriedBase[],
  runId: string | null,
): Promise<void> {
  for (const batch of inBatches(bases.map(base => rowOf(courseId, base, runId))))
    await db('carried').insert(batch).onConflict().merge()
}
/** Keeps how everything of a course came with its template: what differs from that later was touched. */
export async function keepTemplate(db: Knex, courseId: string): Promise<void> {
  const nodes = await loadOutline(db, courseId)
  const bases = nodes.map((node): CarriedBase => ({
    source: node.lineage,
    lineage: node.lineage,
    type: node.type,
    how: 'template',
    parts: partValuesOf(node, { ...node, dates: node }),
  }))
  await keepBases(db, courseId, bases, null)
}
