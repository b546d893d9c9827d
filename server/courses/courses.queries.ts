import type { Knex } from 'knex'
import { termCalendar, type TermCalendar } from '../../core/calendar/schema'
import { studentDataKinds, type StudentDataCounts } from '../../core/clear/kinds'
import type { ItemKind, ItemState } from '../../core/course/model'
import { inCourseOrder, type OutlineNode } from '../../core/course/outline'
import { parsePoints } from '../../core/grading/points'
import type { Windows } from '../../core/pairing/windows'
import { anywhere, jsonOf } from '../db/rows'
import { contentOf, contentsOf } from './sections.queries'

export interface CourseRow {
  id: string
  code: string
  section: string
  title: string
  term: { code: string; name: string; timeZone: string; classesFrom: string; classesTo: string }
  meetings: { weekday: 1 | 2 | 3 | 4 | 5 | 6 | 7; start: string; end: string; room: string | null }[]
  instructors: { id: string; name: string }[]
  students: number
  items: number
  /** What tells this section from others, for students. */
  label: string | null
  origin: 'registrar' | 'hand' | 'awaited' | 'template' | 'snapshot'
  windows: Windows
  /** The section whose content it shows, where that is not its own. */
  sharesWith: string | null
  /** The registrar does not list it any more. */
  missing: boolean
}

/** Courses in a line each, by id. */
export async function loadCourses(db: Knex, ids: readonly string[]): Promise<Map<string, CourseRow>> {
  const courses = new Map<string, CourseRow>()
  if (ids.length === 0) return courses
  const rows = await db('courses')
    .join('terms', 'terms.id', 'courses.term_id')
    .whereIn('courses.id', ids)
    .select(
      'courses.id',
      'courses.code',
      'section',
      { title: db.raw('COALESCE(shown_title, title)') },
      'label',
      'origin',
      'enrol_from',
      'enrol_to',
      'open_from',
      'open_to',
      'missing_since',
      { term_code: 'terms.code' },
      'name',
      'time_zone',
      'classes_from',
      'classes_to',
    )
  for (const row of rows) {
    courses.set(row.id, {
      id: row.id,
      code: row.code,
      section: row.section,
      title: row.title,
      meetings: [],
      instructors: [],
      students: 0,
      items: 0,
      label: row.label,
      origin: row.origin,
      sharesWith: null,
      missing: row.missing_since !== null,
      windows: {
        enrolFrom: row.enrol_from,
        enrolTo: row.enrol_to,
        openFrom: row.open_from,
        openTo: row.open_to,
      },
      term: {
        code: row.term_code,
        name: row.name,
        timeZone: row.time_zone,
        classesFrom: row.classes_from,
        classesTo: row.classes_to,
      },
    })
  }
  for (const row of await db('meetings').whereIn('course_id', ids).orderBy('position'))
    courses
      .get(row.course_id)!
      .meetings.push({ weekday: row.weekday, start: row.start, end: row.end, room: row.room })
  const staff = await db('enrolments')
    .join('people', 'people.id', 'enrolments.person_id')
    .whereIn('course_id', ids)
    .where({ role: 'instructor' })
    .whereNull('dropped_at')
    .orderBy([{ column: 'is_primary', order: 'desc' }, 'family_name'])
    .select('course_id', 'person_id', 'given_name', 'family_name')
  for (const row of staff)
    courses.get(row.course_id)!.instructors.push({ id: row.person_id, name: personName(row) })
  const perCourse = async (rows: Knex.QueryBuilder): Promise<{ course_id: string; count: number }[]> =>
    rows.whereIn('course_id', ids).groupBy('course_id').select('course_id').count({ count: '*' })
  for (const row of await perCourse(db('enrolments').where({ role: 'student' }).whereNull('dropped_at')))
    courses.get(row.course_id)!.students = Number(row.count)
  const contents = await contentsOf(db, ids)
  const held = new Map(
    (
      (await db('items')
        .whereIn('course_id', [...new Set(contents.values())])
        .whereNot({ state: 'deleted' })
        .groupBy('course_id')
        .select('course_id')
        .count({ count: '*' })) as { course_id: string; count: string }[]
    ).map(row => [row.course_id, Number(row.count)]),
  )
  for (const [id, course] of courses) {
    const content = contents.get(id)!
    course.items = held.get(content) ?? 0
    course.sharesWith = content === id ? null : content
  }
  return courses
}
/** `I. Marchetti` */
export const personName = (row: { given_name: string; family_name: string }): string =>
  `${row.given_name.slice(0, 1)}. ${row.family_name}`

/** Courses among some whose code, section, title or term holds every word. */
export async function searchCourses(
  db: Knex,
  among: Knex.QueryBuilder,
  words: readonly string[],
  limit: number,
): Promise<string[]> {
  const query = among
    .join('terms', 'terms.id', 'courses.term_id')
    .whereNot({ origin: 'awaited' })
    .orderBy([{ column: 'classes_from', order: 'desc' }, 'courses.code', 'section'])
    .limit(limit)
    .select('courses.id')
  for (const word of words)
    void query.whereRaw(
      'CONCAT_WS(" ", courses.code, CONCAT(courses.code, "-", courses.section), courses.title, courses.shown_title, terms.name) COLLATE utf8mb4_unicode_520_ci LIKE ?',
      [anywhere(word)],
    )
  return (await query).map((row: { id: string }) => row.id)
}

/** The zone the institution lives in: that of its latest term. UTC before there is one. */
export async function latestZone(db: Knex): Promise<string> {
  const row = await db('terms').orderBy('classes_from', 'desc').first('time_zone')
  return row?.time_zone ?? 'UTC'
}

