import type { Knex } from 'knex'
import { foundCourses } from '../../core/carry/added'
import type { PlanDocument } from '../../core/plan/document'
import { accessToCourses, noAccess, type CourseAccess } from '../courses/access'
import { itemsThere } from '../courses/content.queries'
import { refuse } from '../errors/refusal'
import { findPerson, type Person } from '../people/people.queries'
import type { Plan } from './plans.queries'

/**
 * What a plan may take from courses that are none of its sources: of each what all of those may who took something of it. A right that has
 * ended closes the course.
 */
export async function foundAccess(
  db: Knex,
  { document }: Pick<Plan, 'document'>,
): Promise<Map<string, CourseAccess>> {
  const courses = foundCourses(document.added)
  const found = Object.values(document.added.found)
  const all = new Map<string, CourseAccess>()
  for (const by of new Set(found.map(each => each.by))) {
    const person = await findPerson(db, by)
    const own = found.filter(each => each.by === by).map(each => each.course)
    const access = person
      ? await accessToCourses(db, person, [...new Set(own)])
      : new Map<string, CourseAccess>()
    for (const course of new Set(own)) {
      const before = all.get(course)
      const theirs = access.get(course) ?? noAccess
      all.set(course, before ? narrower(before, theirs) : theirs)
    }
  }
  return new Map(courses.map(course => [course, all.get(course) ?? noAccess]))
}
const narrower = (one: CourseAccess, other: CourseAccess): CourseAccess => ({
  ...one,
  rollFrom: one.rollFrom && other.rollFrom,
  withheld: new Set([...one.withheld, ...other.withheld]),
})

/**
 * Looks at what a person adds to a plan from other courses: they must be allowed to roll from each, and the items must be there.
 * @throws Refusal naming the first that is not.
 */
export async function checkFound(
  db: Knex,
  person: Person,
  before: PlanDocument['added'],
  { found }: PlanDocument['added'],
): Promise<void> {
  const fresh = Object.entries(found).filter(
    ([key, each]) => JSON.stringify(before.found[key]) !== JSON.stringify(each),
  )
  if (fresh.length === 0) return
  const access = await accessToCourses(db, person, [...new Set(fresh.map(([, each]) => each.course))])
  for (const [key, { course, lineage, by }] of fresh) {
    const own = access.get(course)
    const [item] = own?.rollFrom && by === person.id ? await itemsThere(db, course, [lineage]) : []
    if (!item || own?.withheld.has(item.kind)) throw refuse('not-yours-to-take', { key })
  }
}
/** The same decisions for another plan of a person: what is taken from elsewhere is taken by their own right, or stays out. */
export async function withOwnFound(db: Knex, person: Person, document: PlanDocument): Promise<PlanDocument> {
  const { found } = document.added
  if (Object.keys(found).length === 0) return document
  const access = await accessToCourses(db, person, foundCourses(document.added))
  const own = Object.entries(found)
    .filter(([, { course }]) => access.get(course)?.rollFrom)
    .map(([key, each]) => [key, { ...each, by: person.id }])
  return { ...document, added: { ...document.added, found: Object.fromEntries(own) } }
}
