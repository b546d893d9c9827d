import { Worker } from 'node:worker_threads'
import type { Knex } from 'knex'
import { log, logSeldom } from '../http/logger'
import { keepLease, type HeldJob } from './jobs.queries'
import type { HeavyMessage, HeavyTold } from './worker'
import { workerFile } from './worker-file'

const beatEvery = 1000
/**
 * Begins the thread in which this process works off what takes a core: runs, and what makes courses ready to be searched. While the thread
 * computes it can say nothing, so that its leases are kept from here; where the whole process is killed they end within seconds. A thread
 * that dies is begun anew. Returns how to stop it.
 */
export function startHeavyThread(db: Knex): () => Promise<void> {
  let stopped = false
  let worker: Worker | null = null
  const held = new Map<string, HeldJob>()
  const begin = (): void => {
    const thread = new Worker(workerFile(), { workerData: { heavy: true } })
    worker = thread
    thread.on('message', ({ job, isHeld }: HeavyMessage) =>
      isHeld ? held.set(job.id, job) : held.delete(job.id),
    )
    thread.on('error', error => log.error({ err: error }, 'the thread of the runs failed'))
    thread.on('exit', () => {
      worker = null
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
    const thread = worker
    if (!thread) return
    const gone = new Promise<void>(resolve => thread.once('exit', () => resolve()))
    thread.postMessage('stop' satisfies HeavyTold)
    await gone
  }
}
