import type { Knex } from 'knex'
import { now, stampOf } from '../../services/today'
import { newId } from '../rows'

export interface LogEntry { action: string, personId?: string, courseId?: string, planId?: string, runId?: string, detail?: Record<string, unknown> }
/** Writes down what was done, by whom and when. */
export async function writeLog(db: Knex, entry: LogEntry): Promise<void> {
  await db('log').insert({
    id: newId(), at: stampOf(now()), person_id: entry.personId ?? null, action: entry.action, course_id: entry.courseId ?? null,
    plan_id: entry.planId ?? null, run_id: entry.runId ?? null, detail: JSON.stringify(entry.detail ?? {}),
  })
}
