import type { Knex } from 'knex'
import type { Candidate } from '../../core/pairing/suggest'
import type { CourseQuery } from '../courses/access.queries'
import { countOf, groupBy } from '../db/rows'
import type { CourseOrigin, EnrolmentRole, EnrolmentRow, StaffRole } from '../db/tables'
import { fullName, shortName } from '../people/names'
import { namedRows } from '../people/people.queries'
import { filledFrom } from '../run-facts/runs.queries'

/** A course in a short row of the first page. */
export interface IndexRow {
  id: string
  code: string
  section: string
  title: string
  label: string | null
  origin: CourseOrigin
  termId: string
  people: string
  /** Everybody who instructs or assists, by full name: what the list is searched by. */
  staff: string
  role: StaffRole | null
  pinned: boolean
  hidden: boolean
  missing: boolean
}

/** Courses that are asked for one by one; of more, an index is read through and what is not wanted dropped. */
const askedSingly = 500
type StaffColumns = Pick<EnrolmentRow, 'course_id' | 'person_id' | 'role' | 'is_primary'>
/** Who works in some courses. Of many courses all staff are read in one go, by an index that students are not in the way of. */
async function staffIn(
  db: Knex,
  courseIds: readonly string[],
  roles: readonly EnrolmentRole[],
): Promise<StaffColumns[]> {
  const query = db('enrolments')
    .whereIn('role', roles)
    .whereNull('dropped_at')
    .whereNull('missing_since')
    .select('course_id', 'person_id', 'role', 'is_primary')
  if (courseIds.length <= askedSingly) return query.whereIn('course_id', courseIds)
  const wanted = new Set(courseIds)
  return (await query).filter(row => wanted.has(row.course_id))
}
/** Those of some courses that hold an item. Asking of each of many would take longer than reading the index through. */
async function filledAmong(db: Knex, courseIds: readonly string[]): Promise<Set<string>> {
  const query = db('items').distinct('course_id')
  if (courseIds.length <= askedSingly) void query.whereIn('course_id', courseIds)
  return new Set((await query).map(row => row.course_id))
}

type IndexColumns = Pick<IndexRow, 'id' | 'code' | 'section' | 'title' | 'label' | 'origin'> & {
  term_id: string
  pinned: boolean | null
  hidden: boolean | null
  missing_since: string | null
}
/** Every course among some that a person has to do with, a short row each: few questions to the database, however many there are. */
export async function indexOfCourses(db: Knex, courses: CourseQuery, personId: string): Promise<IndexRow[]> {
  const rows = await courses
    .leftJoin('course_preferences', join =>
      join
        .on('course_preferences.course_id', 'courses.id')
        .andOnVal('course_preferences.person_id', personId),
    )
    .whereNot({ origin: 'awaited' })
    .select<IndexColumns[]>(
      'courses.id',
      'code',
      'section',
      'title',
      'course_preferences.label',
      'origin',
      'term_id',
      'pinned',
      'hidden',
      'courses.missing_since',
    )
  const ids = rows.map(row => row.id)
  const staff = await staffIn(db, ids, ['instructor', 'assistant'])
  const named = await namedRows(
    db,
    staff.map(row => row.person_id),
  )
  const names = new Map(named.map(row => [row.id, shortName(row)]))
  const fullNames = new Map(named.map(row => [row.id, fullName(row)]))
  const staffOf = groupBy(staff, row => row.course_id)
  return rows.map(({ term_id, missing_since, pinned, hidden, ...row }) => {
    const own = staffOf.get(row.id) ?? []
    return {
      ...row,
      termId: term_id,
      people: peopleText(own, names),
      staff: own.map(row => fullNames.get(row.person_id) ?? '').join(', '),
      role: roleOf(own, personId),
      pinned: pinned ?? false,
      hidden: hidden ?? false,
      missing: missing_since !== null,
    }
  })
}
/** The instructors of a course by name, the main one first. */
const peopleText = (staff: readonly StaffColumns[], names: ReadonlyMap<string, string>): string =>
  staff
    .filter(row => row.role === 'instructor')
    .sort((a, b) => Number(b.is_primary) - Number(a.is_primary))
    .map(row => names.get(row.person_id) ?? '')
    .join(', ')
