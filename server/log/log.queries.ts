import type { Knex } from 'knex'
import { now, stampOf } from '../clock'
import type { CourseQuery } from '../courses/access.queries'
import { anywhere, json, jsonOf, newId } from '../db/rows'
import type { LogRow } from '../db/tables'
import { actionsWith, type LogAction, type LogDetail } from '../../shared/api/log-actions'
import { shortName } from '../people/names'

interface Where {
  personId?: string
  courseId?: string
  planId?: string
  runId?: string
}
/** An action with the details that it tells. */
export type LogEntry = {
  [A in LogAction]: Where & { action: A } & (keyof LogDetail<A> extends never
      ? { detail?: undefined }
      : { detail: LogDetail<A> })
}[LogAction]
/** Writes down what was done, by whom and when. */
export async function writeLog(db: Knex, entry: LogEntry): Promise<void> {
  await writeLogLine(db, entry)
}
/** The same; answers the key of the line. */
export async function writeLogLine(db: Knex, entry: LogEntry): Promise<string> {
  const id = newId()
  await db('log').insert({
    id,
    at: stampOf(now()),
    person_id: entry.personId ?? null,
    action: entry.action,
    course_id: entry.courseId ?? null,
    plan_id: entry.planId ?? null,
    run_id: entry.runId ?? null,
    detail: json(entry.detail ?? {}),
  })
  return id
}
/** What was done went on: its line tells all of it. */
export async function rewordLog(
  db: Knex,
  id: string,
  detail: Readonly<Record<string, unknown>>,
): Promise<void> {
  await db('log')
    .where({ id })
    .update({ detail: json(detail) })
}

export interface LogQuery {
  words: readonly string[]
  action: string | null
  from: string | null
  to: string | null
  /** The id of the last line of the page before. */
  before: string | null
  limit: number
  /** Whose lines: what this person did, and what was done in these courses; null: all there are. */
  within: { personId: string; courses: CourseQuery } | null
}
export interface LogLine {
  id: string
  at: string
  by: string | null
  action: string
  course: { id: string; code: string; section: string; title: string; term: string } | null
  planId: string | null
  runId: string | null
  detail: Record<string, unknown>
}
type Columns = Omit<LogRow, 'plan_id' | 'run_id'> &
  Pick<LogRow, 'plan_id' | 'run_id'> & {
    given_name: string
    family_name: string
    course_code: string | null
    section: string
    title: string
    term_name: string
  }
/** What a line shows, as it shows it: a code with its section, and a name in full or with its initial. */
const searched = [
  'given_name',
  'family_name',
  'CONCAT(LEFT(given_name, 1), ". ", family_name)',
  ...['CONCAT(courses.code, "-", section)', 'courses.code', 'JSON_EXTRACT(detail, "$.*")'].map(
    column => `${column} COLLATE utf8mb4_unicode_520_ci`,
  ),
  'title',
  'terms.name',
]

/** What was done, the newest first. */
export async function readLog(db: Knex, wish: LogQuery): Promise<LogLine[]> {
  const query = db('log')
    .leftJoin('people', 'people.id', 'log.person_id')
    .leftJoin('courses', 'courses.id', 'log.course_id')
    .leftJoin('terms', 'terms.id', 'courses.term_id')
    .orderBy('log.id', 'desc')
    .limit(wish.limit)
    .select<Columns[]>(
      'log.*',
      'given_name',
      'family_name',
      { course_code: 'courses.code', term_name: 'terms.name' },
      'section',
      'title',
    )
  const { within } = wish
  if (within)
    void query.where(seen =>
      seen
        .where('log.person_id', within.personId)
        .orWhereIn('log.course_id', within.courses.select('courses.id')),
    )
  if (wish.action) void query.where('action', 'like', `${wish.action.replace(/[\\%_]/g, '\\$&')}%`)
  if (wish.from) void query.where('at', '>=', `${wish.from} 00:00:00`)
  if (wish.to) void query.where('at', '<=', `${wish.to} 23:59:59.999`)
  if (wish.before) void query.where('log.id', '<', wish.before)
  for (const word of wish.words)
    void query.where(found =>
      found
        .whereRaw(`CONCAT_WS(" ", ${searched.join(', ')}) LIKE ?`, [anywhere(word)])
        .orWhereIn('action', actionsWith(word)),
    )
  return (await query).map(lineOf)
}
const lineOf = (row: Columns): LogLine => ({
  id: row.id,
  at: row.at,
  by: row.person_id === null ? null : shortName(row),
  action: row.action,
  planId: row.plan_id,
  runId: row.run_id,
  detail: jsonOf(row.detail),
  course:
    row.course_id === null || row.course_code === null
      ? null
      : {
          id: row.course_id,
          code: row.course_code,
          section: row.section,
          title: row.title,
          term: row.term_name,
        },
})
