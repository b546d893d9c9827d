import type { Knex } from 'knex'
import type { Windows } from '../../core/pairing/windows'
import { now, stampOf } from '../clock'
import { anywhere, groupBy, newId } from '../db/rows'
import type { CourseOrigin, CourseRow, MeetingRow } from '../db/tables'
import { takeTurn } from '../db/transaction'
import { shortName } from '../people/names'
import type { CourseQuery } from './access.queries'
import { contentsOf, forgetContents } from './sections.queries'

/** A course in a line: enough to recognise it, and how much it holds. */
export interface CourseInLine {
  id: string
  code: string
  section: string
  title: string
  term: { code: string; name: string; timeZone: string; classesFrom: string; classesTo: string }
  meetings: Omit<MeetingRow, 'course_id' | 'position'>[]
  instructors: { id: string; name: string }[]
  students: number
  items: number
  /** What tells this section from others, for students. */
  label: string | null
  origin: CourseOrigin
  windows: Windows
  /** The section whose content it shows, where that is not its own. */
  sharesWith: string | null
  /** The registrar no longer lists it. */
  missing: boolean
}

type LineColumns = Pick<
  CourseRow,
  'id' | 'code' | 'section' | 'label' | 'origin' | 'enrol_from' | 'enrol_to' | 'open_from' | 'open_to'
> &
  Pick<CourseRow, 'missing_since' | 'title'> & {
    term_code: string
    term_name: string
    time_zone: string
    classes_from: string
    classes_to: string
  }
const lineColumns = (db: Knex, ids: readonly string[]): Promise<LineColumns[]> =>
  db('courses')
    .join('terms', 'terms.id', 'courses.term_id')
    .whereIn('courses.id', ids)
    .select<LineColumns[]>(
      { id: 'courses.id', code: 'courses.code', term_code: 'terms.code', term_name: 'terms.name' },
      db.raw('COALESCE(shown_title, title) AS title'),
      'section',
      'label',
      'origin',
      'enrol_from',
      'enrol_to',
      'open_from',
      'open_to',
      'missing_since',
      'time_zone',
      'classes_from',
      'classes_to',
    )
const meetingsOf = (db: Knex, ids: readonly string[]): Promise<MeetingRow[]> =>
  db('meetings').whereIn('course_id', ids).orderBy('position')
const instructorsOf = (db: Knex, ids: readonly string[]) =>
  db('enrolments')
    .join('people', 'people.id', 'enrolments.person_id')
    .whereIn('course_id', ids)
    .where({ role: 'instructor' })
    .whereNull('dropped_at')
    .whereNull('missing_since')
    .orderBy([{ column: 'is_primary', order: 'desc' }, 'family_name'])
    .select('course_id', 'person_id', 'given_name', 'family_name')

type CountRow = { course_id: string; count: number }
const byCourse = (rows: readonly CountRow[]): Map<string, number> =>
  new Map(rows.map(row => [row.course_id, row.count]))
const studentsIn = async (db: Knex, ids: readonly string[]): Promise<Map<string, number>> =>
  byCourse(
    await db('enrolments')
      .whereIn('course_id', ids)
      .where({ role: 'student' })
      .whereNull('dropped_at')
      .groupBy('course_id')
      .select<CountRow[]>('course_id', db.raw('COUNT(*) AS count')),
  )
const itemsIn = async (db: Knex, ids: readonly string[]): Promise<Map<string, number>> =>
  byCourse(
    await db('items')
      .whereIn('course_id', ids)
      .whereNot({ state: 'deleted' })
      .groupBy('course_id')
      .select<CountRow[]>('course_id', db.raw('COUNT(*) AS count')),
  )

/** What a course is called, where it comes from, and when it is open and meets: all that a plan needs of it beside its content. */
export type CourseFacts = Pick<
  CourseInLine,
  'id' | 'code' | 'section' | 'title' | 'label' | 'origin' | 'missing' | 'term' | 'windows'
