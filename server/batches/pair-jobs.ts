import type { Knex } from 'knex'
import type { Effect } from '../../core/plan/effect'
import { arriving, lostCount } from '../../core/plan/effect-text'
import { settleBesideDates, settleTexts } from '../../core/plan/to-settle'
import type { EffectReply } from '../../shared/api/plans'
import type { UndoReply } from '../../shared/api/undo'
import { present } from '../../core/present'
import { stampOf, now } from '../clock'
import { counted } from '../../core/dates/words'
import { json } from '../db/rows'
import { inTransaction } from '../db/transaction'
import { isAway } from '../db/trouble'
import { Refusal } from '../errors/refusal'
import { log, logSeldom } from '../http/logger'
import { endJob, holdJob, postponeJob, type Job } from '../jobs/jobs.queries'
import { writeLog } from '../log/log.queries'
import { postMail } from '../mail/mail'
import { emailOf, findPerson, type Person } from '../people/people.queries'
import { effectOf } from '../runs/effect'
import { plansInto, type Plan } from '../plans/plans.queries'
import type { Problem } from '../errors/problem'
import { startPlan } from '../plans/start'
import { findRun, runsInto, undoneRunOf } from '../run-facts/runs.queries'
import { readUndo, undoRun } from '../runs/undo'
import type { RunEnd } from '../runs/run-jobs'
import type { PairEffect } from '../../shared/api/batches'
import * as queries from './batches.queries'

/** What stands against a pair: a title and details. `look`: a person may have it run all the same. */
interface Doubt extends Problem {
  readonly state: 'look' | 'exception'
}

/** Tries a pair: plans it with the batch's decisions and works out what a run would do. Nothing is written into a course. */
export async function tryPair(db: Knex, job: Job): Promise<void> {
  try {
    const pair = await queries.findPair(db, job.subject)
    const batch = pair && (await queries.findBatch(db, pair.batchId))
    const person = job.personId === null ? null : await findPerson(db, job.personId)
    if (!pair || !batch || !person) return void (await endJob(db, job, 'done'))
    const tried = await triedPair(db, person, batch, pair)
    await inTransaction(db, async trx => {
      if (await endJob(trx, job, 'done')) await queries.setPair(trx, pair.id, tried)
    })
  } catch (error) {
    if (isAway(error)) return logSeldom('the database went away while a pair was tried', error)
    log.error({ err: error, job: job.id }, 'a pair could not be tried')
    await inTransaction(db, async trx => {
      if (!(await endJob(trx, job, 'failed'))) return
      const problem = {
        title: 'An error here stopped it',
        detail: 'Nothing was changed. Check the pair again; tell the help desk if it stays so.',
      }
      await queries.setPair(trx, job.subject, { state: 'exception', problem })
    })
  }
}
type Tried = Parameters<typeof queries.setPair>[2]
async function triedPair(
  db: Knex,
  person: Person,
  { decisions }: queries.Batch,
  pair: queries.Pair,
): Promise<Tried> {
  const { sourceId, shellId } = pair
  if (!sourceId || !shellId) return {}
  const barred = await barredShell(db, shellId, pair.planId)
  if (barred) return { state: barred.state, problem: barred }
  let plan_id = pair.planId
  try {
    plan_id ??= await startPlan(db, person, {
      sources: [sourceId],
      target: shellId,
      decisions: decisions.how === 'habit' ? decisions.habit : decisions.how,
    })
    const reply = await effectOf(db, plan_id)
    const effect = numbersOf(reply)
    const doubt = doubtOf(reply, effect) ?? doubtBefore(pair)
    return {
      plan_id,
      state: doubt?.state ?? 'ready',
      problem: doubt,
      effect: json(effect),
      fingerprint: reply.fingerprint,
    }
  } catch (error) {
    if (!(error instanceof Refusal)) throw error
    const { title, detail } = error.told
    return { plan_id, state: 'exception', problem: { title, detail: detail ?? '' } }
  }
}
/** What keeps a batch away from a shell: somebody else plans for it, or it was filled. */
async function barredShell(db: Knex, shellId: string, own: string | null): Promise<Doubt | null> {
  const [run] = await runsInto(db, [shellId])
  if (run)
    return {
      state: 'exception',
      title: 'The shell is filled already',
      detail: `${run.by} ran a plan into it. Run again by hand where something is new.`,
    }
  for (const plan of await plansInto(db, [shellId]))
    if (plan.state === 'draft' && plan.id !== own && !(await isLeftOver(db, plan)))
      return {
        state: 'exception',
        title: `${plan.updatedBy} plans for this shell`,
        detail: 'A batch leaves the plan of a colleague alone. Ask them to run it, or leave the pair out.',
      }
  return null
}
/** A plan of another batch whose run was undone, and which nobody has changed since: it is no work of anybody's. */
async function isLeftOver(db: Knex, plan: Plan): Promise<boolean> {
  if (!(await queries.isPlanOfPair(db, plan.id))) return false
  const undone = await undoneRunOf(db, plan.id)
  const run = undone && (await findRun(db, undone.id))
  return run !== null && JSON.stringify(run.document) === JSON.stringify(plan.document)
}
const numbersOf = ({ effect, clearing }: EffectReply): PairEffect => ({
  units: effect.added.units,
  items: arriving(effect),
  replaced: lostCount(effect) - effect.removed.things - effect.removed.places,
  cleared: effect.removed.things + effect.removed.places,
  studentRows: clearing.rows,
  dates: effect.dates.dates,
  settle: effect.settle.dates,
  alsoSettle: settleBesideDates(effect.settle),
})
function doubtOf({ effect, writes }: EffectReply, numbers: PairEffect): Doubt | null {
  if (!writes)
    return {
      state: 'exception',
      title: 'There is nothing to add',
      detail: 'The shell has all that the plan would bring.',
    }
  if (effect.settle.traces > 0)
    return {
      state: 'exception',
      title: `${counted(effect.settle.traces, 'trace')} of students to settle`,
      detail:
        'Only a person can say what becomes of a name in running text. Settle it in the plan, then check the pair again.',
    }
  if (effect.settle.unseen > 0)
    return {
      state: 'exception',
      title: `${counted(effect.settle.unseen, 'file')} could not be looked into`,
      detail:
        'Only a person can say whether a file comes that nobody searched for names. Say so in the plan, then check the pair again.',
    }
  const losses = [
    ...(numbers.replaced > 0 ? [`replaces ${counted(numbers.replaced, 'thing')}`] : []),
    ...(numbers.cleared > 0 ? [`removes ${counted(numbers.cleared, 'thing')}`] : []),
    ...(numbers.studentRows > 0 ? [`clears ${counted(numbers.studentRows, 'record')} about students`] : []),
  ]
  if (losses.length > 0)
    return {
      state: 'look',
      title: 'The shell would lose something',
      detail: `The run ${losses.join(', ')}. Look at the plan, then let it run.`,
    }
  return settleDoubt(effect)
}
/** Dates to settle are listed in the shell; anything else is looked at first. */
function settleDoubt({ settle }: Effect): Doubt | null {
  if (settleBesideDates(settle) === 0) return null
  const told = settleTexts({ ...settle, dates: 0 })
  return {
    state: 'look',
    title: `To settle: ${told.join(', ')}`,
    detail: 'That bars no run. Look at the plan, then let it run.',
  }
}
const doubtBefore = ({ doubt }: queries.Pair): Doubt | null => doubt && { state: 'look', ...doubt }

