import type { Knex } from 'knex'
import { logSeldom } from '../http/logger'
import { beat } from './jobs.queries'
import type { WorkerMessage, WorkerTask } from '../work/worker'
import { startThread, ThreadFailed, type ThreadTrouble } from './in-thread'

const limit = (name: string, normal: number): number => Number(process.env[name] || normal)
export type ThreadEnd = Extract<WorkerMessage, { type: 'done' | 'failed' }>
const failed = (problem: string): ThreadEnd => ({ type: 'failed', problem })
const troubles: Readonly<Record<ThreadTrouble, (seconds: number) => string>> = {
  'too long': seconds =>
    `It took longer than ${seconds} seconds, which is more than a file may take here. Nothing was kept.`,
  'too much memory': () => 'It needs more memory than a file may take here. Nothing was kept.',
  ended: () => 'It ended before it was done. Nothing was changed; try again.',
}

/**
 * Runs the thread, beats for it, and stops it when it is cancelled, takes too long or too much memory. Null: the job is not
 * ours any more.
 */
export async function runThread(
  db: Knex,
  task: WorkerTask,
  onAbandon: (give: () => void) => void,
): Promise<ThreadEnd | null> {
  const seconds = limit('NORTHTIDE_LIMIT_READ_SECONDS', 600)
  const progress = { done: 0, total: 0 }
  const { ended, end } = startThread<WorkerMessage, ThreadEnd | null>({
    data: task,
    megabytes: limit('NORTHTIDE_LIMIT_READ_MEMORY_MB', 768),
    seconds,
    hear(message, done) {
      if (message.type === 'progress') Object.assign(progress, { done: message.done, total: message.total })
      else done(message)
    },
  })
  onAbandon(() => end(null))
  const keepAlive = (): void => {
    // A beat may be missed: the lease lasts longer. One that says the job is not ours ends the work.
    beat(db, task.job, progress).then(
      ours => (ours ? undefined : end(null)),
      (error: unknown) => logSeldom('a beat was missed', error),
    )
  }
  const pulse = setInterval(keepAlive, 500)
  try {
    return await ended
  } catch (error) {
    return failed(
      error instanceof ThreadFailed
        ? troubles[error.why](seconds)
        : 'An error here stopped it. Nothing was changed; try again.',
    )
  } finally {
    clearInterval(pulse)
  }
}
