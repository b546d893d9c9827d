import type { Knex } from 'knex'
import { codeText } from '../../core/course/code-text'
import { FormatRefusal } from '../../core/formats/refusal'
import { readPairs, resolvePairs } from '../../core/pairing/pairs'
import type {
  PairWish,
  BatchesReply,
  BatchReply,
  NewBatch,
  PairLine,
  PairsReply,
  PairState,
} from '../../shared/api/batches'
import { findTerm, type TermLine } from '../calendars/terms.queries'
import { isoInstant, now, stampOf } from '../clock'
import { coursesOf, dutyReach } from '../courses/access'
import { codeKnowledge } from '../courses/codes'
import { courseLines } from '../courses/lines'
import type { BatchDecisions } from '../db/tables'
import { newId } from '../db/rows'
import { inTransaction, takeTurn } from '../db/transaction'
import { notFound, refuse } from '../errors/refusal'
import { habitToUse } from '../habits/habits'
import { addJobs } from '../jobs/jobs.queries'
import { writeLog } from '../log/log.queries'
import { mailAddress } from '../mail/mail'
import { shortName } from '../people/names'
import { namedRows, type Person } from '../people/people.queries'
import { deleteUntouched } from '../plans/plans.queries'
import { suggestedForTerm } from '../shells/term'
import { officeOf } from './access'
import * as queries from './batches.queries'

/** Lines of a batch's page at once. */
const page = 100

/** What a table of pairs says, line by line: courses, or why a line names none. @throws Refusal where it is no such table */
async function pairsOfTable(
  db: Knex,
  person: Person,
  term: TermLine,
  table: string,
): Promise<queries.NewPair[]> {
  const lines = readTableOfPairs(table)
  const courses = await queries.namedCourses(db, (await coursesOf(db, person))())
  const { patterns } = await codeKnowledge(db)
  const resolved = resolvePairs(lines, courses, term, patterns)
  return lines.map((line, at) => {
    const found = resolved[at]
    const isPair = found !== undefined && 'source' in found
    return {
      sourceText: [line.source, line.sourceTerm].filter(Boolean).join(', '),
      shellText: line.shell,
      sourceId: isPair ? found.source : null,
      shellId: found?.shell ?? null,
      state: isPair ? 'waiting' : 'exception',
      problem: isPair ? null : { title: `Line ${line.number} names no pair`, detail: found?.why ?? '' },
      doubt: null,
    }
  })
}
function readTableOfPairs(table: string) {
  try {
    const lines = readPairs(new TextEncoder().encode(table))
    if ('missing' in lines) throw refuse('no-table-of-pairs', { missing: lines.missing })
    if (lines.length === 0) throw refuse('no-pairs')
    return lines
  } catch (error) {
    if (error instanceof FormatRefusal) throw refuse('table-not-read', { why: error.message })
    throw error
  }
}
/** Every shell of a term that nothing was run into, with the source that is suggested for it; and how many were filled before. */
async function pairsOfTerm(
  db: Knex,
  person: Person,
  term: TermLine,
): Promise<{ pairs: queries.NewPair[]; filled: number }> {
  const { shells, filled } = await suggestedForTerm(db, person, term.id)
  const pairs = shells.map(({ id, suggestion }): queries.NewPair => {
    const doubt =
      suggestion && suggestion.sureness !== 'sure'
        ? {
            title: `The source is ${suggestion.sureness}, not sure`,
            detail: `What speaks for it: ${suggestion.reasons.join(', ') || 'nothing but its age'}.`,
          }
        : null
    return {
      sourceText: '',
      shellText: '',
      sourceId: suggestion?.source ?? null,
      shellId: id,
      state: suggestion ? 'waiting' : 'exception',
      problem: suggestion
        ? null
        : {
            title: 'No source is suggested',
            detail:
              'No earlier course has its code or title. Plan it by hand, or name its source in a table.',
          },
      doubt,
    }
  })
  return { pairs, filled }
}
async function decisionsOf(db: Knex, person: Person, { decisions }: NewBatch): Promise<BatchDecisions> {
  if (decisions.how !== 'habit') return decisions
  return { how: 'habit', habit: await habitToUse(db, person, decisions.habit) }
}

