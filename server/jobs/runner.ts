import type { Knex } from 'knex'
import { present } from '../../core/present'
import { logSeldom } from '../http/logger'
import { claimJob, type HeldJob, type Job } from './jobs.queries'
import type { JobKinds } from './kind'

/** Told of a job when it is begun and when it is let go. */
type Told = (job: HeldJob, isHeld: boolean) => void
export interface Runner {
  /** How long a lane rests where nothing waits, in milliseconds. */
  readonly pause: number
  readonly told?: Told
}
/** Kinds by the lanes in which their jobs wait for one another. */
function lanesOf(kinds: JobKinds): JobKinds[] {
  const lanes = new Map<string, JobKinds>()
  for (const [name, kind] of Object.entries(kinds))
    lanes.set(kind.lane, { ...lanes.get(kind.lane), [name]: kind })
  return [...lanes.values()]
}
/**
 * Works jobs off, one at a time in each lane. Any number of processes may do so against one database. Returns how to stop; what was begun
 * then is continued by another process, or by this one when it is back, once its lease has run out.
 */
export function startRunner(
  db: Knex,
  kinds: JobKinds,
  { pause, told = () => {} }: Runner,
): () => Promise<void> {
  const stops = lanesOf(kinds).map(lane => startLane(db, lane, pause, told))
  return async () => {
    await Promise.all(stops.map(stop => stop()))
  }
}

function startLane(db: Knex, kinds: JobKinds, pause: number, told: Told): () => Promise<void> {
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
  const next = async (): Promise<Job | null> => {
    try {
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
        await present(kinds[job.kind]).work(db, job, onAbandon)
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
