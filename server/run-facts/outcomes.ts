import type { Knex } from 'knex'
import type { RunOutcome } from '../../shared/api/writing'
import { isoInstant } from '../clock'
import { problemOf } from '../errors/problem'
import { latestRunJobs } from './run-jobs.queries'

/** What came of the last run that was asked for of each of some plans, where it wrote nothing. */
export async function outcomesOf(db: Knex, planIds: readonly string[]): Promise<Map<string, RunOutcome>> {
  const outcomes = new Map<string, RunOutcome>()
  for (const { subject, state, problem, finished_at } of await latestRunJobs(db, planIds)) {
    if (state !== 'failed' && state !== 'cancelled') continue
    const told = problemOf(problem) ?? { title: 'Somebody stopped this run', detail: 'Nothing was written.' }
    outcomes.set(subject, { state, ...told, at: isoInstant(finished_at ?? '') })
  }
  return outcomes
}
export const outcomeOfRun = async (db: Knex, planId: string): Promise<RunOutcome> =>
  (await outcomesOf(db, [planId])).get(planId) ?? null
