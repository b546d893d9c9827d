import type { Knex } from 'knex'
import type { ItemKind } from '../../core/course/model'
import type { CourseQuery } from '../courses/access.queries'
import { selectRows } from '../db/rows'

/** What is looked for: words as MariaDB's boolean full-text search takes them, and what the finds are narrowed to. */
export interface Wanted {
  words: string
  kind: ItemKind | null
  term: string | null
  course: string | null
}
/** A title with a text that holds the words, with how well it fits; the best come first. */
export interface Hit {
  id: string
  title: string
  text: string
  score: number
}
/** Where the words stand, among the items of some courses. A title that fits counts more than a text. */
export async function findHits(
  db: Knex,
  among: () => CourseQuery,
  { words, kind, term, course }: Wanted,
  limit: number,
): Promise<Hit[]> {
  const places = db('searched_items as at')
    .join('items', join => join.on('items.course_id', 'at.course_id').andOn('items.lineage', 'at.lineage'))
    .whereRaw('at.searched_id = s.id')
    .whereNot('items.state', 'deleted')
    .whereIn('at.course_id', inCourses(db, among, term, course))
  if (kind) void places.where('items.kind', kind)
  const { sql, bindings } = places.select(db.raw('1')).toSQL().toNative()
  const match = (columns: string): string => `MATCH(${columns}) AGAINST (? IN BOOLEAN MODE)`
  return selectRows<Hit>(
    db,
    `SELECT s.id, s.title, s.text, 2 * ${match('s.title')} + ${match('s.title, s.text')} AS score
     FROM searched s WHERE ${match('s.title, s.text')} AND EXISTS (${sql})
     ORDER BY score DESC, s.title LIMIT ${limit}`,
    [words, words, words, ...bindings],
  )
}
function inCourses(db: Knex, among: () => CourseQuery, term: string | null, course: string | null) {
  const courses = among().whereNotIn('origin', ['awaited'])
  if (course) void courses.where('courses.id', course)
  if (term) void courses.whereIn('courses.term_id', db('terms').where({ code: term }).select('id'))
  return courses.select('courses.id')
}

/** Where one of the hits stands. */
export interface Place {
  searchedId: string
  courseId: string
  lineage: string
  kind: ItemKind
  size: number | null
  unit: string | null
}
/** Where some hits stand, in the latest terms first. */
export async function placesOf(
  db: Knex,
  among: () => CourseQuery,
  { term, course, kind }: Wanted,
  ids: readonly string[],
): Promise<Place[]> {
  if (ids.length === 0) return []
  return db('searched_items as at')
    .join('items', join => join.on('items.course_id', 'at.course_id').andOn('items.lineage', 'at.lineage'))
    .join('courses as c', 'c.id', 'at.course_id')
    .join('terms', 'terms.id', 'c.term_id')
    .leftJoin('bodies', 'bodies.hash', 'items.body_hash')
    .leftJoin('units', join =>
      join.on('units.course_id', 'items.course_id').andOn('units.lineage', 'items.parent_lineage'),
    )
    .whereIn('at.searched_id', [...ids])
    .whereIn('at.course_id', inCourses(db, among, term, course))
    .whereNot('items.state', 'deleted')
    .modify(query => (kind ? query.where('items.kind', kind) : query))
    .orderBy([{ column: 'terms.classes_from', order: 'desc' }, 'c.code', 'c.section'])
    .limit(2000)
    .select<Place[]>(
      'at.searched_id as searchedId',
      'at.course_id as courseId',
      'at.lineage',
      'items.kind',
      'bodies.size',
      'units.title as unit',
    )
}
