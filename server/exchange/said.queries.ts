import type { Knex } from 'knex'
import { written } from '../db/rows'
import type { FormerFields } from '../editing/edits.queries'

/** What files can say of the items of a course, as it stands there, by lineage. */
export async function loadSaidRows(db: Knex, courseId: string): Promise<Map<string, FormerFields>> {
  const rows = await db('items')
    .where({ course_id: courseId })
    .whereNot({ state: 'deleted' })
    .select('lineage', 'opens', 'due', 'closes', 'points', 'category_lineage', 'grading_period')
  return new Map(
    rows.map(({ category_lineage: category, grading_period: gradingPeriod, ...row }) => [
      row.lineage,
      { ...row, category, gradingPeriod },
    ]),
  )
}
/** Adds grade categories after those that a course has. */
export async function addCategories(
  trx: Knex,
  courseId: string,
  titles: readonly { lineage: string; title: string }[],
): Promise<void> {
  const last = await trx('grade_categories').where({ course_id: courseId }).max({ at: 'position' }).first()
  const after = Number(last?.at ?? -1) + 1
  const rows = titles.map(({ lineage, title }, at) => ({
    course_id: courseId,
    lineage,
    title,
    identifier: null,
    weight: null,
    position: after + at,
    within: 'points' as const,
    drop_lowest: 0,
    drop_highest: 0,
    exempt: false,
    fixed: false,
  }))
  if (rows.length > 0) await trx('grade_categories').insert(rows)
}
/** Puts results of students in the place of those that the same items had of them. */
export const dropResultsOf = (
  trx: Knex,
  pairs: readonly { enrolment: string; lineage: string }[],
): Promise<number> =>
  written(
    trx,
    `DELETE g FROM grades g
     JOIN JSON_TABLE(:pairs, '$[*]' COLUMNS (
       enrolment CHAR(36) CHARACTER SET ascii COLLATE ascii_bin PATH '$.enrolment',
       lineage CHAR(36) CHARACTER SET ascii COLLATE ascii_bin PATH '$.lineage')) p
       ON p.enrolment = g.enrolment_id AND p.lineage = g.item_lineage`,
    { pairs: JSON.stringify(pairs) },
  )
