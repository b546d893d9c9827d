import type { Knex } from 'knex'
import { z } from 'zod'
import { logSeldom } from '../http/logger'
import { withFile } from '../jobs/file-job'
import { beat, endJob, type Job } from '../jobs/jobs.queries'
import { jobKind, type OnAbandon } from '../jobs/kind'
import { runThread } from '../jobs/thread'
import { downloadBundle } from './download'
import { endFetch, lastEtag } from './fetches.queries'
import { fetchProblem, importFetched } from './registrar'

/** Downloads the registrar's list while the job is kept alive: a slow registrar is waited for, and the lease must not run out. */
async function download(db: Knex, job: Job, path: string, abandoned: AbortSignal) {
  let done = 0
  const keepAlive = (): void => {
    // The lease lasts longer than one missed beat.
    beat(db, job, { done, total: 0 }).catch((error: unknown) => logSeldom('a beat was missed', error))
  }
  const pulse = setInterval(keepAlive, 5000)
  const count = (bytes: number): void => {
    done = bytes
  }
  try {
    return await downloadBundle(db, path, count, abandoned)
  } finally {
    clearInterval(pulse)
  }
}
/** Fetches the registrar's list, and brings it in in a thread of its own. */
async function workOffFetch(db: Knex, job: Job, path: string, onAbandon: OnAbandon): Promise<void> {
  const failed = async (problem: string): Promise<void> => {
    const ended = await endJob(db, job, 'failed', problem)
    if (ended) await endFetch(db, job.subject, { state: 'failed', problem })
  }
  const abandoned = new AbortController()
  onAbandon(() => abandoned.abort())
  let bundle: { etag: string } | null
  try {
    bundle = await download(db, job, path, abandoned.signal)
  } catch (error) {
    if (!abandoned.signal.aborted) await failed(fetchProblem(error))
    return
  }
  if (bundle === null) {
    await endFetch(db, job.subject, { state: 'same', etag: await lastEtag(db) })
    await endJob(db, job, 'done')
    return
  }
  const file = { name: 'registrar.zip', path, etag: bundle.etag }
  const end = await runThread(db, { job, file }, onAbandon)
  if (end?.type === 'failed') await failed(end.problem)
  else if (end) await endJob(db, job, 'done')
}
/** Fetches the registrar's list where it has changed, and brings it in. A registrar who is slow keeps no file waiting. */
export const fetchJob = jobKind({
  lane: 'fetch',
  isHeavy: false,
  leaseSeconds: 30,
  triesAtMost: 3,
  payload: z.object({}),
  work: (db, job, onAbandon) => withFile(db, job, path => workOffFetch(db, job, path, onAbandon)),
  inThread: {
    run: (db, job, { source, limits, progress, etag = '' }) =>
      importFetched(db, job, etag, source, limits, progress),
    problem: fetchProblem,
  },
})