>
const factsOf = (row: LineColumns): CourseFacts => ({
  id: row.id,
  code: row.code,
  section: row.section,
  title: row.title,
  label: row.label,
  origin: row.origin,
  missing: row.missing_since !== null,
  term: {
    code: row.term_code,
    name: row.term_name,
    timeZone: row.time_zone,
    classesFrom: row.classes_from,
    classesTo: row.classes_to,
  },
  windows: {
    enrolFrom: row.enrol_from,
    enrolTo: row.enrol_to,
    openFrom: row.open_from,
    openTo: row.open_to,
  },
})
/** Facts of some courses, by id: who teaches them and what they hold is not counted. */
export async function factsOfCourses(db: Knex, ids: readonly string[]): Promise<Map<string, CourseFacts>> {
  if (ids.length === 0) return new Map()
  return new Map((await lineColumns(db, ids)).map(row => [row.id, factsOf(row)]))
}
/** The facts of a course that is known to be there, and when it meets. */
export async function loadFacts(db: Knex, id: string): Promise<MeetingFacts> {
  const facts = (await meetingFacts(db, [id])).get(id)
  if (!facts) throw new Error(`there is no course ${id}`)
  return facts
}
type MeetingFacts = CourseFacts & { meetings: CourseInLine['meetings'] }
/** The same of several, by id. */
export async function meetingFacts(db: Knex, ids: readonly string[]): Promise<Map<string, MeetingFacts>> {
  const facts = await factsOfCourses(db, ids)
  const meetings = groupBy(await meetingsOf(db, ids), row => row.course_id)
  return new Map(
    [...facts].map(([id, each]) => [id, { ...each, meetings: (meetings.get(id) ?? []).map(meetingFrom) }]),
  )
}
const meetingFrom = ({ weekday, start, end, room }: MeetingRow): CourseInLine['meetings'][number] => ({
  weekday,
  start,
  end,
  room,
})
/** Courses in a line each, by id. */
export async function loadCourses(db: Knex, ids: readonly string[]): Promise<Map<string, CourseInLine>> {
  if (ids.length === 0) return new Map()
  const rows = await lineColumns(db, ids)
  const meetings = groupBy(await meetingsOf(db, ids), row => row.course_id)
  const instructors = groupBy(await instructorsOf(db, ids), row => row.course_id)
  const students = await studentsIn(db, ids)
  const contents = await contentsOf(db, ids)
  const items = await itemsIn(db, [...new Set(contents.values())])
  return new Map(
    rows.map((row): [string, CourseInLine] => {
      const content = contents.get(row.id) ?? row.id
      return [
        row.id,
        {
          ...factsOf(row),
          meetings: (meetings.get(row.id) ?? []).map(meetingFrom),
          instructors: (instructors.get(row.id) ?? []).map(each => ({
            id: each.person_id,
            name: shortName(each),
          })),
          students: students.get(row.id) ?? 0,
          items: items.get(content) ?? 0,
          sharesWith: content === row.id ? null : content,
        },
      ]
    }),
  )
}

/** The course of an id that is known to be there. */
export async function loadCourse(db: Knex, id: string): Promise<CourseInLine> {
  const course = (await loadCourses(db, [id])).get(id)
  if (!course) throw new Error(`there is no course ${id}`)
  return course
}
/** Courses among some whose code, section, title or term holds every word. */
export async function searchCourses(
  db: Knex,
  among: CourseQuery,
  words: readonly string[],
  limit: number,
): Promise<string[]> {
  const query = among
    .join('terms', 'terms.id', 'courses.term_id')
    .whereNot({ origin: 'awaited' })
    .orderBy([{ column: 'classes_from', order: 'desc' }, 'courses.code', 'section'])
    .limit(limit)
  const searched = [
    'courses.code',
    'CONCAT(courses.code, "-", courses.section)',
    'courses.title',
    'courses.shown_title',
    'terms.name',
  ]
  for (const word of words)
    void query.whereRaw(`CONCAT_WS(" ", ${searched.join(', ')}) COLLATE utf8mb4_unicode_520_ci LIKE ?`, [
      anywhere(word),
    ])
  return query.pluck('courses.id')
}

export async function findCourseBySource(
  db: Knex,
  sourceId: string,
): Promise<{ id: string; timeZone: string; title: string } | null> {
  const row = await db('courses')
    .join('terms', 'terms.id', 'courses.term_id')
    .where('courses.source_id', sourceId)
    .first<{ id: string; title: string; time_zone: string } | undefined>(
      'courses.id',
      'courses.title',
      'terms.time_zone',
    )
  return row ? { id: row.id, title: row.title, timeZone: row.time_zone } : null
}
/** Whether one of some courses is a file that is compared with a course. */
export async function isFileAmong(db: Knex, ids: readonly string[]): Promise<boolean> {
  return (await db('courses').whereIn('id', ids).where({ origin: 'file' }).first('id')) !== undefined
}
export async function orgOfCourse(db: Knex, courseId: string): Promise<string | null> {
  const row = await db('courses').where({ id: courseId }).first('org_id')
  return row?.org_id ?? null
}

