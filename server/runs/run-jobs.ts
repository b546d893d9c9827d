import type { Knex } from 'knex'
import { z } from 'zod'
import type { RunStarted } from '../../shared/api/plans'
import type { RunStep } from '../../shared/api/writing'
import { isoInstant } from '../clock'
import { jsonOf, newId } from '../db/rows'
import { inTransaction } from '../db/transaction'
import { isAway } from '../db/trouble'
import { keptProblem } from '../errors/problem'
import { notFound, Refusal, refuse, type ToldRefusal } from '../errors/refusal'
import { log, logSeldom } from '../http/logger'
import { addJob, beat, cancelJobs, endJob, holdJob, type Job } from '../jobs/jobs.queries'
import { jobKind } from '../jobs/kind'
import { writeLog } from '../log/log.queries'
import { postMail } from '../mail/mail'
import { courseNames } from '../plans/sources'
import { emailOf, findPerson, type Person } from '../people/people.queries'
import { checkMayRun } from '../plans/access'
import { checkSourcesOpen } from '../plans/compile'
import { findPlan, lockPlan, sectionsOfPlan, writtenCourse } from '../plans/plans.queries'
import { latestRunJobs, runKinds, runsUnderWay } from '../run-facts/run-jobs.queries'
import { runPlan, type RunTold, type RunWatch } from './runs'

/** What a run was asked with. `runId`: made when it is asked for, so that whoever begins it again writes the same run. */
export const runAsked = z.object({
  runId: z.uuid(),
  fingerprint: z.string(),
  /** Where whoever reads of it by mail opens it. */
  origin: z.string(),
})
type Asked = z.infer<typeof runAsked>
type RunJob = Job<Asked>
/**
 * Asks for a run of a plan: it is done off the request, by whichever process comes first. Whoever asks twice has asked once.
 * @throws Refusal where it may not begin.
 */
export async function askForRun(
  db: Knex,
  person: Person,
  planId: string,
  { fingerprint, origin }: Pick<Asked, 'fingerprint' | 'origin'>,
): Promise<RunStarted> {
  const wanted = await findPlan(db, planId)
  if (!wanted) throw notFound('This plan')
  const course = writtenCourse(wanted)
  // A run that goes on holds the plan and its shell: nobody waits for those only to be told so.
  const running = await underWay(db, planId, course)
  if (running) return running
  return inTransaction(db, async trx => {
    const plan = await lockPlan(trx, planId)
    if (!plan) throw notFound('This plan')
    if (plan.state === 'run') throw refuse('run-already')
    await checkMayRun(trx, person, plan, await sectionsOfPlan(trx, plan))
    await checkSourcesOpen(trx, plan)
    const again = await underWay(trx, planId, course)
    if (again) return again
    const runId = newId()
    const payload: Asked = { runId, fingerprint, origin }
    await addJob(trx, { kind: 'run', subject: planId, personId: person.id, payload })
    return { id: runId }
  })
}
/** The run of a plan that waits or goes on; null where none does. @throws Refusal where another plan is run into its course */
async function underWay(db: Knex, planId: string, course: string): Promise<RunStarted | null> {
  const [under] = await runsUnderWay(db, [course])
  if (!under) return null
  const [latest] = under.planId === planId ? await latestRunJobs(db, [planId]) : []
  if (latest) return { id: runAsked.parse(jsonOf(latest.payload)).runId }
  throw refuse('somebody-is-writing', { by: under.by, since: isoInstant(under.since).slice(11, 16) })
}
/** Stops a run that has not been written yet. @throws Refusal where it has. */
export async function cancelRun(db: Knex, person: Person, planId: string): Promise<void> {
  await inTransaction(db, async trx => {
    const stopped = await cancelJobs(trx, planId, runKinds)
    if (stopped > 0)
      return writeLog(trx, {
        action: 'plan.run-cancelled',
        personId: person.id,
        ...(await placeOf(trx, planId)),
      })
    const plan = await findPlan(trx, planId)
    if (plan?.state === 'run') throw refuse('run-already')
  })
}
const placeOf = async (trx: Knex, planId: string): Promise<{ planId: string; courseId?: string }> => {
  const plan = await findPlan(trx, planId)
  return { planId, ...(plan && { courseId: writtenCourse(plan) }) }
}
/** The job is not ours any more: somebody stopped it, or another process has taken it over. Nothing is kept of what was done. */
class GivenUp extends Error {}
const beatEvery = 300
/** Why a run wrote nothing, as it is told. */
type Told = Pick<ToldRefusal, 'title' | 'detail'>
/** Who is told how a run ended, within the transaction in which it ends. */
export interface RunEnd {
  readonly done: (trx: Knex, job: RunJob, run: RunTold & { runId: string }) => Promise<void>
  readonly failed: (trx: Knex, job: RunJob, why: Told, courseId: string) => Promise<void>
}
/** Whoever asked for the run is told by mail. */
const byMail: RunEnd = {
  done: (trx, job, { title, lines }) => tellBy(trx, job, title, lines),
  failed: async (trx, job, { title, detail = '' }, courseId) =>
    tellBy(trx, job, `Nothing was written into ${await courseNames(trx, [courseId])}`, [`${title}.`, detail]),
}
/** Tells how far a run is, and stops it where it is not ours any more. */
function watchOf(db: Knex, job: RunJob, end: RunEnd): RunWatch & { stop: () => void } {
  const progress: { step: RunStep; done: number; total: number } = { step: 'reads', done: 0, total: 0 }
  let isOurs = true
  let last = 0
  let beats: Promise<unknown> = Promise.resolve()
  const keepAlive = (): void => {
    last = Date.now()
    // A beat may be missed: the lease lasts longer.
    beats = beat(db, job, progress).then(
      ours => (isOurs &&= ours),
      (error: unknown) => logSeldom('a beat was missed', error),
    )
  }
  keepAlive()
  const pulse = setInterval(keepAlive, beatEvery)
  const stop = (): void => clearInterval(pulse)
  return {
    stop,
    async at(step, done, total) {
      Object.assign(progress, { step, done, total })
      if (Date.now() - last >= beatEvery) keepAlive()
      await beats
      if (!isOurs) throw new GivenUp()
    },
    /** From here on nobody stops it: the job's row is held until all is written, and ends with it. */
    async finish(trx, done) {
      stop()
      await beats
      if (!(await holdJob(trx, job))) throw new GivenUp()
      await endJob(trx, job, 'done')
      await end.done(trx, job, { ...done, runId: job.payload.runId })
    },
  }
}
async function tellBy(trx: Knex, job: RunJob, subject: string, lines: readonly string[]): Promise<void> {
  const { origin } = job.payload
  const recipient = job.personId && (await emailOf(trx, job.personId))
  if (!recipient) return
  const link = `${origin}/plans/${job.subject}/run`
  await postMail(trx, job.personId, {
    recipient,
    replyTo: null,
    subject,
    body: `${[...lines, `Open it here: ${link}`].join('\n\n')}\n`,
  })
}

