import type { z } from 'zod'
import { batchRunJob, batchTryJob, batchUndoJob, batchWatchJob } from '../batches/jobs'
import { importJob, readJob } from '../exchange/file-jobs'
import type { JobKind } from '../jobs/kind'
import { mailJob } from '../mail/mail'
import { fetchJob } from '../registrar/fetch-job'
import { runJob } from '../runs/run-jobs'
import { indexJob } from '../search/index-job'

/**
 * Every kind of job, by its name in the database. A new one is a definition beside what it does, and a line here: what waits is taken from
 * this list, and nothing else says how it is done.
 */
export const jobKinds = {
  read: readJob,
  import: importJob,
  fetch: fetchJob,
  mail: mailJob,
  batch: batchWatchJob,
  run: runJob,
  index: indexJob,
  'batch-try': batchTryJob,
  'batch-run': batchRunJob,
  'batch-undo': batchUndoJob,
}
type Kinds = typeof jobKinds
type JobName = keyof Kinds
type PayloadOf<K> = K extends JobKind<infer P> ? z.input<P> : never
/** A job as it is asked for: with what its kind wants to know. */
export type NewJob = {
  [N in JobName]: {
    readonly kind: N
    readonly subject: string
    readonly personId: string | null
    readonly payload: PayloadOf<Kinds[N]>
  }
}[JobName]

const kindsThat = (is: (kind: JobKind) => boolean): Partial<Kinds> =>
  Object.fromEntries(Object.entries(jobKinds).filter(([, kind]) => is(kind as JobKind)))
/** Kinds that are done beside requests, and those that take a core and are done in the thread of the runs. */
export const lightKinds = kindsThat(({ isHeavy }) => !isHeavy)
export const heavyKinds = kindsThat(({ isHeavy }) => isHeavy)