/** Where a course belongs: its key among the registrar's and among files, its term, department, code and language. */
export async function loadCourseKeys(
  db: Knex,
  id: string,
): Promise<Pick<NewCourseRow, 'sourceId' | 'termId' | 'orgId' | 'code' | 'language'> | null> {
  const row = await db('courses').where({ id }).first('source_id', 'term_id', 'org_id', 'code', 'language')
  if (!row) return null
  const { source_id: sourceId, term_id: termId, org_id: orgId, code, language } = row
  return { sourceId, termId, orgId, code, language }
}

export interface AlikeRow {
  id: string
  code: string
  title: string
  label: string | null
  origin: CourseOrigin
}
/** Courses among some in a term that people teach in: the registrar's, and those made by hand. */
export const coursesInTerm = (db: Knex, among: CourseQuery, termCode: string): Promise<AlikeRow[]> =>
  among
    .join('terms', 'terms.id', 'courses.term_id')
    .where('terms.code', termCode)
    .whereIn('origin', ['registrar', 'hand'])
    .select<AlikeRow[]>(
      { id: 'courses.id', code: 'courses.code' },
      db.raw('COALESCE(shown_title, title) AS title'),
      'label',
      'origin',
    )
/** Places among some that plans hold for shells, in a term where one is named. */
export function awaitedAmong(among: CourseQuery, termId?: string): Promise<string[]> {
  const query = among.where({ origin: 'awaited' })
  if (termId) void query.where({ term_id: termId })
  return query.pluck('courses.id')
}

/** The courses that hold a place in a term for a shell that is still to come. */
export const awaitedInTerm = (db: Knex, termId: string): Promise<string[]> =>
  awaitedAmong(db('courses'), termId)

/** Takes a course for this transaction alone: whoever else would write into it waits. */
export async function lockCourse(trx: Knex, id: string): Promise<void> {
  await takeTurn(trx, `course ${id}`)
  forgetContents(trx)
}

/** A course that somebody made by hand, of exactly these names, that holds nothing yet; null where there is none. */
export async function emptyOwnCourse(
  db: Knex,
  personId: string,
  { termId, ...names }: { termId: string; code: string; section: string; title: string },
): Promise<string | null> {
  const row = await db('courses')
    .join('enrolments', 'enrolments.course_id', 'courses.id')
    .where({ person_id: personId, role: 'instructor', term_id: termId, ...names })
    .where('courses.origin', 'hand')
    .whereNotExists(db('items').where('items.course_id', db.ref('courses.id')))
    .whereNotExists(db('units').where('units.course_id', db.ref('courses.id')))
    .first<{ id: string } | undefined>('courses.id')
  return row?.id ?? null
}

export interface NewCourseRow {
  sourceId: string
  termId: string
  orgId: string
  code: string
  section: string
  title: string
  language: string | null
  /** Its instructor, where it has one. */
  personId: string | null
  origin?: CourseOrigin
}
/** Makes a course by hand, with its person (where one is named) as instructor. */
export async function insertCourse(db: Knex, course: NewCourseRow): Promise<string> {
  const id = newId()
  await db('courses').insert({
    id,
    source_id: course.sourceId,
    term_id: course.termId,
    org_id: course.orgId,
    code: course.code,
    section: course.section,
    title: course.title,
    language: course.language,
    origin: course.origin ?? 'hand',
    created_at: stampOf(now()),
  })
  if (course.personId)
    await db('enrolments').insert({
      id: newId(),
      course_id: id,
      person_id: course.personId,
      role: 'instructor',
      is_primary: true,
      origin: 'hand',
    })
  return id
}
type WeeklyMeeting = Pick<MeetingRow, 'weekday' | 'start' | 'end'> & { room?: string | null }
/** Gives a course other weekly meetings than it had. */
export async function replaceMeetings(
  db: Knex,
  courseId: string,
  meetings: readonly WeeklyMeeting[],
): Promise<void> {
  await db('meetings').where({ course_id: courseId }).delete()
  const rows = meetings.map(({ weekday, start, end, room }, position) => ({
    course_id: courseId,
    position,
    weekday,
    start,
    end,
    room: room ?? null,
  }))
  if (rows.length > 0) await db('meetings').insert(rows)
}
