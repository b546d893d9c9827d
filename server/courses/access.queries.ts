import type { Knex } from 'knex'
import type { ItemKind } from '../../core/course/model'
import { now, stampOf } from '../clock'
import { jsonOf } from '../db/rows'
import type { CourseRow, EnrolmentRow, StaffRole } from '../db/tables'

export type CourseQuery = Knex.QueryBuilder<CourseRow, CourseRow[]>

const staffRoles: StaffRole[] = ['instructor', 'assistant']
/** Enrolments of a person as staff that still stand: one that the registrar does not list any more gives no rights. */
const staffRows = (db: Knex, personId: string) =>
  db('enrolments')
    .where({ person_id: personId })
    .whereNull('dropped_at')
    .whereNull('enrolments.missing_since')
    .whereIn('role', staffRoles)

/** What a person is, as staff, to some courses. */
export const staffRowsOf = (
  db: Knex,
  personId: string,
  courseIds: readonly string[],
): Promise<Pick<EnrolmentRow, 'course_id' | 'role' | 'may_run'>[]> =>
  staffRows(db, personId).whereIn('course_id', courseIds).select('course_id', 'role', 'may_run')
/** Departments of the courses that the registrar lists a person on as staff. A course that somebody made makes no member. */
export async function staffDepartments(db: Knex, personId: string): Promise<string[]> {
  const rows = await staffRows(db, personId)
    .where('enrolments.origin', 'registrar')
    .join('courses', 'courses.id', 'enrolments.course_id')
    .distinct('org_id')
  return rows.map(row => row.org_id)
}
/** The departments of some courses. */
export const departmentsOfCourses = (
  db: Knex,
  courseIds: readonly string[],
): Promise<Pick<CourseRow, 'id' | 'org_id'>[]> =>
  db('courses').whereIn('id', courseIds).select('id', 'org_id')

export interface SharedCourse {
  courseId: string
  withheld: ItemKind[]
}
/** Shares that hold now and reach a person: by a code they have given, or through one of their departments. */
export async function sharesReaching(
  db: Knex,
  personId: string,
  departments: readonly string[],
  courseIds?: readonly string[],
): Promise<SharedCourse[]> {
  const used = db('share_uses').where({ person_id: personId }).select('share_id')
  const query = db('shares')
    .whereNull('revoked_at')
    .where(holds => holds.whereNull('expires_at').orWhere('expires_at', '>', stampOf(now())))
    .where(reaches => reaches.whereIn('id', used).orWhereIn('org_id', departments))
    .select('course_id', 'withheld')
  if (courseIds) void query.whereIn('course_id', courseIds)
  return (await query).map(row => ({ courseId: row.course_id, withheld: jsonOf(row.withheld) }))
}

/** Whether colleagues may improve what stands on a shelf; false for any other course. */
export async function openToColleagues(db: Knex, courseId: string): Promise<boolean> {
  const row = await db('templates').where({ course_id: courseId }).first('open_to_colleagues')
  return row?.open_to_colleagues ?? false
}
/** Makes queries of the courses that a person is staff of, that lie below some organisations, or that are named. */
export const coursesWithin =
  (
    db: Knex,
    personId: string,
    orgIds: readonly string[],
    courseIds: readonly string[],
  ): (() => CourseQuery) =>
  () =>
    // A version that was kept of what stands on a shelf is nobody's to roll from: it can be brought back there. A file that is compared
    // with a course stands in that plan alone.
    db('courses')
      .whereNotIn('courses.origin', ['version', 'file'])
      .where(within => {
        void within.whereIn('courses.id', staffRows(db, personId).select('course_id'))
        if (orgIds.length > 0) void within.orWhereIn('courses.org_id', orgIds)
        if (courseIds.length > 0) void within.orWhereIn('courses.id', courseIds)
      })
/** The ids of the courses that a query finds. */
export const idsIn = (courses: CourseQuery): Promise<string[]> => courses.pluck('courses.id')