/** What a batch is told of a run that it asked for: within the transaction in which it ends. */
export const endOfPair = (pair: string): RunEnd => ({
  async done(trx, _job, { runId }) {
    await queries.setPair(trx, pair, {
      state: 'done',
      run_id: runId,
      problem: null,
      ended_at: stampOf(now()),
    })
  },
  async failed(trx, _job, told) {
    await queries.setPair(trx, pair, {
      state: 'failed',
      problem: { title: told.title, detail: told.detail ?? 'Nothing was written.' },
      ended_at: stampOf(now()),
    })
  },
})

/**
 * Undoes the run of a pair, where its shell stands as the run left it; else says why it stays. All of it in one transaction with the end of its
 * job, so that it is done or not begun, whatever is killed.
 */
export async function undoPair(db: Knex, job: Job): Promise<void> {
  const end = async (trx: Knex, why: Problem | null): Promise<void> => {
    if (await endJob(trx, job, 'done'))
      await queries.setPair(trx, job.subject, { problem: why, ended_at: stampOf(now()) })
  }
  try {
    const person = job.personId === null ? null : await findPerson(db, job.personId)
    await inTransaction(db, async trx => {
      if (!(await holdJob(trx, job))) return
      const pair = await queries.findPair(trx, job.subject)
      if (!person || !pair?.runId || pair.state !== 'done') return end(trx, null)
      const seen = await readUndo(trx, person, pair.runId)
      const why = whyLeft(seen)
      if (!why) await undoRun(trx, person, pair.runId, { fingerprint: seen.fingerprint, keepAside: false })
      await end(trx, why)
    })
  } catch (error) {
    if (isAway(error)) return logSeldom('the database went away while a run was undone', error)
    if (!(error instanceof Refusal)) log.error({ err: error, job: job.id }, 'a run could not be undone')
    const told = error instanceof Refusal ? error.told : null
    await end(db, {
      title: told?.title ?? 'An error here stopped the undo',
      detail: told?.detail ?? 'The shell stays as it is. Undo its run from its record.',
    })
  }
}
/** Why a batch leaves a shell as it is: what was done there since is for a person to weigh. */
function whyLeft({ barred, mayRun, since }: UndoReply): Problem | null {
  const byHand = 'The shell stays as it is. Its record says what an undo would take away.'
  if (barred) return barred
  if (!mayRun) return { title: 'You may not run into this shell any more', detail: byHand }
  if (since.work.length > 0)
    return { title: `Students have handed in on ${counted(since.work.length, 'item')}`, detail: byHand }
  if (since.edits.length > 0)
    return {
      title: `${counted(since.edits.length, 'thing was', 'things were')} changed there since`,
      detail: byHand,
    }
  return null
}

