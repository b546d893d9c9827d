// A thread of its own for one job: what is read may be large, slow or made to do harm, and must not hold anybody up.
import { parentPort, workerData } from 'node:worker_threads'
import { FormatRefusal } from '../../core/formats/findings'
import { addressFromEnvironment, connect } from '../db/connection'
import type { Job } from './jobs.queries'
import { loadTermZone, saveReport } from '../exchange/uploads.queries'
import { limitsFromEnvironment } from '../exchange/files/limits'
import { readFile } from '../exchange/files/read'
import { fileSource } from '../exchange/files/zip'
import { fetchProblem, takeFetched } from '../registrar/registrar'
import { takeProblem, takeUpload } from '../exchange/uploads'
import { wallSeconds } from '../calendars/zones'

/** What a thread is given: the job, and where the bytes of its file lie. */
export interface WorkerTask {
  job: Job
  name: string
  path: string
  /** Of a registrar's list: its mark (ETag). */ mark?: string
}
export type WorkerMessage =
  { type: 'progress'; done: number; total: number } | { type: 'done' } | { type: 'failed'; problem: string }

const { job, name, path, mark } = workerData as WorkerTask
const say = (message: WorkerMessage): void => parentPort!.postMessage(message)
let told = 0
const progress = (done: number, total: number): void => {
  if (Date.now() - told < 100) return
  told = Date.now()
  say({ type: 'progress', done, total })
}

const db = connect(addressFromEnvironment())
const source = fileSource(path)
const limits = limitsFromEnvironment()
try {
  if (job.kind === 'read') {
    const zone = await loadTermZone(db)
    await saveReport(
      db,
      job.subject,
      await readFile(name, source, { limits, progress, local: zone === null ? null : wallSeconds(zone) }),
      job,
    )
  } else if (job.kind === 'fetch') await takeFetched(db, job, mark!, source, limits, progress)
  else await takeUpload(db, job, source, limits, progress)
  say({ type: 'done' })
} catch (error) {
  console.error(`job ${job.kind} ${job.id}`, error instanceof FormatRefusal ? error.message : error)
  say({
    type: 'failed',
    problem:
      job.kind === 'fetch'
        ? fetchProblem(error)
        : job.kind === 'take'
          ? takeProblem(error)
          : 'It could not be read because of an error here. Nothing was kept; try again, and tell the help desk if it happens again.',
  })
} finally {
  source.close()
  await db.destroy()
}