/** Makes a batch and has every pair of it tried: nothing is written into a course. @throws Refusal */
export async function makeBatch(
  db: Knex,
  person: Person,
  wish: NewBatch,
  origin: string,
): Promise<{ id: string }> {
  const orgId = officeOf(person)
  const term = await findTerm(db, wish.term)
  if (!term) throw refuse('unknown-term', { term: wish.term })
  const decisions = await decisionsOf(db, person, wish)
  const { pairs, filled } =
    wish.table === null
      ? await pairsOfTerm(db, person, term)
      : { pairs: await pairsOfTable(db, person, term, wish.table), filled: 0 }
  if (pairs.length === 0) throw refuse('no-shells-in-term', { term: term.name, filled })
  return inTransaction(db, async trx => {
    // Pressed twice, it is one batch.
    await takeTurn(trx, `batches ${person.id}`)
    const named = { personId: person.id, name: wish.name, termId: term.id }
    const there = await queries.sameBatch(trx, named, pairs)
    if (there) return { id: there }
    const batch = { name: wish.name, termId: term.id, orgId, personId: person.id, decisions, origin }
    const id = await queries.insertBatch(trx, { ...batch, filledBefore: filled }, pairs)
    const waiting = await queries.pairsOf(trx, id, { state: 'waiting' })
    await askToTry(trx, person, id, waiting)
    await writeLog(trx, {
      action: 'batch.made',
      personId: person.id,
      detail: { name: wish.name, pairs: pairs.length },
    })
    return { id }
  })
}
/** Asks for pairs to be tried, each by a job of its own; one more job watches over them. */
async function askToTry(
  trx: Knex,
  person: Person,
  batchId: string,
  pairs: readonly queries.Pair[],
): Promise<void> {
  const jobs = pairs.map(({ id }) => ({
    kind: 'batch-try' as const,
    subject: id,
    personId: person.id,
    payload: {},
  }))
  await addJobs(trx, [...jobs, { kind: 'batch', subject: batchId, personId: person.id, payload: {} }])
}

/** A batch whose turn is held, as it stands then. */
async function lockBatch(trx: Knex, id: string): Promise<queries.Batch> {
  await takeTurn(trx, `batch ${id}`)
  const batch = await queries.findBatch(trx, id)
  if (!batch) throw notFound('This batch')
  return batch
}
/** Asks for a run of every pair that is ready: one job each, worked off by whichever process comes first. Whoever asks twice has asked once. */
export async function runBatch(db: Knex, person: Person, id: string, origin: string): Promise<void> {
  await inTransaction(db, async trx => {
    const batch = await lockBatch(trx, id)
    if (batch.state === 'running') return
    if (batch.state === 'trying') throw refuse('batch-is-tried')
    if (await queries.undoAsked(trx, id)) throw refuse('batch-is-undone')
    // What is being finished after a stop is not asked for once more.
    const open = new Set((await queries.openJobs(trx, id)).map(job => job.pairId))
    const ready = (await queries.pairsOf(trx, id, { state: 'ready' })).filter(pair => !open.has(pair.id))
    if (ready.length === 0) throw refuse('nothing-ready')
    await addJobs(trx, [
      ...ready.flatMap(pair =>
        pair.planId && pair.fingerprint !== null
          ? {
              kind: 'batch-run' as const,
              subject: pair.planId,
              personId: person.id,
              payload: { runId: newId(), fingerprint: pair.fingerprint, origin, pair: pair.id },
            }
          : [],
      ),
      { kind: 'batch', subject: id, personId: person.id, payload: {} },
    ])
    await queries.setBatch(trx, id, {
      state: 'running',
      run_by: person.id,
      run_at: stampOf(now()),
      ended_at: null,
      origin,
    })
    await writeLog(trx, {
      action: batch.state === 'stopped' ? 'batch.resumed' : 'batch.run',
      personId: person.id,
      detail: { name: batch.name, pairs: ready.length },
    })
  })
}
/** Has pairs tried that a stopped dry run has left, or whose runs were undone. Whoever asks twice has asked once. */
export async function tryAgain(
  db: Knex,
  person: Person,
  id: string,
  which: 'waiting' | 'undone',
): Promise<void> {
  await inTransaction(db, async trx => {
    const batch = await lockBatch(trx, id)
    if (batch.state === 'trying') return
    if (batch.state === 'running') throw refuse('batch-runs')
    if (await queries.undoAsked(trx, id)) throw refuse('batch-is-undone')
    const pairs = (await queries.pairsOf(trx, id, { state: which })).filter(
      ({ sourceId, shellId }) => sourceId !== null && shellId !== null,
    )
    if (pairs.length === 0) throw refuse('nothing-to-try')
    const ids = pairs.map(pair => pair.id)
    await queries.setPairs(trx, ids, { state: 'waiting', problem: null })
    await askToTry(trx, person, id, pairs)
    await queries.setBatch(trx, id, { state: 'trying' })
  })
}
/** Stops a dry run: the pair that is being tried is finished, the others are not begun. */
export async function stopTrial(db: Knex, person: Person, id: string): Promise<void> {
  await inTransaction(db, async trx => {
    const batch = await lockBatch(trx, id)
    if (batch.state !== 'trying') throw refuse('batch-does-not-run')
    await queries.cancelWaiting(trx, id, ['batch-try'])
    await writeLog(trx, { action: 'batch.trial-stopped', personId: person.id, detail: { name: batch.name } })
  })
}
/**
 * Asks for every run of a batch to be undone, by a job each, the last pair first. What was done in a shell since is looked at when its turn
 * comes: a shell in which anybody has done anything stays as it is. Whoever asks twice has asked once.
 */
