import { createWriteStream, existsSync } from 'node:fs'
import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { Worker } from 'node:worker_threads'
import type { Knex } from 'knex'
import { beat, claimJob, dropOldJobs, endJob, type Job } from './jobs.queries'
import { endFetch, lastMark } from '../registrar/roster.queries'
import { dropOldUploads, findUpload, partsOf } from '../exchange/uploads.queries'
import { sendMailJob } from '../mail/mail'
import { downloadBundle, fetchProblem } from '../registrar/registrar'
import type { WorkerMessage, WorkerTask } from './worker'

const number = (name: string, normal: number): number => Number(process.env[name] || normal)
/** Where the bundle of `worker.ts` lies: beside the application, unless NORTHTIDE_WORKER says otherwise. */
const workerFile = (): string =>
  process.env.NORTHTIDE_WORKER ?? join(dirname(process.argv[1] ?? '.'), 'worker.mjs')

/** Kinds of jobs that wait for one another: a registrar who is slow keeps no file waiting, and neither keeps mail. */
const lanes = [['read', 'take'], ['fetch'], ['mail']] as const
/**
 * Works jobs off, one at a time in each lane. Any number of processes may do so against one database. Returns how to stop; what was begun
 * then is taken up by another process, or by this one when it is back, once its lease has run out.
 */
export function startRunner(db: Knex, pause = 500): () => Promise<void> {
  const stops = lanes.map(kinds => startLane(db, kinds, pause))
  return async () => {
    await Promise.all(stops.map(stop => stop()))
  }
}

function startLane(db: Knex, kinds: readonly string[], pause: number): () => Promise<void> {
  let stopped = false
  let abandon = (): void => {}
  let sweep = 0
  const loop = async (): Promise<void> => {
    while (!stopped) {
      try {
        if (kinds.includes('read') && Date.now() > sweep) {
          sweep = Date.now() + 3_600_000
          await dropOldUploads(db)
          await dropOldJobs(db)
        }
        const job = await claimJob(db, kinds)
        if (job) {
          await workOff(db, job, give => {
            abandon = give
          })
          continue
        }
      } catch (error) {
        if (!stopped) console.error('jobs', error)
      }
      if (!stopped)
        await new Promise<void>(resolve => {
          const timer = setTimeout(resolve, pause)
          abandon = () => {
            clearTimeout(timer)
            resolve()
          }
        })
    }
  }
  const done = loop()
  return async () => {
    stopped = true
    abandon()
    await done
  }
}

/** Does one job, and ends it whatever happens. */
async function workOff(db: Knex, job: Job, onAbandon: (give: () => void) => void): Promise<void> {
  if (job.kind === 'mail') return sendMailJob(db, job)
  const folder = await mkdtemp(join(tmpdir(), 'northtide-'))
  try {
    await (job.kind === 'fetch' ? workOffFetch : workOffUpload)(db, job, join(folder, 'file'), onAbandon)
  } catch (error) {
    console.error(`job ${job.kind} ${job.id}`, error)
    await endJob(db, job, 'failed', 'An error here stopped it. Nothing was changed; try again.')
  } finally {
    await rm(folder, { recursive: true, force: true })
  }
}

/** Reads an upload, or takes it in, in a thread of its own. */
async function workOffUpload(
  db: Knex,
  job: Job,
  path: string,
  onAbandon: (give: () => void) => void,
): Promise<void> {
  const upload = await findUpload(db, job.subject)
  if (!upload) return void (await endJob(db, job, 'failed', 'The file is not here any more.'))
  await pipeline(Readable.from(partsOf(db, job.subject)), createWriteStream(path, { mode: 0o600 }))
  const end = await runThread(db, { job, name: upload.name, path }, onAbandon)
  if (end !== null)
    await endJob(db, job, end.type === 'done' ? 'done' : 'failed', end.type === 'failed' ? end.problem : null)
}

/** Fetches the registrar's list, and takes it in in a thread of its own. */
async function workOffFetch(
  db: Knex,
  job: Job,
  path: string,
  onAbandon: (give: () => void) => void,
): Promise<void> {
  const failed = async (problem: string): Promise<void> => {
    if (await endJob(db, job, 'failed', problem))
      await endFetch(db, job.subject, { state: 'failed', problem })
  }
  let got = 0
  // A slow registrar is waited for: the lease must not run out meanwhile.
  const pulse = setInterval(
    () =>
      void beat(db, job, { done: got, total: 0 }).catch(() => {
        /* the lease lasts longer than one missed beat */
      }),
    5000,
  )
  const abandoned = new AbortController()
  onAbandon(() => abandoned.abort())
  let bundle: { mark: string } | null
  try {
    bundle = await downloadBundle(
      db,
      path,
      bytes => {
        got = bytes
      },
      abandoned.signal,
    )
  } catch (error) {
    return abandoned.signal.aborted ? undefined : failed(fetchProblem(error))
  } finally {
    clearInterval(pulse)
  }
  if (bundle === null) {
    await endFetch(db, job.subject, { state: 'same', mark: await lastMark(db) })
    return void (await endJob(db, job, 'done'))
  }
  const end = await runThread(db, { job, name: 'registrar.zip', path, mark: bundle.mark }, onAbandon)
  if (end?.type === 'failed') return failed(end.problem)
  if (end !== null) await endJob(db, job, 'done')
}

type End = Extract<WorkerMessage, { type: 'done' | 'failed' }>
/** Runs the thread, beats for it, and stops it when it is cancelled, takes too long or too much memory. Null: the job is not ours any more. */
async function runThread(
  db: Knex,
  task: WorkerTask,
  onAbandon: (give: () => void) => void,
): Promise<End | null> {
  const file = workerFile()
  if (!existsSync(file)) throw new Error(`the worker ${file} is not there; npm run build makes it`)
  const seconds = number('NORTHTIDE_LIMIT_READ_SECONDS', 600)
  const worker = new Worker(file, {
    workerData: task,
    resourceLimits: {
      maxOldGenerationSizeMb: number('NORTHTIDE_LIMIT_READ_MEMORY_MB', 768),
      maxYoungGenerationSizeMb: 32,
    },
  })
  const progress = { done: 0, total: 0 }
  const end = new Promise<End | null>(resolve => {
    onAbandon(() => resolve(null))
    worker.on('message', (message: WorkerMessage) => {
      if (message.type === 'progress') Object.assign(progress, { done: message.done, total: message.total })
      else resolve(message)
    })
    worker.on('error', (error: Error & { code?: string }) =>
      resolve({
        type: 'failed',
        problem:
          error.code === 'ERR_WORKER_OUT_OF_MEMORY'
            ? 'It needs more memory than a file may take here. Nothing was kept.'
            : 'An error here stopped it. Nothing was changed; try again.',
      }),
    )
    worker.on('exit', () =>
      resolve({ type: 'failed', problem: 'It ended before it was done. Nothing was changed; try again.' }),
    )
    const limit = setTimeout(
      () =>
        resolve({
          type: 'failed',
          problem: `It took longer than ${seconds} seconds, which is more than a file may take here. Nothing was kept.`,
        }),
      seconds * 1000,
    )
    limit.unref()
    const pulse = setInterval(
      () =>
        void beat(db, task.job, progress).then(
          ours => (ours ? undefined : resolve(null)),
          () => {
            /* a missed beat; the lease lasts longer */
          },
        ),
      500,
    )
    const calm = (): void => {
      clearTimeout(limit)
      clearInterval(pulse)
    }
    worker.once('exit', calm)
  })
  const result = await end
  await worker.terminate()
  return result
}
