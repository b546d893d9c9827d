import type { Knex } from 'knex'
import type { ItemKind } from '../../core/course/model'
import type { CourseRole } from '../../shared/api/courses'
import { now, stampOf } from '../clock'
import { jsonOf } from '../db/rows'
import type { Person } from '../people/people.queries'

/**
 * What a person may do with a course. `take`: roll from it; `share`: let others take from it; `leaves`: kinds of items that somebody who was
 * given the course to take from does not get.
 */
export interface CourseAccess {
  role: CourseRole | null
  read: boolean
  take: boolean
  plan: boolean
  run: boolean
  share: boolean
  leaves: ReadonlySet<ItemKind>
}
const nothing: ReadonlySet<ItemKind> = new Set()
const none: CourseAccess = {
  role: null,
  read: false,
  take: false,
  plan: false,
  run: false,
  share: false,
  leaves: nothing,
}
const rights: Record<Exclude<CourseRole, 'assistant' | 'shared'>, CourseAccess> = {
  instructor: {
    role: 'instructor',
    read: true,
    take: true,
    plan: true,
    run: true,
    share: true,
    leaves: nothing,
  },
  office: { role: 'office', read: true, take: true, plan: true, run: true, share: true, leaves: nothing },
  coordinator: {
    role: 'coordinator',
    read: true,
    take: true,
    plan: false,
    run: false,
    share: true,
    leaves: nothing,
  },
}

/** Organisations under which a person has duties, each duty reaching everything below its organisation. */
export async function dutyOrgs(
  db: Knex,
  person: Person,
): Promise<{ office: Set<string>; coordinator: Set<string> }> {
  const reach = { office: new Set<string>(), coordinator: new Set<string>() }
  if (person.duties.length === 0) return reach
  const orgs = (await db('orgs').select('id', 'source_id', 'parent_source_id')) as {
    id: string
    source_id: string
    parent_source_id: string | null
  }[]
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
/** Departments that a person belongs to: those of their courses and duties. */
export async function departmentsOf(db: Knex, person: Person): Promise<string[]> {
  const rows = await db('enrolments')
    .join('courses', 'courses.id', 'enrolments.course_id')
    .where({ person_id: person.id })
    .whereNull('dropped_at')
    .whereIn('role', ['instructor', 'assistant'])
    .distinct('org_id')
  const reach = await dutyOrgs(db, person)
  return [...new Set([...rows.map(row => row.org_id as string), ...reach.office, ...reach.coordinator])]
}

const staffRows = (db: Knex, personId: string) =>
  db('enrolments')
    .where({ person_id: personId })
    .whereNull('dropped_at')
    .whereIn('role', ['instructor', 'assistant'])
/** Shares that hold now and reach a person: by a code they have given, or through their department. */
async function sharesWith(
  db: Knex,
  person: Person,
  courseIds?: readonly string[],
): Promise<{ courseId: string; leaves: ItemKind[] }[]> {
  const departments = await departmentsOf(db, person)
  const query = db('shares')
    .whereNull('revoked_at')
    .where(holds => holds.whereNull('expires_at').orWhere('expires_at', '>', stampOf(now())))
    .where(reaches =>
      reaches
        .whereIn('id', db('share_uses').where({ person_id: person.id }).select('share_id'))
        .orWhereIn('org_id', departments),
    )
    .select('course_id', 'leaves')
  if (courseIds) void query.whereIn('course_id', courseIds)
  return (await query).map(row => ({ courseId: row.course_id, leaves: jsonOf<ItemKind[]>(row.leaves) }))
}

/** What a person may do with each of some courses. */
export async function accessToCourses(
  db: Knex,
  person: Person,
  courseIds: readonly string[],
): Promise<Map<string, CourseAccess>> {
  const access = new Map<string, CourseAccess>()
  if (courseIds.length === 0) return access
  const reach = await dutyOrgs(db, person)
  const courses = (await db('courses').whereIn('id', courseIds).select('id', 'org_id')) as {
    id: string
    org_id: string
  }[]
  const staff = (await staffRows(db, person.id)
    .whereIn('course_id', courseIds)
    .select('course_id', 'role', 'may_run')) as {
    course_id: string
    role: 'instructor' | 'assistant'
    may_run: number
  }[]
  const own = new Map<string, typeof staff>()
  for (const row of staff) own.set(row.course_id, [...(own.get(row.course_id) ?? []), row])
  for (const course of courses) {
    const rows = own.get(course.id) ?? []
    if (rows.some(row => row.role === 'instructor')) access.set(course.id, rights.instructor)
    else if (reach.office.has(course.org_id)) access.set(course.id, rights.office)
    else if (rows.length > 0)
      access.set(course.id, {
        role: 'assistant',
        read: true,
        take: true,
        plan: true,
        run: rows.some(row => Boolean(row.may_run)),
        share: false,
        leaves: nothing,
      })
    else if (reach.coordinator.has(course.org_id)) access.set(course.id, rights.coordinator)
  }
  const others = courses.filter(course => !access.has(course.id)).map(course => course.id)
  for (const { courseId, leaves } of others.length > 0 ? await sharesWith(db, person, others) : []) {
    // Of two shares of one course, what either gives may be taken.
    const before = access.get(courseId)
    access.set(courseId, {
      ...none,
      role: 'shared',
      read: true,
      take: true,
      leaves: new Set(leaves.filter(kind => !before || before.leaves.has(kind))),
    })
  }
  return access
}
export async function accessToCourse(db: Knex, person: Person, courseId: string): Promise<CourseAccess> {
  return (await accessToCourses(db, person, [courseId])).get(courseId) ?? none
}

/** Makes queries of the courses that a person has to do with, as staff or through a duty; `shared`: those they may take from, too. */
export async function coursesOf(
  db: Knex,
  person: Person,
  options: { shared?: boolean } = {},
): Promise<() => Knex.QueryBuilder> {
  const reach = await dutyOrgs(db, person)
  const orgs = [...reach.office, ...reach.coordinator]
  const shared = options.shared ? (await sharesWith(db, person)).map(share => share.courseId) : []
  return () =>
    db('courses').where(where => {
      void where.whereIn('courses.id', staffRows(db, person.id).select('course_id'))
      if (orgs.length > 0) void where.orWhereIn('courses.org_id', orgs)
      if (shared.length > 0) void where.orWhereIn('courses.id', shared)
    })
}
/** Ids of all courses that a person has to do with. */
export async function readableCourses(db: Knex, person: Person): Promise<string[]> {
  return (await (await coursesOf(db, person))().select('courses.id')).map((row: { id: string }) => row.id)
}
