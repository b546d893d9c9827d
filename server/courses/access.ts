import type { Knex } from 'knex'
import type { ItemKind } from '../../core/course/model'
import type { CourseRole } from '../../shared/api/courses'
import type { May } from '../auth/may'
import type { DutyName } from '../db/tables'
import { notFound, refuse } from '../errors/refusal'
import { homeOrg, orgTree } from '../people/orgs.queries'
import type { Person } from '../people/people.queries'
import * as queries from './access.queries'
import { orgOfCourse } from './courses.queries'

/** What a person may do with a course. */
export interface CourseAccess {
  role: CourseRole | null
  read: boolean
  /** Roll from it into another. */
  rollFrom: boolean
  plan: boolean
  run: boolean
  /** Let others roll from it. */
  share: boolean
  /** Kinds of items that somebody who was only given the course to roll from does not get. */
  withheld: ReadonlySet<ItemKind>
}
const nothing: ReadonlySet<ItemKind> = new Set()
export const noAccess: CourseAccess = {
  role: null,
  read: false,
  rollFrom: false,
  plan: false,
  run: false,
  share: false,
  withheld: nothing,
}
const reader: CourseAccess = { ...noAccess, read: true, rollFrom: true }
const whole: CourseAccess = { ...reader, plan: true, run: true, share: true }
const instructor: CourseAccess = { ...whole, role: 'instructor' }
const office: CourseAccess = { ...whole, role: 'office' }
const coordinator: CourseAccess = { ...reader, role: 'coordinator', share: true }
const assistant = (mayRun: boolean): CourseAccess => ({
  ...reader,
  role: 'assistant',
  plan: true,
  run: mayRun,
})
/** Of two shares of one course, what either gives may be rolled from it. */
const shared = (withheld: readonly ItemKind[], before: CourseAccess | undefined): CourseAccess => ({
  ...reader,
  role: 'shared',
  withheld: new Set(withheld.filter(kind => !before || before.withheld.has(kind))),
})

/** Organisations that a person's duties reach: each its organisation and everything below it. */
export async function dutyReach(db: Knex, person: Person): Promise<Record<DutyName, Set<string>>> {
  const reach = { office: new Set<string>(), coordinator: new Set<string>() }
  if (person.duties.length === 0) return reach
  const orgs = await orgTree(db)
  const grow = (duty: DutyName, id: string): void => {
    if (reach[duty].has(id)) return
    reach[duty].add(id)
    const source = orgs.find(org => org.id === id)?.source_id
    for (const child of orgs) if (child.parent_source_id === source) grow(duty, child.id)
  }
  for (const { orgId, duty } of person.duties) grow(duty, orgId)
  return reach
}
/** Departments that a person belongs to, as the registrar and the office say it: those of their courses and duties. */
export async function departmentsOf(db: Knex, person: Person): Promise<string[]> {
  const own = await queries.staffDepartments(db, person.id)
  const reach = await dutyReach(db, person)
  return [...new Set([...own, ...reach.office, ...reach.coordinator])]
}
const sharesWith = async (
  db: Knex,
  person: Person,
  courseIds?: readonly string[],
): Promise<queries.SharedCourse[]> =>
  queries.sharesReaching(db, person.id, await departmentsOf(db, person), courseIds)

/** What a person may do with each of some courses. */
export async function accessToCourses(
  db: Knex,
  person: Person,
  courseIds: readonly string[],
): Promise<Map<string, CourseAccess>> {
  const access = new Map<string, CourseAccess>()
  if (courseIds.length === 0) return access
  const reach = await dutyReach(db, person)
  const staff = await queries.staffRowsOf(db, person.id, courseIds)
  const courses = await queries.departmentsOfCourses(db, courseIds)
  for (const course of courses) {
    const rows = staff.filter(row => row.course_id === course.id)
    if (rows.some(row => row.role === 'instructor')) access.set(course.id, instructor)
    else if (reach.office.has(course.org_id)) access.set(course.id, office)
    else if (rows.length > 0) access.set(course.id, assistant(rows.some(row => row.may_run)))
    else if (reach.coordinator.has(course.org_id)) access.set(course.id, coordinator)
  }
  const others = courses.map(course => course.id).filter(id => !access.has(id))
  const shares = others.length > 0 ? await sharesWith(db, person, others) : []
  for (const { courseId, withheld } of shares) access.set(courseId, shared(withheld, access.get(courseId)))
  return access
}
export async function accessToCourse(db: Knex, person: Person, courseId: string): Promise<CourseAccess> {
  return (await accessToCourses(db, person, [courseId])).get(courseId) ?? noAccess
}

