import type { Knex } from 'knex'
import type { CourseRole } from '../../../shared/api/courses'
import type { Person } from './people'

/** What a person may do with a course. */
export interface CourseAccess { role: CourseRole | null, read: boolean, plan: boolean, run: boolean }
const none: CourseAccess = { role: null, read: false, plan: false, run: false }

/** Organisations under which a person has duties, each duty reaching everything below its organisation. */
export async function dutyOrgs(db: Knex, person: Person): Promise<{ office: Set<string>, coordinator: Set<string> }> {
  const reach = { office: new Set<string>(), coordinator: new Set<string>() }
  if (person.duties.length === 0) return reach
  const orgs = await db('orgs').select('id', 'source_id', 'parent_source_id') as { id: string, source_id: string, parent_source_id: string | null }[]
  for (const { orgId, duty } of person.duties) {
    const grow = (id: string): void => {
      if (reach[duty].has(id)) return
      reach[duty].add(id)
      const source = orgs.find(org => org.id === id)?.source_id
      for (const child of orgs) if (child.parent_source_id === source) grow(child.id)
    }
    grow(orgId)
  }
  return reach
}

/** What a person may do with each of some courses. */
export async function accessToCourses(db: Knex, person: Person, courseIds: readonly string[]): Promise<Map<string, CourseAccess>> {
  const access = new Map<string, CourseAccess>()
  if (courseIds.length === 0) return access
  const reach = await dutyOrgs(db, person)
  const courses = await db('courses').whereIn('id', courseIds).select('id', 'org_id') as { id: string, org_id: string }[]
  const staff = await db('enrolments').whereIn('course_id', courseIds).where({ person_id: person.id }).whereIn('role', ['instructor', 'assistant']).select('course_id', 'role', 'may_run') as { course_id: string, role: 'instructor' | 'assistant', may_run: number }[]
  for (const course of courses) {
    const own = staff.filter(row => row.course_id === course.id)
    if (own.some(row => row.role === 'instructor')) access.set(course.id, { role: 'instructor', read: true, plan: true, run: true })
    else if (reach.office.has(course.org_id)) access.set(course.id, { role: 'office', read: true, plan: true, run: true })
    else if (own.length > 0) access.set(course.id, { role: 'assistant', read: true, plan: true, run: own.some(row => Boolean(row.may_run)) })
    else if (reach.coordinator.has(course.org_id)) access.set(course.id, { role: 'coordinator', read: true, plan: false, run: false })
  }
  return access
}
export async function accessToCourse(db: Knex, person: Person, courseId: string): Promise<CourseAccess> {
  return (await accessToCourses(db, person, [courseId])).get(courseId) ?? none
}

/** Ids of all courses that a person may read. */
export async function readableCourses(db: Knex, person: Person): Promise<string[]> {
  const reach = await dutyOrgs(db, person)
  const orgs = [...reach.office, ...reach.coordinator]
  const rows = await db('courses').distinct('courses.id').leftJoin('enrolments', join => join.on('enrolments.course_id', 'courses.id').andOnVal('enrolments.person_id', person.id).andOnIn('enrolments.role', ['instructor', 'assistant']))
    .where(where => where.whereNotNull('enrolments.id').modify((query) => { if (orgs.length > 0) query.orWhereIn('courses.org_id', orgs) }))
  return rows.map(row => row.id)
}
