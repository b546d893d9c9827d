import type { Knex } from 'knex'
import { booleanQuery, longWords, snippetOf } from '../../core/prose/search'
import { present } from '../../core/present'
import type { Find, SearchQuery, SearchReply } from '../../shared/api/search'
import { accessToCourses, coursesOf } from '../courses/access'
import { courseLines, lineIn } from '../courses/lines'
import { groupBy } from '../db/rows'
import type { Person } from '../people/people.queries'
import * as queries from './search.queries'

const findsAtMost = 30
const placesAtMost = 3

/** Items by their words, in every course that a person may roll from: the best first, what several courses hold alike told once. */
export async function search(db: Knex, person: Person, wish: SearchQuery): Promise<SearchReply> {
  const words = booleanQuery(wish.q)
  if (words === null) return { finds: [], isMore: false, isTooShort: true }
  const wanted = { words, kind: wish.kind ?? null, term: wish.term ?? null, course: wish.course ?? null }
  const among = await coursesOf(db, person, { shared: true })
  const hits = await queries.findHits(db, among, wanted, longWords(wish.q), findsAtMost + 1)
  const ids = hits.map(hit => hit.id)
  const places = await queries.placesOf(db, among, wanted, ids)
  const access = await accessToCourses(db, person, [...new Set(places.map(place => place.courseId))])
  const isOpen = ({ courseId, kind }: queries.Place): boolean => {
    const own = access.get(courseId)
    return Boolean(own?.rollFrom) && !own?.withheld.has(kind)
  }
  const byHit = groupBy(places.filter(isOpen), place => place.searchedId)
  const told = hits.slice(0, findsAtMost).filter(hit => byHit.has(hit.id))
  const shown = told.flatMap(hit => present(byHit.get(hit.id)).slice(0, placesAtMost))
  const lineOf = lineIn(
    await courseLines(
      db,
      person,
      shown.map(place => place.courseId),
    ),
  )
  const finds = told.map((hit): Find => {
    const all = present(byHit.get(hit.id))
    const first = present(all[0])
    return {
      title: hit.title,
      kind: first.kind,
      size: first.size ?? 0,
      snippet: snippetOf(hit.text, wish.q),
      places: all
        .slice(0, placesAtMost)
        .map(({ courseId, lineage, unit }) => ({ course: lineOf(courseId), lineage, unit })),
      more: Math.max(0, all.length - placesAtMost),
    }
  })
  return { finds, isMore: hits.length > findsAtMost, isTooShort: false }
}