/**
 * The organisation of what is made from a course: the course's own, or, where the course was only given to roll from, that of
 * the person. @throws Refusal where they have none.
 */
export async function orgOfWhatIsMade(db: Knex, person: Person, courseId: string): Promise<string> {
  const { role } = await accessToCourse(db, person, courseId)
  const org = role === 'shared' ? await homeOrg(db, person.id) : await orgOfCourse(db, courseId)
  if (!org) throw refuse('no-department')
  return org
}

/**
 * Makes queries of the courses that a person has to do with, as staff or through a duty; `shared`: those they may roll from,
 * too.
 */
export async function coursesOf(
  db: Knex,
  person: Person,
  options: { shared?: boolean } = {},
): Promise<() => queries.CourseQuery> {
  const reach = await dutyReach(db, person)
  const shares = options.shared ? await sharesWith(db, person) : []
  return queries.coursesWithin(
    db,
    person.id,
    [...reach.office, ...reach.coordinator],
    shares.map(share => share.courseId),
  )
}
/** Ids of all courses that a person has to do with. */
export async function readableCourses(db: Knex, person: Person): Promise<string[]> {
  return queries.idsIn((await coursesOf(db, person))())
}

/** Whether a person may change what a course holds: whoever may run into it; on a shelf also colleagues to whom it was opened. */
export async function mayEditCourse(db: Knex, person: Person, courseId: string): Promise<boolean> {
  const access = await accessToCourse(db, person, courseId)
  return access.run || (access.read && (await queries.openToColleagues(db, courseId)))
}
/** Those who may change what a course holds. */
export const editsCourse: May<{ id: string }> = {
  name: 'edits the course',
  allow: async ({ db, person, params }) => {
    const access = await accessToCourse(db, person, params.id)
    if (!access.read) return notFound('This course')
    return (await mayEditCourse(db, person, params.id)) || refuse('may-not-edit')
  },
}

const forCourse = (
  name: string,
  may: (access: CourseAccess) => boolean,
  refusal = 'You may see this course, not do this',
): May<{ id: string }> => ({
  name,
  allow: async ({ db, person, params }) => {
    const access = await accessToCourse(db, person, params.id)
    if (!access.read) return notFound('This course')
    return may(access) || refuse('forbidden', { title: refusal })
  },
})
/** Those who may read the content of the course in the address: its staff, its coordinators, the academic office, and who was given it to roll from. */
export const readsCourse = forCourse('reads the course', () => true)
/** Those who have to do with the course themselves, not only with what it holds. */
export const worksWithCourse = forCourse(
  'works with the course',
  access => access.role !== 'shared',
  'This course is shared with you to roll from, no more',
)
/** Those who may let others roll from a course: its instructors, its coordinators, the academic office. */
export const sharesCourse = forCourse(
  'shares the course',
  access => access.share,
  'Its instructors, its coordinators and the academic office may share a course',
)
/** Those who may roll from a course. */
export const rollsFromCourse = forCourse('rolls from the course', access => access.rollFrom)
/** Those who may clear a course and put back what was cleared: whoever may run into it. */
export const clearsCourse = forCourse(
  'clears the course',
  access => access.run,
  'Whoever may run into a course may put back what was cleared there',
)
/** The academic office of the course: what it fixes, no rollover changes. */
export const fixesItems = forCourse(
  'fixes items',
  access => access.role === 'office',
  'The academic office fixes items',
)
/** Those who may let an assistant run plans: instructors of the course, the academic office. */
export const delegates = forCourse(
  'lets others run',
  access => access.role === 'instructor' || access.role === 'office',
  'Its instructors decide who may run',
)
