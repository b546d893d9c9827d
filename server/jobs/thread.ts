import { Worker } from 'node:worker_threads'
import type { Knex } from 'knex'
import { logSeldom } from '../http/logger'
import { beat } from './jobs.queries'
import type { WorkerMessage, WorkerTask } from './worker'
import { workerFile } from './worker-file'

const limit = (name: string, normal: number): number => Number(process.env[name] || normal)
export type ThreadEnd = Extract<WorkerMessage, { type: 'done' | 'failed' }>
const failed = (problem: string): ThreadEnd => ({ type: 'failed', problem })
const failedBy = (error: unknown): ThreadEnd => {
  const isMemory = error instanceof Error && 'code' in error && error.code === 'ERR_WORKER_OUT_OF_MEMORY'
  return failed(
    isMemory
      ? 'It needs more memory than a file may take here. Nothing was kept.'
      : 'An error here stopped it. Nothing was changed; try again.',
  )
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
  const worker = new Worker(workerFile(), {
    workerData: task,
    resourceLimits: {
      maxOldGenerationSizeMb: limit('NORTHTIDE_LIMIT_READ_MEMORY_MB', 768),
      maxYoungGenerationSizeMb: 32,
    },
  })
  const progress = { done: 0, total: 0 }
  const end = new Promise<ThreadEnd | null>(resolve => {
    onAbandon(() => resolve(null))
    worker.on('message', (message: WorkerMessage) => {
      if (message.type === 'progress') Object.assign(progress, { done: message.done, total: message.total })
      else resolve(message)
    })
    worker.on('error', error => resolve(failedBy(error)))
    worker.on('exit', () => resolve(failed('It ended before it was done. Nothing was changed; try again.')))
    const tooLong = failed(
      `It took longer than ${seconds} seconds, which is more than a file may take here. Nothing was kept.`,
    )
    const timer = setTimeout(() => resolve(tooLong), seconds * 1000)
    timer.unref()
    const keepAlive = (): void => {
      // A beat may be missed: the lease lasts longer. One that says the job is not ours ends the work.
      beat(db, task.job, progress).then(
        ours => (ours ? undefined : resolve(null)),
        (error: unknown) => logSeldom('a beat was missed', error),
      )
    }
    const pulse = setInterval(keepAlive, 500)
    worker.once('exit', () => {
      clearTimeout(timer)
      clearInterval(pulse)
    })
  })
  const result = await end
  await worker.terminate()
  return result
}