/** Every so many seconds it is looked whether all pairs of a batch are through. */
const lookEvery = 1
/** Ends a batch, or its trial, once no job of it is left: says so by mail and in the log. Until then it looks again. */
export async function watchBatch(db: Knex, job: Job): Promise<void> {
  try {
    const isOver = await inTransaction(db, trx => endedBatch(trx, job))
    if (!isOver) await postponeJob(db, job, lookEvery, '')
  } catch (error) {
    logSeldom('a batch could not be watched', error)
    await postponeJob(db, job, 10 * lookEvery, 'It could not be done; it is tried again.')
  }
}
async function endedBatch(trx: Knex.Transaction, job: Job): Promise<boolean> {
  const batch = await queries.lockedBatch(trx, job.subject)
  if (!batch) return endJob(trx, job, 'done')
  const undone = await queries.undoAsked(trx, batch.id)
  if (undone) return endedUndo(trx, job, batch, undone)
  if ((await queries.openJobs(trx, batch.id)).length > 0) return false
  await endJob(trx, job, 'done')
  // Another of its jobs has seen the end already.
  if (batch.state === 'tried' || batch.state === 'done' || (batch.state === 'stopped' && batch.endedAt))
    return true
  const counts = (await queries.countPairs(trx, [batch.id])).get(batch.id) ?? {}
  if (batch.state === 'trying') {
    await queries.setBatch(trx, batch.id, { state: 'tried' })
    return true
  }
  await queries.setBatch(trx, batch.id, {
    ...(batch.state === 'running' && { state: 'done' }),
    ended_at: stampOf(now()),
  })
  const { done = 0, failed = 0 } = counts
  const personId = batch.runBy ?? batch.personId
  await writeLog(trx, {
    action: batch.state === 'running' ? 'batch.done' : 'batch.halted',
    personId,
    detail: { name: batch.name, done, failed },
  })
  await mailOf(trx, batch, personId, counts)
  return true
}
async function endedUndo(
  trx: Knex.Transaction,
  job: Job,
  batch: queries.Batch,
  asked: readonly string[],
): Promise<boolean> {
  if ((await queries.openJobs(trx, batch.id)).some(({ kind }) => kind === 'batch-undo')) return false
  await endJob(trx, job, 'done')
  const those = new Set(asked)
  const pairs = (await queries.pairsOf(trx, batch.id)).filter(({ id }) => those.has(id))
  const count = (is: (pair: queries.Pair) => boolean): number => pairs.filter(is).length
  const undone = count(({ state }) => state === 'undone')
  const left = count(({ state, problem }) => state === 'done' && problem !== null)
  const rest = count(({ state, problem }) => state === 'done' && problem === null)
  await queries.endUndo(trx, batch.id)
  const personId = present(job.personId)
  await writeLog(trx, {
    action: 'batch.undone',
    personId,
    detail: { name: batch.name, undone, left: left + rest },
  })
  const shells = (n: number, one: string, many: string): string[] =>
    n > 0 ? [`${counted(n, 'shell')} ${n === 1 ? one : many}`] : []
  await mailBatch(trx, batch, personId, {
    subject: `The batch ${batch.name}: ${counted(undone, 'run')} undone`,
    lines: [
      ...shells(undone, 'is as it was before the batch.', 'are as they were before the batch.'),
      ...shells(left, 'stays as it is: the page says why.', 'stay as they are: the page says why.'),
      ...shells(rest, 'was not looked at, and stays filled.', 'were not looked at, and stay filled.'),
    ],
  })
  return true
}
async function mailBatch(
  trx: Knex,
  { id, origin }: queries.Batch,
  personId: string,
  { subject, lines }: { subject: string; lines: readonly string[] },
): Promise<void> {
  const recipient = await emailOf(trx, personId)
  if (!recipient) return
  const body = [...lines, `Open it here: ${origin}/batches/${id}`].join('\n\n')
  await postMail(trx, personId, { recipient, replyTo: null, subject, body: `${body}\n` })
}
async function mailOf(
  trx: Knex,
  batch: queries.Batch,
  personId: string,
  { done = 0, failed = 0, ready = 0, look = 0, exception = 0 }: Partial<Record<string, number>>,
): Promise<void> {
  const left = look + exception + ready
  const lines = [
    `${counted(done, 'shell')} filled.`,
    ...(failed > 0 ? [`${counted(failed, 'run')} failed, and wrote nothing: the page says why.`] : []),
    ...(left > 0 ? [`${counted(left, 'pair')} ${left === 1 ? 'was' : 'were'} not run.`] : []),
  ]
  const end = batch.state === 'running' ? 'is done' : 'was stopped'
  const subject = `The batch ${batch.name} ${end}: ${counted(done, 'shell')} filled`
  await mailBatch(trx, batch, personId, { subject, lines })
}
