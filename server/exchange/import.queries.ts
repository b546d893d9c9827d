import type { Knex } from 'knex'
import type { Meeting, TermCalendar } from '../../core/calendar/schema'
import type { Body, CourseContent, CourseNode } from '../../core/course/model'
import { slotNames } from '../../core/dates/rule'
import { pointsText } from '../../core/grading/points'
import { inBatches, newId } from '../db/rows'
import { hashOf, storeBodies, storeStreams } from '../courses/bodies.queries'

type Rows = Record<string, unknown>[]

const plain = (value: unknown): unknown => (typeof value === 'boolean' ? Number(value) : (value ?? null))
/** Inserts rows, or brings those with the same `source_id` up to date; ids stay what they were, and a row that says nothing new is not written. Returns ids by source id. */
async function upsertBySource(
  db: Knex,
  table: string,
  rows: Rows,
  columns: string[],
): Promise<Map<string, string>> {
  for (const batch of inBatches(rows)) {
    const there = new Map(
      (
        await db(table)
          .whereIn(
            'source_id',
            batch.map(row => String(row.source_id)),
          )
          .select('source_id', ...columns)
      ).map(row => [row.source_id as string, row as Record<string, unknown>]),
    )
    const fresh = batch.filter(row => {
      const old = there.get(String(row.source_id))
      return !old || columns.some(column => plain(row[column]) !== plain(old[column]))
    })
    if (fresh.length > 0)
      await db(table)
        .insert(fresh.map(row => ({ id: newId(), ...row })))
        .onConflict('source_id')
        .merge(columns)
  }
  return idsBySource(
    db,
    table,
    rows.map(row => String(row.source_id)),
  )
}
/** Ids of what is there already, by source id. */
export async function idsBySource(
  db: Knex,
  table: string,
  keys: readonly string[],
): Promise<Map<string, string>> {
  const ids = new Map<string, string>()
  for (const batch of inBatches([...new Set(keys)]))
    for (const row of await db(table).whereIn('source_id', batch).select('id', 'source_id'))
      ids.set(row.source_id, row.id)
  return ids
}
export const upsertOrgs = (db: Knex, rows: Rows) =>
  upsertBySource(db, 'orgs', rows, ['name', 'type', 'parent_source_id'])
export const upsertPeople = (db: Knex, rows: Rows) =>
  upsertBySource(db, 'people', rows, ['login', 'given_name', 'family_name', 'email', 'active'])
export const upsertCourses = (db: Knex, rows: Rows) =>
  upsertBySource(db, 'courses', rows, ['term_id', 'org_id', 'code', 'section', 'title'])

export async function upsertTerm(db: Knex, calendar: TermCalendar): Promise<void> {
  const row = {
    code: calendar.id,
    name: calendar.name || calendar.id,
    time_zone: calendar.timeZone,
    classes_from: calendar.classes.from,
    classes_to: calendar.classes.to,
    calendar: JSON.stringify(calendar),
  }
  await db('terms')
    .insert({ id: newId(), ...row })
    .onConflict('code')
    .merge(['name', 'time_zone', 'classes_from', 'classes_to', 'calendar'])
}
export async function termIdsByCode(db: Knex): Promise<Map<string, string>> {
  return new Map((await db('terms').select('id', 'code')).map(row => [row.code, row.id]))
}

export async function findCourseBySource(
  db: Knex,
  sourceId: string,
): Promise<{ id: string; timeZone: string; title: string } | null> {
  const row = await db('courses')
    .join('terms', 'terms.id', 'courses.term_id')
    .where('courses.source_id', sourceId)
    .first('courses.id', 'courses.title', 'terms.time_zone')
  return row ? { id: row.id, title: row.title, timeZone: row.time_zone } : null
}
export async function holdsContent(db: Knex, courseId: string): Promise<boolean> {
  return Boolean(
    (await db('items').where({ course_id: courseId }).first('lineage')) ??
    (await db('units').where({ course_id: courseId }).first('lineage')),
  )
}
export async function enrolmentIds(db: Knex, courseId: string): Promise<Map<string, string>> {
  const rows = await db('enrolments')
    .join('people', 'people.id', 'enrolments.person_id')
    .where({ course_id: courseId })
    .select('enrolments.id', 'people.source_id')
  return new Map(rows.map(row => [row.source_id, row.id]))
}

