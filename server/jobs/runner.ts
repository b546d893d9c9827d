import type { Knex } from 'knex'
import { dropOldGuesses } from '../auth/guesses.queries'
import { dropOldBrowsers } from '../auth/known-browsers.queries'
import { dropOldSessions } from '../auth/sessions.queries'
import { dropOldTurns } from '../db/transaction'
import { dropOldUploads } from '../exchange/uploads.queries'
import { logSeldom } from '../http/logger'
import { dropOldStates } from '../runs/states.queries'
import { daysKept, destroyOverdue } from '../student-data/clearing'
import { claimJob, dropOldJobs, type HeldJob, type Job } from './jobs.queries'
import { workOff } from './work'

/** Kinds of jobs that wait for one another: a registrar who is slow keeps no file waiting, and neither keeps mail. */
export const ownLanes = [['read', 'import'], ['fetch'], ['mail'], ['batch']] as const
/** Kinds that take a core for a while: they are done in a thread of their own, beside which requests are answered. */
export const heavyLanes = [['run'], ['index'], ['batch-try', 'batch-run', 'batch-undo']] as const
type Lanes = readonly (readonly string[])[]
/** Told of a job when it is begun and when it is let go. */
type Told = (job: HeldJob, isHeld: boolean) => void
const hour = 3_600_000

/**
 * Works jobs off, one at a time in each lane. Any number of processes may do so against one database. Returns how to stop; what was begun
 * then is continued by another process, or by this one when it is back, once its lease has run out.
 */
export function startRunner(
  db: Knex,
  pause = 500,
  lanes: Lanes = [...ownLanes, ...heavyLanes],
  told: Told = () => {},
): () => Promise<void> {
  const stops = lanes.map(kinds => startLane(db, kinds, pause, told))
  return async () => {
    await Promise.all(stops.map(stop => stop()))
  }
}

function startLane(db: Knex, kinds: readonly string[], pause: number, told: Told): () => Promise<void> {
  let stopped = false
  let abandon = (): void => {}
  const onAbandon = (give: () => void): void => {
    abandon = give
  }
  const rest = (): Promise<void> =>
    new Promise(resolve => {
      const timer = setTimeout(resolve, pause)
      onAbandon(() => {
        clearTimeout(timer)
        resolve()
      })
    })
  const sweep = kinds.includes('read') ? hourly(() => forgetOld(db)) : () => Promise.resolve()
  const next = async (): Promise<Job | null> => {
    try {
      await sweep()
      return await claimJob(db, kinds)
    } catch (error) {
      if (!stopped) logSeldom('no job could be claimed', error)
      return null
    }
  }
  const loop = async (): Promise<void> => {
    while (!stopped) {
      const job = await next()
      if (job) {
        told(job, true)
        await workOff(db, job, onAbandon)
        told(job, false)
      } else if (!stopped) await rest()
    }
  }
  const done = loop()
  return async () => {
    stopped = true
    abandon()
    await done
  }
}

/** Does something at most once an hour, however often it is asked. */
function hourly(work: () => Promise<void>): () => Promise<void> {
  let due = 0
  return async () => {
    if (Date.now() <= due) return
    due = Date.now() + hour
    await work()
  }
}
async function forgetOld(db: Knex): Promise<void> {
  await dropOldUploads(db)
  await dropOldJobs(db)
  await dropOldTurns(db)
  await dropOldSessions(db)
  await dropOldGuesses(db)
  await dropOldBrowsers(db)
  await destroyOverdue(db)
  await dropOldStates(db, await daysKept(db))
}