export async function undoBatch(db: Knex, person: Person, id: string, origin: string): Promise<void> {
  await inTransaction(db, async trx => {
    const batch = await lockBatch(trx, id)
    if (await queries.undoAsked(trx, id)) return
    if (batch.state === 'trying') throw refuse('batch-is-tried')
    const isRunning = batch.state === 'running' || (batch.state === 'stopped' && batch.endedAt === null)
    if (isRunning) throw refuse('batch-runs')
    const done = (await queries.pairsOf(trx, id, { state: 'done' })).map(pair => pair.id).reverse()
    if (done.length === 0) throw refuse('nothing-to-undo')
    // What an earlier try said of a shell may have passed.
    await queries.setPairs(trx, done, { problem: null, undo_asked_at: stampOf(now()) })
    await addJobs(trx, [
      ...done.map(pair => ({ kind: 'batch-undo' as const, subject: pair, personId: person.id, payload: {} })),
      { kind: 'batch', subject: id, personId: person.id, payload: {} },
    ])
    await queries.setBatch(trx, id, { origin })
    const detail = { name: batch.name, pairs: done.length }
    await writeLog(trx, { action: 'batch.undo', personId: person.id, detail })
  })
}
/** Stops undoing: the shell whose turn it is is finished, the others stay as they are. */
export async function stopUndoing(db: Knex, person: Person, id: string): Promise<void> {
  await inTransaction(db, async trx => {
    const batch = await lockBatch(trx, id)
    if (!(await queries.undoAsked(trx, id))) throw refuse('batch-does-not-run')
    await queries.cancelWaiting(trx, id, ['batch-undo'])
    await writeLog(trx, { action: 'batch.undo-stopped', personId: person.id, detail: { name: batch.name } })
  })
}
/** Stops a batch: what is being written is finished, what waits is not begun. */
export async function stopBatch(db: Knex, person: Person, id: string): Promise<void> {
  await inTransaction(db, async trx => {
    const batch = await lockBatch(trx, id)
    if (batch.state !== 'running') throw refuse('batch-does-not-run')
    await queries.cancelWaiting(trx, id, ['batch-run'])
    await queries.setBatch(trx, id, { state: 'stopped' })
    await writeLog(trx, { action: 'batch.stopped', personId: person.id, detail: { name: batch.name } })
  })
}
/** Tries a pair anew, lets one run that needed a look, or leaves one out. @throws Refusal where its run goes on or is done */
export async function changePair(
  db: Knex,
  person: Person,
  id: string,
  pairId: string,
  what: PairWish,
): Promise<void> {
  await inTransaction(db, async trx => {
    const batch = await lockBatch(trx, id)
    const pair = await queries.findPair(trx, pairId)
    if (!pair || pair.batchId !== id) throw notFound('This pair')
    const open = (await queries.openJobs(trx, id)).some(job => job.pairId === pairId)
    if (open || pair.state === 'done') throw refuse('pair-is-run')
    if (await queries.undoAsked(trx, id)) throw refuse('batch-is-undone')
    if (what === 'accept' || what === 'accept-alike') {
      if (pair.state !== 'look') throw refuse('pair-needs-no-look')
      if (what === 'accept') await queries.setPair(trx, pairId, { state: 'ready' })
      else await queries.acceptAlike(trx, pair)
    } else if (what === 'out') await queries.setPair(trx, pairId, { state: 'out' })
    else {
      if (!pair.sourceId || !pair.shellId) throw refuse('pair-names-none')
      await queries.setPair(trx, pairId, { state: 'waiting', problem: null })
      await askToTry(trx, person, id, [pair])
      if (batch.state !== 'running') await queries.setBatch(trx, id, { state: 'trying' })
    }
  })
}
/** Forgets a batch nothing of which was run, with the drafts that it made. @throws Refusal */
export async function discardBatch(db: Knex, person: Person, id: string): Promise<void> {
  await inTransaction(db, async trx => {
    const batch = await lockBatch(trx, id)
    const pairs = await queries.pairsOf(trx, id)
    if (batch.state === 'trying') throw refuse('batch-is-tried')
    const wasRun = pairs.some(({ state }) => state === 'done' || state === 'undone')
    if (wasRun || batch.state === 'running') throw refuse('batch-was-run')
    await queries.cancelWaiting(trx, id)
    await queries.deleteBatch(trx, id)
    // A draft that somebody has changed since is theirs.
    for (const { planId } of pairs) if (planId) await deleteUntouched(trx, planId)
    await writeLog(trx, { action: 'batch.discarded', personId: person.id, detail: { name: batch.name } })
  })
}