export async function replaceMeetings(
  db: Knex,
  courseId: string,
  meetings: readonly (Meeting & { room?: string })[],
): Promise<void> {
  await db('meetings').where({ course_id: courseId }).delete()
  if (meetings.length > 0)
    await db('meetings').insert(
      meetings.map((meeting, position) => ({
        course_id: courseId,
        position,
        weekday: meeting.weekday,
        start: meeting.start,
        end: meeting.end,
        room: meeting.room ?? null,
      })),
    )
}

/** Writes the content of a course that has none yet: bodies first, then units, items, slots and grade categories. */
export async function insertContent(db: Knex, courseId: string, content: CourseContent): Promise<void> {
  const units: Rows = []
  const items: Rows = []
  const slots: Rows = []
  const bodies = new Map<string, Body>()
  const collect = (nodes: readonly CourseNode[]): void =>
    nodes.forEach(node => {
      if (node.type === 'item' && node.body) bodies.set(node.lineage, node.body)
      collect(node.children)
    })
  collect(content.nodes)
  const hashes = await storeStreams(db, bodies)
  const walk = (nodes: readonly CourseNode[], parent: string | null): void =>
    nodes.forEach((node, position) => {
      if (node.type === 'unit')
        units.push({
          course_id: courseId,
          lineage: node.lineage,
          parent_lineage: parent,
          position,
          title: node.title,
          state: 'visible',
        })
      else {
        items.push({
          course_id: courseId,
          lineage: node.lineage,
          parent_lineage: parent,
          position,
          kind: node.kind,
          title: node.title,
          state: node.state,
          exam: node.exam,
          points: node.points === null ? null : pointsText(node.points),
          category_lineage: node.category,
          body_hash: hashes.get(node.lineage) ?? null,
          media_type: node.body?.mediaType ?? null,
          settings: JSON.stringify(node.settings),
        })
        for (const slot of slotNames)
          if (node.slots[slot])
            slots.push({ course_id: courseId, lineage: node.lineage, slot, at: node.slots[slot] })
      }
      walk(node.children, node.lineage)
    })
  walk(content.nodes, null)
  const categories = content.categories.map((category, position) => ({
    course_id: courseId,
    lineage: category.lineage,
    title: category.title,
    weight: category.weight === null ? null : pointsText(category.weight),
    position,
  }))
  for (const [table, rows] of [
    ['units', units],
    ['items', items],
    ['slots', slots],
    ['grade_categories', categories],
  ] as const)
    for (const batch of inBatches<Record<string, unknown>>(rows)) await db(table).insert(batch)
}

/** Student data of a course, each row hanging off an enrolment. */
export async function insertStudentData(
  db: Knex,
  data: {
    grades: Rows
    attempts: Rows
    extensions: Rows
    submissions: { row: Record<string, unknown>; text: string }[]
    posts: { row: Record<string, unknown>; text: string }[]
  },
): Promise<void> {
  const bytes = (text: string) => new TextEncoder().encode(text)
  await storeBodies(
    db,
    [...data.submissions, ...data.posts].map(entry => bytes(entry.text)),
  )
  const written = (entries: { row: Record<string, unknown>; text: string }[]): Rows =>
    entries.map(({ row, text }) => ({ id: newId(), ...row, body_hash: hashOf(bytes(text)) }))
  for (const [table, rows] of [
    ['grades', data.grades],
    ['extensions', data.extensions],
    ['attempts', data.attempts.map(row => ({ id: newId(), ...row }))],
    ['submissions', written(data.submissions)],
    ['posts', written(data.posts)],
  ] as const)
    for (const batch of inBatches<Record<string, unknown>>(rows)) await db(table).insert(batch)
}
