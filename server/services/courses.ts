import type { Knex } from 'knex'
import { dayOf } from '../../core/calendar/day'
import { indexSources, suggestSource, type Candidate } from '../../core/pairing/suggest'
import type { CourseLine, CourseReply, CoursesReply, CourseWhole, ShellsReply } from '../../shared/api/courses'
import { accessToCourses, readableCourses, type CourseAccess } from '../db/queries/access'
import * as queries from '../db/queries/courses'
import type { Person } from '../db/queries/people'
import { plansInto } from '../db/queries/plans'
import { loadEntries, runsInto } from '../db/queries/runs'
import { keptPackage } from '../db/queries/uploads'
import { notFound } from '../http/problem'
import { codeKnowledge } from './codes'
import { instantText, now, wallClock } from './today'

const lineOf = (course: queries.CourseRow, access: CourseAccess | undefined): CourseLine => ({ ...course, instructors: course.instructors.map(person => person.name), role: access?.role ?? null })

/** Courses in a line each, by id, as a person sees them. */
export async function courseLines(db: Knex, person: Person, ids: readonly string[]): Promise<Map<string, CourseLine>> {
  const unique = [...new Set(ids)]
  const access = await accessToCourses(db, person, unique)
  return new Map([...await queries.loadCourses(db, unique)].map(([id, course]) => [id, lineOf(course, access.get(id))]))
}

const candidate = (course: queries.CourseRow): Candidate =>
  ({ id: course.id, code: course.code, section: course.section, title: course.title, termStarts: course.term.classesFrom, instructors: course.instructors.map(person => person.id), items: course.items })

/** The shells a person has to do with (terms whose classes have not ended), the nearest term first, each with a suggested source. */
export async function listShells(db: Knex, person: Person): Promise<ShellsReply> {
  const readable = await readableCourses(db, person)
  const today = wallClock(now(), await queries.latestZone(db)).slice(0, 10)
  const { open } = await queries.coursesByEnd(db, readable, today)
  const access = await accessToCourses(db, person, readable)
  const courses = await queries.loadCourses(db, readable)
  const filled = new Map((await runsInto(db, readable)).reverse().map(run => [run.targetId, run.sourceId]))
  const sources = indexSources([...courses.values()].map(course => ({ ...candidate(course), filledFrom: filled.get(course.id) ?? null })), await codeKnowledge(db))
  const plans = await plansInto(db, open)
  const runs = await runsInto(db, open)
  const line = (id: string): CourseLine => lineOf(courses.get(id)!, access.get(id))
  const shells = open.map((id) => {
    const course = courses.get(id)!
    const suggestion = suggestSource(candidate(course), sources)
    const plan = plans.find(entry => entry.targetId === id && entry.state === 'draft' && courses.has(entry.sourceId))
    const run = runs.find(entry => entry.targetId === id)
    return {
      course: line(id),
      daysToClasses: dayOf(course.term.classesFrom) - dayOf(wallClock(now(), course.term.timeZone)),
      suggestion: suggestion && { course: line(suggestion.source), sureness: suggestion.sureness, chance: suggestion.chance, reasons: suggestion.reasons },
      plan: plan ? { id: plan.id, source: line(plan.sourceId), updatedAt: instantText(plan.updatedAt) } : null,
      lastRun: run ? { id: run.id, at: instantText(run.finishedAt), by: run.by, items: run.effect.added.items } : null,
      mayPlan: access.get(id)?.plan ?? false,
    }
  })
  return { today, shells }
}

/** Courses that a person may read whose code, title or term holds the words; with nothing to look for, the latest. */
export async function findCourses(db: Knex, person: Person, text: string, limit = 20): Promise<CoursesReply> {
  const words = text.split(/\s+/).filter(Boolean)
  const found = await queries.searchCourses(db, await readableCourses(db, person), words, limit)
  const lines = await courseLines(db, person, found)
  return { courses: found.map(id => lines.get(id)!) }
}

/** A course with its calendar, outline, grade categories and counts of student data. */
export async function loadWhole(db: Knex, person: Person, id: string): Promise<CourseWhole> {
  const course = (await courseLines(db, person, [id])).get(id)
  if (!course) throw notFound('This course')
  return { course, calendar: await queries.loadCalendar(db, id), nodes: await queries.loadOutline(db, id), categories: await queries.loadCategories(db, id), studentData: await queries.countStudentData(db, id) }
}

/** A course to read, with the last run into it. */
export async function readCourse(db: Knex, person: Person, id: string): Promise<CourseReply> {
  const whole = await loadWhole(db, person, id)
  const run = (await runsInto(db, [id]))[0]
  const kept = await keptPackage(db, id)
  const bundle = kept && { name: kept.name, size: kept.size }
  if (!run) return { ...whole, lastRun: null, package: bundle }
  const source = (await courseLines(db, person, [run.sourceId])).get(run.sourceId)!
  const added = (await loadEntries(db, run)).filter(entry => entry.entity !== 'category' && entry.action === 'added').map(entry => entry.lineage)
  return { ...whole, lastRun: { id: run.id, planId: run.planId, at: instantText(run.finishedAt), by: run.by, source, added }, package: bundle }
}
