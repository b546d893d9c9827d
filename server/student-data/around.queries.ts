import type { Knex } from 'knex'
import type { CleanedThings } from '../../core/plan/cleaned'

const aroundTables = ['grade_categories', 'rubrics', 'work_groups', 'furnishings'] as const
/** Gives what stands around the units of a course the titles that name no student. Few are named there: row by row. */
export async function cleanAround(trx: Knex, courseId: string, cleaned: CleanedThings): Promise<void> {
  for (const [lineage, { title }] of cleaned) {
    if (title === null) continue
    for (const table of aroundTables)
      await trx(table).where({ course_id: courseId, lineage }).update({ title })
  }
}
