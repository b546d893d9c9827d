import type { Knex } from 'knex'
import { countOf, inBatches, newId } from '../db/rows'
import type { EnrolmentRow, PersonRow, StaffRole } from '../db/tables'
import { fullName } from '../people/names'

export interface StaffLine {
  enrolmentId: string
  personId: string
  name: string
  role: StaffRole
  primary: boolean
  mayRun: boolean
  origin: 'registrar' | 'hand'
  dropped: boolean
}
type StaffColumns = Pick<
  EnrolmentRow,
  'id' | 'person_id' | 'is_primary' | 'may_run' | 'origin' | 'dropped_at' | 'missing_since'
> &
  Pick<PersonRow, 'given_name' | 'family_name'> & { role: StaffRole }

/** The staff of a course, instructors first; those the registrar took off are told so. */
export async function staffOf(db: Knex, courseId: string): Promise<StaffLine[]> {
  const rows = await db('enrolments')
    .join('people', 'people.id', 'enrolments.person_id')
    .where({ course_id: courseId })
    .whereIn('role', ['instructor', 'assistant'])
    .orderBy([{ column: 'role' }, { column: 'is_primary', order: 'desc' }, { column: 'family_name' }])
    .select<StaffColumns[]>(
      'enrolments.id',
      'person_id',
      'given_name',
      'family_name',
      'role',
      'is_primary',
      'may_run',
      'origin',
      'dropped_at',
      'missing_since',
    )
  return rows.map(row => ({
    enrolmentId: row.id,
    personId: row.person_id,
    name: fullName(row),
    role: row.role,
    primary: row.is_primary,
    mayRun: row.may_run,
    origin: row.origin,
    dropped: row.dropped_at !== null || row.missing_since !== null,
  }))
}
/** Lets an assistant of a course run plans into it, or not. Answers whether there is such an assistant. */
export async function setMayRun(
  db: Knex,
  courseId: string,
  personId: string,
  mayRun: boolean,
): Promise<boolean> {
  const changed = await db('enrolments')
    .where({ course_id: courseId, person_id: personId, role: 'assistant' })
    .whereNull('dropped_at')
    .whereNull('missing_since')
    .update({ may_run: mayRun })
  return changed > 0
}
/** The key of a line of the roster that came with a course: nobody of the registrar's is called so. */
export const rosterLineKey = (courseId: string, sourcedId: string): string => `${courseId}:${sourcedId}`
/** Enrolments of a course by the source id of their person; of a line of its own roster, by the one it had in its file. */
export async function enrolmentIds(db: Knex, courseId: string): Promise<Map<string, string>> {
  const rows = await db('enrolments')
    .join('people', 'people.id', 'enrolments.person_id')
    .where({ course_id: courseId })
    .select<{ id: string; source_id: string }[]>('enrolments.id', 'people.source_id')
  const own = rosterLineKey(courseId, '')
  return new Map(
    rows.map(({ source_id: key, id }) => [key.startsWith(own) ? key.slice(own.length) : key, id]),
  )
}
/** Puts people whom a file names as students of a course on its roster: lines of that course alone, without account or sign-in. */
export async function addRosterLines(
  db: Knex,
  courseId: string,
  people: readonly Omit<PersonRow, 'id' | 'password' | 'login' | 'active' | 'of_course'>[],
): Promise<void> {
  const rows = people.map(person => ({
    ...person,
    id: newId(),
    source_id: rosterLineKey(courseId, person.source_id),
    login: null,
    active: true,
    of_course: courseId,
  }))
  for (const batch of inBatches(rows)) await db('people').insert(batch)
  const enrolled = rows.map(({ id: person_id }) => ({
    id: newId(),
    course_id: courseId,
    person_id,
    role: 'student' as const,
    origin: 'hand' as const,
  }))
  for (const batch of inBatches(enrolled)) await db('enrolments').insert(batch)
}
/** How many students are on the rosters of both of two courses. */
export function rosterOverlap(db: Knex, one: string, other: string): Promise<number> {
  const students = (id: string) =>
    db('enrolments').where({ course_id: id, role: 'student' }).whereNull('dropped_at')
  return countOf(students(one).whereIn('person_id', students(other).select('person_id')))
}
