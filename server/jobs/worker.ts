// A thread of its own for one job: what is read may be large, slow or made to do harm, and must not hold anybody up.
import { parentPort, workerData } from 'node:worker_threads'
import type { Knex } from 'knex'
import { FormatRefusal } from '../../core/formats/refusal'
import { messageOf } from '../../core/message'
import { latestZone } from '../calendars/terms.queries'
import { wallSeconds } from '../calendars/zones'
import { makeReadable } from '../courses/readable-body'
import type { ReadableTask } from '../courses/readable-thread'
import { addressFromEnvironment, connect } from '../db/connection'
import { Refusal } from '../errors/refusal'
import { limitsFromEnvironment } from '../exchange/files/limits'
import { readFile } from '../exchange/files/read'
import { fileSource, type Source } from '../exchange/files/zip'
import { importProblem, importUpload } from '../exchange/import-file'
import { saveReport } from '../exchange/uploads.queries'
import { log } from '../http/logger'
import { fetchProblem, importFetched } from '../registrar/registrar'
import { searchTraces } from '../student-data/traces'
import type { HeldJob, Job } from './jobs.queries'
import { heavyLanes, startRunner } from './runner'

/** What a thread is given: the job, and where the bytes of its file lie. */
export interface WorkerTask {
  job: Job
  name: string
  path: string
  /** Of a registrar's list. */
  etag?: string
}
/** What the thread of the runs says: which job it holds, or no longer. */
export interface HeavyMessage {
  job: HeldJob
  isHeld: boolean
}
/** What the thread of the runs is told. */
export type HeavyTold = 'stop'
export type WorkerMessage =
  { type: 'progress'; done: number; total: number } | { type: 'done' } | { type: 'failed'; problem: string }

const say = (message: WorkerMessage): void => parentPort?.postMessage(message)
let told = 0
const progress = (done: number, total: number): void => {
  if (Date.now() - told < 100) return
  told = Date.now()
  say({ type: 'progress', done, total })
}

/** How each kind of job is done, and what a person is told where it fails. */
interface Work {
  run: (db: Knex, source: Source) => Promise<void>
  problem: (error: unknown) => string
}
const limits = limitsFromEnvironment()
const worksFor = ({ job, name, etag = '' }: WorkerTask): Record<string, Work> => ({
  read: {
    async run(db, source) {
      const zone = await latestZone(db)
      const local = zone === null ? null : wallSeconds(zone)
      await saveReport(db, job.subject, await readFile(name, source, { limits, progress, local }), job)
    },
    problem: () =>
      'The file could not be read because of an error here. Nothing was kept; try again, and tell the help desk if it happens again.',
  },
  import: {
    run: (db, source) => importUpload(db, job, source, limits, progress),
    problem: importProblem,
  },
  fetch: {
    run: (db, source) => importFetched(db, job, etag, source, limits, progress),
    problem: fetchProblem,
  },
})

/** Does one job and says how it ended. */
async function doJob(task: WorkerTask): Promise<void> {
  const { job } = task
  const work = worksFor(task)[job.kind]
  if (!work) throw new Error(`no thread does jobs of the kind ${job.kind}`)
  const db = connect(addressFromEnvironment())
  const source = fileSource(task.path)
  try {
    await work.run(db, source)
    say({ type: 'done' })
  } catch (error) {
    const isExpected = error instanceof FormatRefusal || error instanceof Refusal
    const why = isExpected ? { why: error.code } : { err: error }
    log[isExpected ? 'info' : 'error']({ job: job.id, kind: job.kind, ...why }, 'a job came to nothing')
    say({ type: 'failed', problem: work.problem(error) })
  } finally {
    source.close()
    await db.destroy()
  }
}

/** Searches a plan's texts for traces of students, and says that it is done. */
async function search(planId: string): Promise<void> {
  const db = connect(addressFromEnvironment())
  try {
    await searchTraces(db, planId)
    parentPort?.postMessage({})
  } catch (error) {
    log.error({ err: error, plan: planId }, 'a search for traces failed')
    parentPort?.postMessage({ problem: messageOf(error) })
  } finally {
    await db.destroy()
  }
}

/** Works off the jobs that take a core, until the process that began this thread says that it is enough. */
async function workHeavy(): Promise<void> {
  const db = connect(addressFromEnvironment())
  const stop = startRunner(db, 150, heavyLanes, ({ id, kind, token }, isHeld) =>
    parentPort?.postMessage({ job: { id, kind, token }, isHeld } satisfies HeavyMessage),
  )
  // The one thing that it is told is to stop.
  await new Promise<HeavyTold>(resolve => parentPort?.once('message', resolve))
  await stop()
  await db.destroy()
  parentPort?.close()
}

const given = workerData as
  WorkerTask | { readable: ReadableTask } | { traces: { planId: string } } | { heavy: true }
if ('readable' in given) parentPort?.postMessage(makeReadable(given.readable.bytes, given.readable.form))
else if ('heavy' in given) await workHeavy()
else if ('traces' in given) await search(given.traces.planId)
else await doJob(given)
