import type { Knex } from 'knex'
import { log, logSeldom } from '../http/logger'
import { startThread, type Thread } from './in-thread'
import { keepLease, type HeldJob } from './jobs.queries'
import type { HeavyMessage, HeavyTold } from '../work/worker'

const beatEvery = 1000
/**
 * Begins the thread in which this process works off what takes a core: runs, and what makes courses ready to be searched. While the thread
 * computes it can say nothing, so that its leases are kept from here; where the whole process is killed they end within seconds. A thread
 * that dies is begun anew. Returns how to stop it.
 */
export function startHeavyThread(db: Knex): () => Promise<void> {
  let stopped = false
  let thread: Thread<void> | null = null
  const held = new Map<string, HeldJob>()
  function begin(): void {
    const begun = startThread<HeavyMessage, void>({
      data: { heavy: true },
      hear: ({ job, isHeld }) => (isHeld ? held.set(job.id, job) : held.delete(job.id)),
    })
    thread = begun
    begun.ended
      .catch((error: unknown) => {
        if (!stopped) log.error({ err: error }, 'the thread of the runs failed')
      })
      .finally(() => {
        thread = null
        held.clear()
        if (!stopped) setTimeout(begin, 1000).unref()
      })
  }
  begin()
  const pulse = setInterval(() => {
    for (const job of held.values())
      keepLease(db, job).catch((error: unknown) => logSeldom('a beat was missed', error))
  }, beatEvery)
  return async () => {
    stopped = true
    clearInterval(pulse)
    thread?.tell('stop' satisfies HeavyTold)
    // It ends by itself, once what it does is done.
    await thread?.ended.catch(() => {})
  }
}