const noCounts = (): Record<PairState, number> => ({
  waiting: 0,
  ready: 0,
  look: 0,
  exception: 0,
  out: 0,
  done: 0,
  failed: 0,
  undone: 0,
})
const lineOfBatch = (batch: queries.Batch, counts: Partial<Record<PairState, number>> | undefined) => ({
  id: batch.id,
  name: batch.name,
  term: { code: batch.term.code, name: batch.term.name },
  state: batch.state,
  by: batch.by,
  madeAt: isoInstant(batch.madeAt),
  counts: { ...noCounts(), ...counts },
})
/** Batches that a person's duty reaches, the latest first. */
export async function listBatches(db: Knex, person: Person): Promise<BatchesReply> {
  const batches = await queries.batchesOf(db, [...(await dutyReach(db, person)).office])
  const counts = await queries.countPairs(
    db,
    batches.map(batch => batch.id),
  )
  return { batches: batches.map(batch => lineOfBatch(batch, counts.get(batch.id))) }
}
export async function readBatch(db: Knex, person: Person, id: string): Promise<BatchReply> {
  const batch = await queries.findBatch(db, id)
  if (!batch) throw notFound('This batch')
  const open = await queries.openJobs(db, id)
  const undoing = await queries.undoAsked(db, id)
  const isUndo = ({ kind }: queries.OpenJob): boolean => kind === 'batch-undo'
  const running = open.filter(
    job => job.state === 'running' && batch.state === 'running' && job.kind === 'batch-run',
  )
  const shells = await linesFor(
    db,
    person,
    await Promise.all(running.map(job => queries.findPair(db, job.pairId))),
  )
  const [runBy] = batch.runBy ? await namedRows(db, [batch.runBy]) : []
  const { how } = batch.decisions
  return {
    ...lineOfBatch(batch, (await queries.countPairs(db, [id])).get(id)),
    decisions: { how, habit: how === 'habit' ? batch.decisions.habit.name : null },
    filledBefore: batch.filledBefore,
    totals: {
      ready: await queries.totalsOf(db, id, 'ready'),
      done: await queries.totalsOf(db, id, 'done'),
    },
    open: open.filter(job => !isUndo(job)).length,
    undoing: undoing && { asked: undoing.length, open: open.filter(isUndo).length },
    now: running.map((job, at) => ({ shell: shells[at] ?? '', done: job.done, total: job.total })),
    runBy: runBy ? shortName(runBy) : null,
    runAt: batch.runAt && isoInstant(batch.runAt),
    endedAt: batch.endedAt && isoInstant(batch.endedAt),
    mails: mailAddress() !== null,
  }
}
/** `HYD 240-01` of the shells of some pairs. */
async function linesFor(
  db: Knex,
  person: Person,
  pairs: readonly (queries.Pair | null)[],
): Promise<string[]> {
  const ids = pairs.flatMap(pair => pair?.shellId ?? [])
  const lines = await courseLines(db, person, ids)
  return pairs.map(pair => {
    const line = pair?.shellId ? lines.get(pair.shellId) : undefined
    return line ? codeText(line) : ''
  })
}
/** Pairs of a batch, some at a time, with their courses. */
export async function readPairsOf(
  db: Knex,
  person: Person,
  id: string,
  wish: { state?: PairState | undefined; after?: number | undefined },
): Promise<PairsReply> {
  const found = await queries.pairsOf(db, id, { ...wish, limit: page + 1 })
  return { pairs: await pairLines(db, person, id, found.slice(0, page)), more: found.length > page }
}
export async function pairLines(
  db: Knex,
  person: Person,
  batchId: string,
  pairs: readonly queries.Pair[],
): Promise<PairLine[]> {
  const ids = pairs.flatMap(pair => [pair.sourceId, pair.shellId]).filter(each => each !== null)
  const lines = await courseLines(db, person, ids)
  const open = new Set((await queries.openJobs(db, batchId)).map(job => job.pairId))
  return pairs.map(pair => ({
    id: pair.id,
    number: pair.number,
    texts: pair.texts,
    source: (pair.sourceId && lines.get(pair.sourceId)) || null,
    shell: (pair.shellId && lines.get(pair.shellId)) || null,
    plan: pair.planId,
    run: pair.runId,
    state: pair.state,
    isAsked: open.has(pair.id),
    problem: pair.problem,
    effect: pair.effect,
  }))
}