function roleOf(staff: readonly StaffColumns[], personId: string): StaffRole | null {
  const roles = staff.filter(row => row.person_id === personId).map(row => row.role)
  if (roles.includes('instructor')) return 'instructor'
  return roles.includes('assistant') ? 'assistant' : null
}

type CandidateColumns = Pick<IndexRow, 'id' | 'code' | 'section' | 'title'> & { classes_from: string }
/**
 * Courses among some, as pairing looks at them; with `also`, those too (shells that are paired). A shell of a term that has
 * not begun and was never filled is no source, whatever a template has put there: its items count as none.
 */
export async function candidatesAmong(
  db: Knex,
  courses: CourseQuery,
  also: readonly string[],
  today: string,
): Promise<Map<string, Candidate>> {
  const rows = await courses
    .join('terms', 'terms.id', 'courses.term_id')
    .where(wanted =>
      wanted.whereIn('origin', ['registrar', 'hand', 'snapshot']).orWhereIn('courses.id', [...also]),
    )
    .select<CandidateColumns[]>('courses.id', 'courses.code', 'section', 'title', 'classes_from')
  const ids = rows.map(row => row.id)
  const holding = await filledAmong(db, ids)
  const teachers = groupBy(await staffIn(db, ids, ['instructor']), row => row.course_id)
  const filled = await filledFrom(db)
  return new Map(
    rows.map(({ classes_from, ...row }): [string, Candidate] => {
      const counts = holding.has(row.id) && (classes_from <= today || filled.has(row.id))
      return [
        row.id,
        {
          ...row,
          termStarts: classes_from,
          instructors: (teachers.get(row.id) ?? []).map(each => each.person_id),
          items: Number(counts),
          filledFrom: filled.get(row.id) ?? null,
        },
      ]
    }),
  )
}

export interface TermCourse {
  id: string
  code: string
  section: string
  title: string
  missing: boolean
  role: StaffRole | null
  primary: boolean
  hidden: boolean
}
type TermColumns = Pick<TermCourse, 'id' | 'code' | 'section' | 'title' | 'role'> & {
  missing_since: string | null
  is_primary: boolean | null
  hidden: boolean | null
}
/** Courses of a term, whoever they belong to, with what a person is to each: for saying why a shell is not there. */
export async function coursesOfTerm(db: Knex, termId: string, personId: string): Promise<TermCourse[]> {
  const rows = await db('courses')
    .where({ term_id: termId })
    .where('courses.origin', 'registrar')
    .leftJoin('enrolments', join =>
      join
        .on('enrolments.course_id', 'courses.id')
        .andOnVal('enrolments.person_id', personId)
        .andOnIn('enrolments.role', ['instructor', 'assistant'])
        .andOnNull('enrolments.dropped_at')
        .andOnNull('enrolments.missing_since'),
    )
    .leftJoin('course_preferences', join =>
      join
        .on('course_preferences.course_id', 'courses.id')
        .andOnVal('course_preferences.person_id', personId),
    )
    .select<TermColumns[]>(
      'courses.id',
      'code',
      'section',
      'title',
      'courses.missing_since',
      'role',
      'is_primary',
      'hidden',
    )
  return rows.map(({ missing_since, is_primary, hidden, ...row }) => ({
    ...row,
    missing: missing_since !== null,
    primary: is_primary ?? false,
    hidden: hidden ?? false,
  }))
}

/** How much the registrar changed in some courses since an instant. */
export const countChanges = (db: Knex, courses: CourseQuery, since: string): Promise<number> =>
  countOf(db('roster_changes').where('at', '>=', since).whereIn('course_id', courses.select('courses.id')))
