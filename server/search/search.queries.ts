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
/** A title with a text that holds the words, with how well it fits. */
export interface Hit {
  id: string
  title: string
  text: string
}
/**
 * So many of the best are looked at, among all courses there are: the index gives them at once, whatever stands in them. Only then those are
 * kept that the person may see.
 */
const lookedAt = 1000
async function bestAnywhere(db: Knex, words: string): Promise<{ ids: string[]; areAll: boolean }> {
  const best = (columns: string): Promise<{ id: string; score: number }[]> =>
    selectRows(
      db,
      `SELECT id, MATCH(${columns}) AGAINST (:words IN BOOLEAN MODE) AS score FROM searched
       WHERE MATCH(${columns}) AGAINST (:words IN BOOLEAN MODE) ORDER BY score DESC LIMIT ${lookedAt}`,
      { words },
    )
  const [texts, titles] = await Promise.all([best('title, text'), best('title')])
  const scores = new Map(texts.map(({ id, score }) => [id, score]))
  // A title that fits counts more than a text.
  for (const { id, score } of titles) scores.set(id, (scores.get(id) ?? 0) + 2 * score)
  const ids = [...scores].sort(([a, x], [b, y]) => y - x || (a < b ? -1 : 1)).map(([id]) => id)
  return { ids, areAll: texts.length < lookedAt }
}
/** Those of some hits that stand among the items of some courses. */
async function standingAmong(
  db: Knex,
  among: () => CourseQuery,
  { kind, term, course }: Wanted,
  ids: readonly string[],
): Promise<Set<string>> {
  if (ids.length === 0) return new Set()
  const rows = await itemPlaces(db)
    .whereIn('at.searched_id', [...ids])
    .whereIn('at.course_id', inCourses(db, among, term, course))
    .modify(query => (kind ? query.where('items.kind', kind) : query))
    .distinct<{ searched_id: string }[]>('at.searched_id')
  return new Set(rows.map(row => row.searched_id))
}
const itemPlaces = (db: Knex) =>
  db('searched_items as at')
    .join('items', join => join.on('items.course_id', 'at.course_id').andOn('items.lineage', 'at.lineage'))
    .whereNot('items.state', 'deleted')
/** Where the words stand, among the items of some courses: the best first. `each`: the words as they were typed. */
export async function findHits(
  db: Knex,
  among: () => CourseQuery,
  wanted: Wanted,
  each: readonly string[],
  limit: number,
): Promise<Hit[]> {
  const { ids, areAll } = await bestAnywhere(db, wanted.words)
  const found: string[] = []
  // Whoever may see much finds enough among the first; for others all of them are looked through.
  for (const some of [ids.slice(0, 4 * limit), ids.slice(4 * limit)]) {
    if (found.length >= limit) break
    const open = await standingAmong(db, among, wanted, some)
    found.push(...some.filter(id => open.has(id)).slice(0, limit - found.length))
  }
  // A word that stands nearly everywhere: the best of all are other people's, so one's own courses are read through.
  const own = found.length < limit && !areAll ? await hitsWithin(db, among, wanted, each, limit) : []
  const wantedIds = [...new Set([...found, ...own])].slice(0, limit)
  const rows = await db('searched').whereIn('id', wantedIds).select('id', 'title', 'text')
  const byId = new Map(rows.map(row => [row.id, row]))
  return wantedIds.flatMap(id => byId.get(id) ?? [])
}
function hitsWithin(
  db: Knex,
  among: () => CourseQuery,
  { kind, term, course }: Wanted,
  words: readonly string[],
  limit: number,
): Promise<string[]> {
  const query = itemPlaces(db)
    .join('searched as s', 's.id', 'at.searched_id')
    .whereIn('at.course_id', inCourses(db, among, term, course))
    .modify(narrowed => (kind ? narrowed.where('items.kind', kind) : narrowed))
    .limit(limit)
    .distinct('s.id')
  for (const word of words)
    void query.where(holds =>
      holds.where('s.title', 'like', `%${word}%`).orWhere('s.text', 'like', `%${word}%`),
    )
  return query.pluck('s.id')
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
  return itemPlaces(db)
    .join('courses as c', 'c.id', 'at.course_id')
    .join('terms', 'terms.id', 'c.term_id')
    .leftJoin('bodies', 'bodies.hash', 'items.body_hash')
    .leftJoin('units', join =>
      join.on('units.course_id', 'items.course_id').andOn('units.lineage', 'items.parent_lineage'),
    )
    .whereIn('at.searched_id', [...ids])
    .whereIn('at.course_id', inCourses(db, among, term, course))
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
