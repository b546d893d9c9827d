import { createWriteStream } from 'node:fs'
import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import type { Knex } from 'knex'
import { endOfPair, tryPair, undoPair, watchBatch } from '../batches/pair-jobs'
import { findUpload, partsOf } from '../exchange/uploads.queries'
import { log, logSeldom } from '../http/logger'
import { sendMailJob } from '../mail/mail'
import { downloadBundle } from '../registrar/download'
import { endFetch, lastEtag } from '../registrar/fetches.queries'
import { fetchProblem } from '../registrar/registrar'
import { workOffRun } from '../runs/run-jobs'
import { inTransaction } from '../db/transaction'
import { keepSearchable } from '../search/index.queries'
import { ownText } from '../search/plain-text'
import { beat, endJob, postponeJob, type Job } from './jobs.queries'
import { runThread } from './thread'

/** Tells how the work may be given up from outside. */
type OnAbandon = (give: () => void) => void

/** Does one job, and ends it whatever happens. */
export async function workOff(db: Knex, job: Job, onAbandon: OnAbandon): Promise<void> {
  if (job.kind === 'run') return workOffRun(db, job)
  if (job.kind === 'batch-run') return workOffRun(db, job, endOfPair)
  if (job.kind === 'batch-try') return tryPair(db, job)
  if (job.kind === 'batch-undo') return undoPair(db, job)
  if (job.kind === 'batch') return watchBatch(db, job)
  if (job.kind === 'index') return workOffIndex(db, job)
  return workOffFile(db, job, onAbandon)
}
/** Makes a course ready to be searched. What it would find is there at the latest when the next person looks for it by words. */
async function workOffIndex(db: Knex, job: Job): Promise<void> {
  try {
    await inTransaction(db, trx => keepSearchable(trx, job.subject, ownText))
    await endJob(db, job, 'done')
  } catch (error) {
    logSeldom('a course could not be made ready to be searched', error)
    await postponeJob(db, job, 30, 'It could not be done; it is tried again.')
  }
}
async function workOffFile(db: Knex, job: Job, onAbandon: OnAbandon): Promise<void> {
  const folder = await mkdtemp(join(tmpdir(), 'northtide-'))
  const path = join(folder, 'file')
  try {
    if (job.kind === 'mail') await sendMailJob(db, job)
    else if (job.kind === 'fetch') await workOffFetch(db, job, path, onAbandon)
    else await workOffUpload(db, job, path, onAbandon)
  } catch (error) {
    log.error({ err: error, job: job.id, kind: job.kind }, 'a job failed')
    await endJob(db, job, 'failed', 'An error here stopped it. Nothing was changed; try again.').catch(
      (lost: unknown) => log.error({ err: lost, job: job.id }, 'a job could not be ended; its lease will'),
    )
  } finally {
    await rm(folder, { recursive: true, force: true })
  }
}

/** Reads an upload, or brings it in, in a thread of its own. */
async function workOffUpload(db: Knex, job: Job, path: string, onAbandon: OnAbandon): Promise<void> {
  const upload = await findUpload(db, job.subject)
  if (!upload) {
    await endJob(db, job, 'failed', 'The file is not here any more.')
    return
  }
  await pipeline(Readable.from(partsOf(db, job.subject)), createWriteStream(path, { mode: 0o600 }))
  const end = await runThread(db, { job, name: upload.name, path }, onAbandon)
  if (end?.type === 'failed') await endJob(db, job, 'failed', end.problem)
  else if (end) await endJob(db, job, 'done')
}

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
  const end = await runThread(db, { job, name: 'registrar.zip', path, etag: bundle.etag }, onAbandon)
  if (end?.type === 'failed') await failed(end.problem)
  else if (end) await endJob(db, job, 'done')
}
