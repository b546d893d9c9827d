import type { Knex } from 'knex'
import type { CourseQuery } from '../courses/access.queries'

/** Courses among some that people teach in. */
export const writtenAmong = (
  among: CourseQuery,
): Promise<{ id: string; source_id: string; code: string; title: string }[]> =>
  among.whereIn('origin', ['registrar', 'hand']).select('id', 'source_id', 'code', 'title')
/** How many items of some identifiers each of some courses has, by course. */
export async function coursesWithIdentifiers(
  db: Knex,
  among: CourseQuery,
  identifiers: readonly string[],
): Promise<Map<string, number>> {
  const rows = await db('items')
    .whereIn('course_id', among.select('id'))
    .whereIn('identifier', identifiers.slice(0, 2000))
    .whereNot({ state: 'deleted' })
    .groupBy('course_id')
    .select<{ course_id: string; count: number }[]>(
      'course_id',
      db.raw('COUNT(DISTINCT identifier) AS count'),
    )
  return new Map(rows.map(row => [row.course_id, row.count]))
}
/** Those of some courses that hold content of their own. */
export async function filledOf(db: Knex, ids: readonly string[]): Promise<Set<string>> {
  const rows = await db('items').whereIn('course_id', ids).distinct('course_id')
  return new Set(rows.map(row => row.course_id))
}
