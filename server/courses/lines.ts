import type { Knex } from 'knex'
import { studentDataKinds } from '../../core/clear/kinds'
import type { CourseLine, CourseReply, CoursesReply, CourseWhole } from '../../shared/api/courses'
import { accessToCourse, accessToCourses, coursesOf, type CourseAccess } from './access.queries'
import * as queries from './courses.queries'
import type { Person } from '../people/people.queries'
import { loadEntries, runsInto } from '../runs/runs.queries'
import { marksOf } from '../shells/shells.queries'
import { keptPackage } from '../exchange/uploads.queries'
import { notFound } from '../http/problem'
import { instantText } from '../clock'

const lineOf = (course: queries.CourseRow, access: CourseAccess | undefined): CourseLine => ({
  ...course,
  students: !access || access.role === 'shared' ? 0 : course.students,
  instructors: course.instructors.map(person => person.name),
  role: access?.role ?? null,
})

/** Courses in a line each, by id, as a person sees them. */
export async function courseLines(
  db: Knex,
  person: Person,
  ids: readonly string[],
): Promise<Map<string, CourseLine>> {
  const unique = [...new Set(ids)]
  const access = await accessToCourses(db, person, unique)
  return new Map(
    [...(await queries.loadCourses(db, unique))].map(([id, course]) => [id, lineOf(course, access.get(id))]),
  )
}

/** Courses that a person may read whose code, title or term holds the words; with nothing to look for, the latest. */
export async function findCourses(db: Knex, person: Person, text: string, limit = 20): Promise<CoursesReply> {
  const words = text.split(/\s+/).filter(Boolean)
  const found = await queries.searchCourses(
    db,
    (await coursesOf(db, person, { shared: true }))(),
    words,
    limit,
  )
  const lines = await courseLines(db, person, found)
  return { courses: found.map(id => lines.get(id)!) }
}

/** A course with its calendar, outline, grade categories and counts of student data. `access`: by whose right; that of the person unless said. */
export async function loadWhole(
  db: Knex,
  person: Person,
  id: string,
  access?: CourseAccess,
): Promise<CourseWhole> {
  const may = access ?? (await accessToCourse(db, person, id))
  const course = (await courseLines(db, person, [id])).get(id)
  if (!course) throw notFound('This course')
  // Who may only take from a course is not told how many students it had, nor what they did.
  const mine = (await accessToCourse(db, person, id)).role
  const studentData =
    mine === 'shared' || mine === null
      ? (Object.fromEntries(
          ['students', ...studentDataKinds].map(kind => [kind, 0]),
        ) as CourseWhole['studentData'])
      : await queries.countStudentData(db, id)
  const nodes = await queries.loadOutline(db, id, may.leaves)
  return {
    course: { ...course, items: nodes.filter(node => node.type === 'item').length },
    calendar: await queries.loadCalendar(db, id),
    nodes,
    categories: await queries.loadCategories(db, id),
    studentData,
  }
}

/** A course to read, with the last run into it. */
export async function readCourse(db: Knex, person: Person, id: string): Promise<CourseReply> {
  const whole = await loadWhole(db, person, id)
  const run = (await runsInto(db, [id]))[0]
  const kept = await keptPackage(db, id)
  const bundle = kept && { name: kept.name, size: kept.size }
  const access = await accessToCourse(db, person, id)
  const facts = {
    mark: (await marksOf(db, person.id, [id])).get(id) ?? { pinned: false, hidden: false, label: null },
    may: { share: access.share, delegate: access.role === 'instructor' || access.role === 'office' },
    package: access.role === 'shared' ? null : bundle,
  }
  if (!run || access.role === 'shared') return { ...whole, ...facts, lastRun: null }
  const source = (await courseLines(db, person, [run.sourceId])).get(run.sourceId)!
  const added = (await loadEntries(db, run))
    .filter(entry => entry.entity !== 'category' && entry.action === 'added')
    .map(entry => entry.lineage)
  return {
    ...whole,
    ...facts,
    lastRun: { id: run.id, planId: run.planId, at: instantText(run.finishedAt), by: run.by, source, added },
  }
}
