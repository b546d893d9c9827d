import type { Knex } from 'knex'
import { runSteps, type RunStep, type WritingNow } from '../../shared/api/writing'
import { isoInstant } from '../clock'
import { mailAddress } from '../mail/mail'
import { runsUnderWay } from './run-jobs.queries'

/** Who runs into a course, and since when; how far it is. It tells those who look; what keeps two runs apart is the turn that each takes (`lockCourse`). */
export interface Writing {
  by: string
  since: string
  planId: string
  step: RunStep
  done: number
  total: number
}
/** Who runs into each of some courses, or waits to. */
export async function writingInto(db: Knex, courseIds: readonly string[]): Promise<Map<string, Writing>> {
  const under = await runsUnderWay(db, courseIds)
  return new Map(
    under.map(({ courseId, by, since, planId, state, step, done, total }) => {
      const known = runSteps.find(each => each === step) ?? 'reads'
      return [courseId, { by, since, planId, step: state === 'waiting' ? 'waits' : known, done, total }]
    }),
  )
}
/** The same as it is told. */
export const writingTold = (held: Writing | undefined): WritingNow =>
  held
    ? {
        by: held.by,
        since: isoInstant(held.since),
        step: held.step,
        done: held.done,
        total: held.total,
        plan: held.planId,
        mails: mailAddress() !== null,
      }
    : null
