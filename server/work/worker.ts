// A thread of its own for one job: what is read may be large, slow or made to do harm, and must not hold anybody up.
import { parentPort, workerData } from 'node:worker_threads'
import { FormatRefusal } from '../../core/formats/refusal'
import { messageOf } from '../../core/message'
import { makeShown } from '../courses/shown/body'
import type { ShownTask } from '../courses/shown/thread'
import { addressFromEnvironment, connect } from '../db/connection'
import { Refusal } from '../errors/refusal'
import { limitsFromEnvironment } from '../exchange/files/limits'
import { fileSource } from '../exchange/files/zip'
import { log } from '../http/logger'
import { searchTraces } from '../student-data/traces'
import type { HeldJob, Job } from '../jobs/jobs.queries'
import type { JobFile, JobKinds } from '../jobs/kind'
import { startRunner } from '../jobs/runner'
import { heavyKinds, jobKinds } from './kinds'

/** What a thread is given: the job, and its file. */
export interface WorkerTask {
  job: Job
  file: JobFile
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

const limits = limitsFromEnvironment()

/** Works on a job's file, and says how that ended. */
async function doJob({ job, file }: WorkerTask): Promise<void> {
  const { inThread } = (jobKinds as JobKinds)[job.kind] ?? {}
  if (!inThread) throw new Error(`no thread does jobs of the kind ${job.kind}`)
  const db = connect(addressFromEnvironment())
  const source = fileSource(file.path)
  try {
    await inThread.run(db, job, { ...file, source, limits, progress })
    say({ type: 'done' })
  } catch (error) {
    const isExpected = error instanceof FormatRefusal || error instanceof Refusal
    const why = isExpected ? { why: error.code } : { err: error }
    log[isExpected ? 'info' : 'error']({ job: job.id, kind: job.kind, ...why }, 'a job came to nothing')
    say({ type: 'failed', problem: inThread.problem(error) })
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
  const stop = startRunner(db, heavyKinds, {
    pause: 150,
    told: ({ id, token, leaseSeconds }, isHeld) =>
      parentPort?.postMessage({ job: { id, token, leaseSeconds }, isHeld } satisfies HeavyMessage),
  })
  // The one thing that it is told is to stop.
  await new Promise<HeavyTold>(resolve => parentPort?.once('message', resolve))
  await stop()
  await db.destroy()
  parentPort?.close()
}

const given = workerData as
  WorkerTask | { shown: ShownTask } | { traces: { planId: string } } | { heavy: true }
if ('shown' in given) parentPort?.postMessage(makeShown(given.shown.bytes, given.shown.form))
else if ('heavy' in given) await workHeavy()
else if ('traces' in given) await search(given.traces.planId)
else await doJob(given)
