import type { Knex } from 'knex'
import { now, stampOf } from '../clock'
import { anywhere, jsonOf, newId } from '../db/rows'
import { coursesOf, dutyOrgs } from '../courses/access.queries'
import { personName } from '../courses/courses.queries'
import type { Person } from '../people/people.queries'

export interface LogEntry {
  action: string
  personId?: string
  courseId?: string
  planId?: string
  runId?: string
  detail?: Record<string, unknown>
}
/** Writes down what was done, by whom and when. */
export async function writeLog(db: Knex, entry: LogEntry): Promise<void> {
  await db('log').insert({
    id: newId(),
    at: stampOf(now()),
    person_id: entry.personId ?? null,
    action: entry.action,
    course_id: entry.courseId ?? null,
    plan_id: entry.planId ?? null,
    run_id: entry.runId ?? null,
    detail: JSON.stringify(entry.detail ?? {}),
  })
}

export interface LogQuery {
  words: readonly string[]
  action: string | null
  from: string | null
  to: string | null
  before: string | null
  limit: number
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
/**
 * What was done, the newest first: all of it for the academic office of the whole institution; for others what they did themselves and what
 * was done in courses they have to do with. `before`: the id of the last line of the page before.
 */
export async function readLog(db: Knex, person: Person, wish: LogQuery): Promise<LogLine[]> {
  const query = db('log')
    .leftJoin('people', 'people.id', 'log.person_id')
    .leftJoin('courses', 'courses.id', 'log.course_id')
    .leftJoin('terms', 'terms.id', 'courses.term_id')
    .orderBy('log.id', 'desc')
    .limit(wish.limit)
    .select(
      'log.id',
      'at',
      'log.person_id',
      'given_name',
      'family_name',
      'action',
      'log.course_id',
      { course_code: 'courses.code' },
      'section',
      'title',
      { term_name: 'terms.name' },
      'plan_id',
      'run_id',
      'detail',
    )
  const everything = (await dutyOrgs(db, person)).office.size > 0
  if (!everything) {
    const mine = (await coursesOf(db, person))().select('courses.id')
    void query.where(seen => seen.where('log.person_id', person.id).orWhereIn('log.course_id', mine))
  }
  if (wish.action) void query.where('action', 'like', `${wish.action.replace(/[\\%_]/g, '\\$&')}%`)
  if (wish.from) void query.where('at', '>=', `${wish.from} 00:00:00`)
  if (wish.to) void query.where('at', '<=', `${wish.to} 23:59:59.999`)
  if (wish.before) void query.where('log.id', '<', wish.before)
  for (const word of wish.words)
    void query.whereRaw(
      `CONCAT_WS(" ", given_name, family_name, ${['action', 'courses.code', 'section', 'detail'].map(column => `${column} COLLATE utf8mb4_unicode_520_ci`).join(', ')}, title, terms.name) LIKE ?`,
      [anywhere(word)],
    )
  return (await query).map((row: Record<string, string | null>) => ({
    id: row.id!,
    at: row.at!,
    by: row.person_id ? personName(row as { given_name: string; family_name: string }) : null,
    action: row.action!,
    planId: row.plan_id ?? null,
    runId: row.run_id ?? null,
    detail: jsonOf(row.detail),
    course: row.course_code
      ? {
          id: row.course_id!,
          code: row.course_code,
          section: row.section!,
          title: row.title!,
          term: row.term_name!,
        }
      : null,
  }))
}
