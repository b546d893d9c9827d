import type { Knex } from 'knex'
import { countsOf } from '../../core/student-data/student-data'
import type { CourseLine, CourseReply, CoursesReply, CourseWhole } from '../../shared/api/courses'
import { loadCalendar } from '../calendars/terms.queries'
import { isoInstant } from '../clock'
import { inSnapshot } from '../db/transaction'
import { notFound } from '../errors/refusal'
import { keptPackage } from '../exchange/uploads.queries'
import type { Person } from '../people/people.queries'
import { writingInto, writingTold } from '../run-facts/writing.queries'
import { addedSince, runDetails, runsInto } from '../run-facts/runs.queries'
import { accessToCourse, accessToCourses, coursesOf, mayEditCourse, type CourseAccess } from './access'
import { loadCourses, searchCourses, type CourseInLine } from './courses.queries'
import { carrySide } from './known'
import { preferencesOf } from './preferences.queries'
import { countStudentData } from './student-data.queries'

const lineOf = (course: CourseInLine, access: CourseAccess | undefined): CourseLine => ({
  ...course,
  students: !access || access.role === 'shared' ? 0 : course.students,
  instructors: course.instructors.map(person => person.name),
  role: access?.role ?? null,
})
/** Looks up a course that must be among some lines. */
export const lineIn =
  (lines: ReadonlyMap<string, CourseLine>) =>
  (id: string): CourseLine => {
    const line = lines.get(id)
    if (!line) throw notFound('This course')
    return line
  }

/** Courses in a line each, by id, as a person sees them. */
export async function courseLines(
  db: Knex,
  person: Person,
  ids: readonly string[],
): Promise<Map<string, CourseLine>> {
  const unique = [...new Set(ids)]
  const access = await accessToCourses(db, person, unique)
  const courses = await loadCourses(db, unique)
  return new Map([...courses].map(([id, course]) => [id, lineOf(course, access.get(id))]))
}

/** Courses that a person may read whose code, title or term holds the words; with nothing to look for, the latest. */
export async function findCourses(db: Knex, person: Person, text: string, limit = 20): Promise<CoursesReply> {
  const words = text.split(/\s+/).filter(Boolean)
  const among = await coursesOf(db, person, { shared: true })
  const found = await searchCourses(db, among(), words, limit)
  return { courses: found.map(lineIn(await courseLines(db, person, found))) }
}

/**
 * A course with its calendar, outline, grade rules, furniture and counts of student data. `access`: by whose right; that of the person unless
 * said. `withDeleted`: with what was deleted in it, for whoever plans from it.
 */
export async function loadWhole(
  db: Knex,
  person: Person,
  id: string,
  { access, withDeleted = false }: { access?: CourseAccess | undefined; withDeleted?: boolean } = {},
): Promise<CourseWhole> {
  const own = await accessToCourse(db, person, id)
  const course = (await courseLines(db, person, [id])).get(id)
  if (!course) throw notFound('This course')
  // Who may only roll from a course is not told how many students it had, nor what they did.
  const told = own.role !== 'shared' && own.role !== null
  const side = await carrySide(db, id, (access ?? own).withheld, withDeleted)
  return {
    course: {
      ...course,
      items: side.nodes.filter(node => node.type === 'item' && node.state !== 'deleted').length,
    },
    calendar: await loadCalendar(db, id),
    ...side,
    studentData: told ? await countStudentData(db, id) : countsOf(() => 0),
  }
}

/** A course to read, with the last run into it. */
export const readCourse = (db: Knex, person: Person, id: string): Promise<CourseReply> =>
  inSnapshot(db, trx => courseNow(trx, person, id))
async function courseNow(db: Knex, person: Person, id: string): Promise<CourseReply> {
  const whole = await loadWhole(db, person, id)
  const access = await accessToCourse(db, person, id)
  const isShared = access.role === 'shared'
  const kept = isShared ? null : await keptPackage(db, id)
  const ledger =
    !['snapshot', 'version', 'awaited', 'file'].includes(whole.course.origin) &&
    (await mayEditCourse(db, person, id))
  return {
    ...whole,
    preferences: await preferencesOf(db, person.id, id),
    may: {
      share: access.share,
      delegate: access.role === 'instructor' || access.role === 'office',
      edit: ledger && whole.course.sharesWith === null,
      ledger,
    },
    package: kept && { name: kept.name, size: kept.size },
    lastRun: isShared ? null : await lastRunInto(db, person, id),
    writing: isShared ? null : writingTold((await writingInto(db, [id])).get(id)),
  }
}
async function lastRunInto(db: Knex, person: Person, id: string): Promise<CourseReply['lastRun']> {
  const [run] = await runsInto(db, [id])
  if (!run) return null
  const source = lineIn(await courseLines(db, person, [run.sourceId]))(run.sourceId)
  const { entries } = await runDetails(db, run.id)
  const came = entries.filter(
    ({ entity, action }) =>
      (entity === 'unit' || entity === 'item') && (action === 'added' || action === 'filled'),
  )
  return {
    id: run.id,
    planId: run.planId,
    at: isoInstant(run.finishedAt),
    by: run.by,
    source,
    came: [...came.map(entry => entry.lineage), ...(await addedSince(db, id, run.id))],
  }
}
