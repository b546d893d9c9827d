import type { Knex } from 'knex'
import { comparableTitle } from '../../core/carry/titles'
import { courseText } from '../../core/course/code-text'
import { titleOfPackage } from '../../core/course/package-title'
import type { GatheredItem } from '../../core/gather/saying'
import { belongsWays, type GatherReply } from '../../shared/api/gathering'
import { accessToCourses, coursesOf } from '../courses/access'
import { codeKey } from '../../core/pairing/codes'
import { codeKnowledge } from '../courses/codes'
import { factsOfCourses } from '../courses/courses.queries'
import * as queries from './belongs.queries'

type Belongs = GatherReply['courses'][number]
/** Of a package: what it is called, its items, and the classes that files beside it are about. */
export interface PackageSaid {
  readonly title: string
  readonly items: readonly GatheredItem[]
  readonly classes: readonly string[]
  /** A course that somebody chose. */
  readonly chosen: string | null
}
const listedAtMost = 6
/** An identifier that every second package has (`item1`) says nothing: so much of a package must be the same. */
const sameShare = 0.5

/** Courses that a person may write, to which a package may belong: the surest first. */
export async function belongsTo(
  db: Knex,
  person: Parameters<typeof coursesOf>[1],
  { title, items, classes, chosen }: PackageSaid,
): Promise<Belongs[]> {
  const among = await coursesOf(db, person)
  const identifiers = items.map(({ identifier }) => identifier)
  const shared = await queries.coursesWithIdentifiers(db, among(), identifiers)
  const said = titleOfPackage(title)
  const titled = comparableTitle(said.title)
  const { patterns } = await codeKnowledge(db)
  const code = codeKey(said.code, patterns)
  const ways = new Map<string, Belongs['why']>()
  for (const row of await queries.writtenAmong(among())) {
    const hasItems = (shared.get(row.id) ?? 0) >= Math.max(1, identifiers.length * sameShare)
    if (classes.includes(row.source_id)) ways.set(row.id, 'class')
    else if (hasItems) ways.set(row.id, 'items')
    else if (code !== '' && codeKey(row.code, patterns) === code) ways.set(row.id, 'code')
    else if (titled !== '' && comparableTitle(row.title) === titled) ways.set(row.id, 'title')
    else if (row.id === chosen) ways.set(row.id, 'chosen')
  }
  const ids = [...ways.keys()]
  const access = await accessToCourses(db, person, ids)
  const facts = await factsOfCourses(db, ids)
  const filled = await queries.filledOf(db, ids)
  const rank = ({ why }: Belongs): number => belongsWays.indexOf(why)
  const isNamedSo = ({ name }: Belongs): number =>
    titled !== '' && comparableTitle(name).endsWith(titled) ? 0 : 1
  const all = ids
    .flatMap((id): Belongs[] => {
      const [course, why] = [facts.get(id), ways.get(id)]
      if (!course || !why || !access.get(id)?.run) return []
      const name = courseText(course)
      return [{ id, name, term: course.term.name, isEmpty: !filled.has(id), why, items: shared.get(id) ?? 0 }]
    })
    .sort(
      (a, b) =>
        rank(a) - rank(b) || isNamedSo(a) - isNamedSo(b) || b.items - a.items || (a.name < b.name ? -1 : 1),
    )
  return all.filter(({ id }, at) => at < listedAtMost || id === chosen)
}
