import type { Knex } from 'knex'
import type { CleanedThings } from '../../core/plan/cleaned'
import { json } from '../db/rows'
import type { CleanedAround } from './cleaner'

const aroundTables = ['grade_categories', 'rubrics', 'work_groups', 'furnishings'] as const
/** Gives what stands around the units of a course titles, criteria and details that name no student. Few do: row by row. */
export async function cleanAround(
  trx: Knex,
  courseId: string,
  cleaned: CleanedThings,
  around: readonly CleanedAround[],
): Promise<void> {
  for (const [lineage, { title }] of cleaned) {
    if (title === null) continue
    for (const table of aroundTables)
      await trx(table).where({ course_id: courseId, lineage }).update({ title })
  }
  for (const { entity, lineage, details } of around) {
    const where = { course_id: courseId, lineage }
    if (entity === 'rubric')
      await trx('rubrics')
        .where(where)
        .update({ criteria: json(details) as never })
    else
      await trx('furnishings')
        .where(where)
        .update({ details: json(details) as never })
  }
}
