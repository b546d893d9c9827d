import type { Knex } from 'knex'
import { inBatches, selectRows } from '../db/rows'
import type { JobRow } from '../db/tables'
import { shortName } from '../people/names'

/** Jobs that run a plan, their subject: one by one, or for a batch. */
export const runKinds = ['run', 'batch-run'] as const
/** A run that waits or goes on, of a plan into a course. */
export interface RunningJob {
  id: string
  planId: string
  courseId: string
  by: string
  since: string
  state: 'waiting' | 'running'
  step: string | null
  done: number
  total: number
}
interface Row extends Pick<JobRow, 'id' | 'created_at' | 'step' | 'done' | 'total'> {
  plan_id: string
  course_id: string
  state: 'waiting' | 'running'
  given_name: string
  family_name: string
}
/** Runs that wait or go on into some courses. */
export async function runsUnderWay(db: Knex, courseIds: readonly string[]): Promise<RunningJob[]> {
  const found: RunningJob[] = []
  for (const batch of inBatches(courseIds)) {
    const rows = await selectRows<Row>(
      db,
      `SELECT j.id, j.created_at, j.state, j.step, j.done, j.total, p.id AS plan_id, given_name, family_name,
         IF(p.mode = 'in-place', p.source_course_id, p.target_course_id) AS course_id
       FROM jobs j JOIN plans p ON p.id = j.subject JOIN people ON people.id = j.person_id
       WHERE j.kind IN (:runKinds) AND j.state IN ('waiting', 'running')
         AND IF(p.mode = 'in-place', p.source_course_id, p.target_course_id) IN (:batch)`,
      { batch, runKinds },
    )
    for (const row of rows)
      found.push({
        id: row.id,
        planId: row.plan_id,
        courseId: row.course_id,
        by: shortName(row),
        since: row.created_at,
        state: row.state,
        step: row.step,
        done: Number(row.done),
        total: Number(row.total),
      })
  }
  return found
}
type LatestRun = Pick<JobRow, 'id' | 'subject' | 'state' | 'problem' | 'finished_at' | 'payload'>
/** The latest run that was asked for of each of some plans, however it ended. */
export async function latestRunJobs(db: Knex, planIds: readonly string[]): Promise<LatestRun[]> {
  const latest = new Map<string, LatestRun>()
  for (const batch of inBatches(planIds))
    for (const row of await db('jobs')
      .whereIn('kind', runKinds)
      .whereIn('subject', batch)
      .orderBy('id')
      .select('id', 'subject', 'state', 'problem', 'finished_at', 'payload'))
      latest.set(row.subject, row)
  return [...latest.values()]
}