export async function loadCalendar(db: Knex, courseId: string): Promise<TermCalendar> {
  const row = await db('courses')
    .join('terms', 'terms.id', 'courses.term_id')
    .where('courses.id', courseId)
    .first('calendar')
  return termCalendar.parse(jsonOf(row.calendar))
}

/** Units and items of a course in its own order, with dates. Deleted things are not among them, nor are kinds that somebody may not take (`leaves`). */
export async function loadOutline(
  db: Knex,
  courseId: string,
  leaves: ReadonlySet<ItemKind> = new Set(),
): Promise<OutlineNode[]> {
  const content = await contentOf(db, courseId)
  const units = await db('units')
    .where({ course_id: content })
    .whereNot({ state: 'deleted' })
    .select('lineage', 'parent_lineage', 'position', 'title', 'state')
  const items = await db('items')
    .where({ course_id: content })
    .whereNot({ state: 'deleted' })
    .whereNotIn('kind', [...leaves])
    .select(
      'lineage',
      'parent_lineage',
      'position',
      'title',
      'kind',
      'state',
      'exam',
      'points',
      'category_lineage',
    )
  // What is nested in something that stays away stays away with it.
  const gone = new Set<string>()
  if (leaves.size > 0) {
    const here = new Set([...units, ...items].map(row => row.lineage))
    for (let before = -1; before !== gone.size;) {
      before = gone.size
      for (const row of items)
        if (row.parent_lineage !== null && (!here.has(row.parent_lineage) || gone.has(row.parent_lineage)))
          gone.add(row.lineage)
    }
  }
  const slots = new Map<string, Record<string, string>>()
  for (const row of await db(content === courseId ? 'slots' : 'section_slots')
    .where({ course_id: courseId })
    .select('lineage', 'slot', 'at')) {
    const entry = slots.get(row.lineage)
    if (entry) entry[row.slot] = row.at
    else slots.set(row.lineage, { [row.slot]: row.at })
  }
  return inCourseOrder([
    ...units.map(row => ({
      lineage: row.lineage as string,
      parent: row.parent_lineage as string | null,
      position: Number(row.position),
      type: 'unit' as const,
      title: row.title as string,
      kind: null,
      state: row.state as ItemState,
      exam: false,
      points: null,
      category: null,
      opens: null,
      due: null,
      closes: null,
    })),
    ...items
      .filter(row => !gone.has(row.lineage))
      .map(row => {
        const dates = slots.get(row.lineage) ?? {}
        return {
          lineage: row.lineage as string,
          parent: row.parent_lineage as string | null,
          position: Number(row.position),
          type: 'item' as const,
          title: row.title as string,
          kind: row.kind as ItemKind,
          state: row.state as ItemState,
          exam: Boolean(row.exam),
          points: row.points === null ? null : parsePoints(row.points),
          category: row.category_lineage as string | null,
          opens: dates.opens ?? null,
          due: dates.due ?? null,
          closes: dates.closes ?? null,
        }
      }),
  ])
}

export async function loadCategories(
  db: Knex,
  courseId: string,
): Promise<{ lineage: string; title: string; weight: number | null; position: number }[]> {
  const rows = await db('grade_categories')
    .where({ course_id: await contentOf(db, courseId) })
    .orderBy('position')
    .select('lineage', 'title', 'weight', 'position')
  return rows.map(row => ({
    lineage: row.lineage,
    title: row.title,
    weight: row.weight === null ? null : parsePoints(row.weight),
    position: Number(row.position),
  }))
}

/** How much student data of each kind a course holds. With `lineages`, only what is about those items. */
export async function countStudentData(
  db: Knex,
  courseId: string,
  lineages?: readonly string[],
): Promise<StudentDataCounts> {
  const counts = { students: 0 } as StudentDataCounts
  const students = await db('enrolments')
    .where({ course_id: courseId, role: 'student' })
    .count({ count: '*' })
    .first()
  counts.students = Number(students!.count)
  for (const kind of studentDataKinds) {
    const query = db(kind)
      .join('enrolments', 'enrolments.id', `${kind}.enrolment_id`)
      .where({ course_id: courseId })
      .count({ count: '*' })
      .first()
    if (lineages) void query.whereIn('item_lineage', lineages)
    counts[kind] = Number((await query)!.count)
  }
  return counts
}

export interface ItemRow {
  lineage: string
  title: string
  kind: ItemKind
  state: ItemState
  exam: boolean
  points: number | null
  category: string | null
  bodyHash: string | null
  mediaType: string | null
  settings: Record<string, unknown>
}
export async function loadItem(db: Knex, courseId: string, lineage: string): Promise<ItemRow | null> {
  const row = await db('items')
    .leftJoin('grade_categories', join =>
      join
        .on('grade_categories.course_id', 'items.course_id')
        .andOn('grade_categories.lineage', 'items.category_lineage'),
    )
    .where({ 'items.course_id': await contentOf(db, courseId), 'items.lineage': lineage })
    .whereNot({ state: 'deleted' })
    .first('items.*', { category_title: 'grade_categories.title' })
  return row
    ? {
        lineage: row.lineage,
        title: row.title,
        kind: row.kind,
        state: row.state,
        exam: Boolean(row.exam),
        points: row.points === null ? null : parsePoints(row.points),
        category: row.category_title,
        bodyHash: row.body_hash,
        mediaType: row.media_type,
        settings: jsonOf(row.settings),
      }
    : null
}