/** Does a run that was asked for. What it wrote and that it is done are committed at once, so that a run begun again is either done or not begun. */
export async function workOffRun(db: Knex, job: RunJob, end: RunEnd = byMail): Promise<void> {
  const { runId, fingerprint } = job.payload
  const person = job.personId === null ? null : await findPerson(db, job.personId)
  const watch = watchOf(db, job, end)
  try {
    if (!person) throw notFound('Whoever asked for this run')
    await runPlan(db, person, job.subject, fingerprint, { runId, watch })
  } catch (error) {
    if (error instanceof GivenUp) return
    // The database is away, or went while it committed: its lease ends, and whoever takes the job finds whether it was done.
    if (isAway(error) || (error instanceof Refusal && error.code === 'outcome-unknown')) {
      logSeldom('the database went away during a run', error)
      return
    }
    await endBadly(db, job, error, end)
  } finally {
    watch.stop()
  }
}
async function endBadly(db: Knex, job: RunJob, error: unknown, end: RunEnd): Promise<void> {
  const told: Told =
    error instanceof Refusal
      ? error.told
      : {
          title: 'The run failed because of an error here',
          detail: 'Nothing was written. Tell the help desk if it happens again.',
        }
  if (!(error instanceof Refusal)) log.error({ err: error, job: job.id }, 'a run failed')
  await inTransaction(db, async trx => {
    const problem = keptProblem({ title: told.title, detail: told.detail ?? 'Nothing was written.' })
    if (!(await endJob(trx, job, 'failed', problem))) return
    const plan = await findPlan(trx, job.subject)
    const person = job.personId
    if (!plan || person === null) return
    const courseId = writtenCourse(plan)
    await writeLog(trx, {
      action: 'plan.run-failed',
      personId: person,
      planId: plan.id,
      courseId,
      detail: { why: told.title },
    })
    await end.failed(trx, job, told, courseId)
  })
}

/** A run beats often, and is wanted soon: where its process was killed, another goes on with it within seconds. */
export const runJob = jobKind({
  lane: 'run',
  isHeavy: true,
  leaseSeconds: 4,
  triesAtMost: 6,
  payload: runAsked,
  work: (db, job) => workOffRun(db, job),
})
