import type { Knex } from 'knex'
import { termCalendar, type TermCalendar } from '../../core/calendar/schema'
import { json, jsonOf, newId } from '../db/rows'
import type { TermRow } from '../db/tables'

export interface TermLine {
  id: string
  code: string
  name: string
  timeZone: string
  classesFrom: string
  classesTo: string
}
const columns = ['id', 'code', 'name', 'time_zone', 'classes_from', 'classes_to'] as const
const lineOf = (row: Pick<TermRow, (typeof columns)[number]>): TermLine => ({
  id: row.id,
  code: row.code,
  name: row.name,
  timeZone: row.time_zone,
  classesFrom: row.classes_from,
  classesTo: row.classes_to,
})
/** All terms that are offered, the latest first; `also`: with these, which may be those of one course each. */
export async function listTerms(db: Knex, also: readonly string[] = []): Promise<TermLine[]> {
  const rows = await db('terms')
    .where(term => term.where({ own: false }).orWhereIn('id', [...also]))
    .orderBy('classes_from', 'desc')
    .select(...columns)
  return rows.map(lineOf)
}
export async function findTerm(db: Knex, code: string): Promise<TermLine | null> {
  const row = await db('terms')
    .where({ code })
    .first(...columns)
  return row ? lineOf(row) : null
}
export async function termIdsByCode(db: Knex): Promise<Map<string, string>> {
  const rows = await db('terms').select('id', 'code')
  return new Map(rows.map(row => [row.code, row.id]))
}

/** The zone of the latest term: the institution's. Null before there is one. */
export async function latestZone(db: Knex): Promise<string | null> {
  const row = await db('terms').where({ own: false }).orderBy('classes_from', 'desc').first('time_zone')
  return row?.time_zone ?? null
}

/** The calendar of a term, by its code. */
export async function loadTermCalendar(db: Knex, code: string): Promise<TermCalendar> {
  const row = await db('terms').where({ code }).first('calendar')
  if (!row) throw new Error(`there is no term ${code}`)
  return termCalendar.parse(jsonOf(row.calendar))
}
/** The calendar of a course's term. */
export async function loadCalendar(db: Knex, courseId: string): Promise<TermCalendar> {
  const calendar = (await loadCalendars(db, [courseId])).get(courseId)
  if (!calendar) throw new Error(`there is no course ${courseId}`)
  return calendar
}
/** The calendars of several, by course. */
export async function loadCalendars(
  db: Knex,
  courseIds: readonly string[],
): Promise<Map<string, TermCalendar>> {
  const rows = await db('courses')
    .join('terms', 'terms.id', 'courses.term_id')
    .whereIn('courses.id', courseIds)
    .select('courses.id', 'calendar')
  return new Map(rows.map(({ id, calendar }) => [id, termCalendar.parse(jsonOf(calendar))]))
}

const rowOf = (calendar: TermCalendar) => ({
  code: calendar.id,
  name: calendar.name || calendar.id,
  time_zone: calendar.timeZone,
  classes_from: calendar.classes.from,
  classes_to: calendar.classes.to,
  calendar: json(calendar),
})
/** Makes a term for one course that came without a calendar: classes from its first day to its last, in the institution's zone. Answers its code. */
export async function insertOwnTerm(db: Knex, calendar: TermCalendar): Promise<string> {
  const id = newId()
  const own = { ...calendar, id: `own:${id}` }
  await db('terms').insert({ id, ...rowOf(own), own: true })
  return own.id
}
/** Keeps a term's calendar, new or in place of the one there was. */
export async function upsertTerm(db: Knex, calendar: TermCalendar): Promise<void> {
  await db('terms')
    .insert({ id: newId(), ...rowOf(calendar) })
    .onConflict('code')
    .merge(['name', 'time_zone', 'classes_from', 'classes_to', 'calendar'])
}
