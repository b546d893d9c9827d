import type { Knex } from 'knex'
import { keptProblem, problemOf, type Problem } from '../errors/problem'
import type { NamedCourse } from '../../core/pairing/pairs'
import type { PairEffect, PairState } from '../../shared/api/batches'
import { now, stampOf } from '../clock'
import type { CourseQuery } from '../courses/access.queries'
import { groupBy, inBatches, json, jsonOf, newId, selectRows } from '../db/rows'
import type { BatchDecisions, BatchPairRow, BatchRow, CourseRow, TermRow } from '../db/tables'
import { takeTurn } from '../db/transaction'
import { shortName, type NamedRow } from '../people/names'

export interface Batch {
  id: string
  name: string
  term: { id: string; code: string; name: string }
  orgId: string
  personId: string
  by: string
  decisions: BatchDecisions
  state: BatchRow['state']
  filledBefore: number
  origin: string
  madeAt: string
  runBy: string | null
  runAt: string | null
  endedAt: string | null
}
type Columns = BatchRow & NamedRow & { term_code: string; term_name: string }
const batchRows = (db: Knex) =>
  db('batches')
    .join('people', 'people.id', 'batches.person_id')
    .join('terms', 'terms.id', 'batches.term_id')
    .orderBy('batches.id', 'desc')
    .select<Columns[]>('batches.*', 'given_name', 'family_name', {
      term_code: 'terms.code',
      term_name: 'terms.name',
    })
const batchFrom = (row: Columns): Batch => ({
  id: row.id,
  name: row.name,
  term: { id: row.term_id, code: row.term_code, name: row.term_name },
  orgId: row.org_id,
  personId: row.person_id,
  by: shortName(row),
  decisions: jsonOf(row.decisions),
  state: row.state,
  filledBefore: row.filled_before,
  origin: row.origin,
  madeAt: row.made_at,
  runBy: row.run_by,
  runAt: row.run_at,
  endedAt: row.ended_at,
})
export async function findBatch(db: Knex, id: string): Promise<Batch | null> {
  const [row] = await batchRows(db).where('batches.id', id)
  return row ? batchFrom(row) : null
}
/** A batch for whoever ends it: written, so that of two processes only one does. */
export async function lockedBatch(trx: Knex.Transaction, id: string): Promise<Batch | null> {
  await takeTurn(trx, `batch ${id}`)
  return findBatch(trx, id)
}
/** A batch of a person under the same name that is still being tried, of the very same pairs: it was asked for twice. */
export async function sameBatch(
  trx: Knex,
  { personId, name, termId }: { personId: string; name: string; termId: string },
  pairs: readonly NewPair[],
): Promise<string | null> {
  const row = await trx('batches')
    .where({ person_id: personId, name, term_id: termId, state: 'trying' })
    .orderBy('id', 'desc')
    .first('id')
  if (!row) return null
  const marks = (all: readonly Pick<NewPair, 'sourceId' | 'shellId'>[]): string =>
    JSON.stringify(all.map(({ sourceId, shellId }) => [sourceId, shellId]))
  return marks(await pairsOf(trx, row.id)) === marks(pairs) ? row.id : null
}
/** Batches of some organisations, the latest first. */
export async function batchesOf(db: Knex, orgIds: readonly string[]): Promise<Batch[]> {
  return (await batchRows(db).whereIn('batches.org_id', orgIds).limit(200)).map(batchFrom)
}
export interface NewPair {
  sourceText: string
  shellText: string
  sourceId: string | null
  shellId: string | null
  state: BatchPairRow['state']
  problem: Problem | null
  /** What makes the pair doubtful however it is tried. */
  doubt: Problem | null
}
export async function insertBatch(
  trx: Knex,
  batch: Pick<Batch, 'name' | 'orgId' | 'personId' | 'decisions' | 'filledBefore' | 'origin'> & {
    termId: string
  },
  pairs: readonly NewPair[],
): Promise<string> {
  const id = newId()
  await trx('batches').insert({
    id,
    name: batch.name,
    term_id: batch.termId,
    org_id: batch.orgId,
    person_id: batch.personId,
    decisions: json(batch.decisions),
    state: 'trying',
    filled_before: batch.filledBefore,
    origin: batch.origin,
    made_at: stampOf(now()),
  })
  const rows = pairs.map((pair, at) => ({
    id: newId(),
    batch_id: id,
    position: at + 1,
    source_text: pair.sourceText,
    shell_text: pair.shellText,
    source_id: pair.sourceId,
    shell_id: pair.shellId,
    state: pair.state,
    problem: pair.problem && keptProblem(pair.problem),
    doubt: pair.doubt && keptProblem(pair.doubt),
  }))
  for (const some of inBatches(rows)) await trx('batch_pairs').insert(some)
  return id
}
export const setBatch = (
  trx: Knex,
  id: string,
  change: Partial<Pick<BatchRow, 'state' | 'run_by' | 'run_at' | 'ended_at' | 'origin'>>,
): Promise<number> => trx('batches').where({ id }).update(change)
export const deleteBatch = async (trx: Knex, id: string): Promise<void> => {
  await trx('batch_pairs').where({ batch_id: id }).delete()
  await trx('batches').where({ id }).delete()
}

export interface Pair {
  id: string
  batchId: string
  number: number
  texts: { source: string; shell: string }
  sourceId: string | null
  shellId: string | null
  planId: string | null
  state: PairState
  problem: Problem | null
  doubt: Problem | null
  effect: PairEffect | null
  fingerprint: string | null
  runId: string | null
}
/** How a pair stands: filled, until its run is undone, whoever undoes that and from where. */
const stands = "IF(p.state = 'done' AND r.undone_at IS NOT NULL, 'undone', p.state)"
const pairRows = (db: Knex) =>
  db('batch_pairs as p')
    .leftJoin('runs as r', 'r.id', 'p.run_id')
    .select<PairColumns[]>('p.*', db.raw(`${stands} AS stands`))
type PairColumns = BatchPairRow & { stands: PairState }
const pairFrom = (row: PairColumns): Pair => ({
  id: row.id,
  batchId: row.batch_id,
  number: row.position,
  texts: { source: row.source_text, shell: row.shell_text },
  sourceId: row.source_id,
  shellId: row.shell_id,
  planId: row.plan_id,
  state: row.stands,
  problem: problemOf(row.problem),
  doubt: problemOf(row.doubt),
  effect: row.effect && jsonOf(row.effect),
  fingerprint: row.fingerprint,
  runId: row.run_id,
})
export async function findPair(db: Knex, id: string): Promise<Pair | null> {
  const [row] = await pairRows(db).where('p.id', id)
  return row ? pairFrom(row) : null
}
/** Pairs of a batch in their order; of some state, after some number, at most so many, where that is asked. */
export async function pairsOf(
  db: Knex,
  batchId: string,
  wish: { state?: PairState | undefined; after?: number | undefined; limit?: number } = {},
): Promise<Pair[]> {
  const query = pairRows(db).where({ batch_id: batchId }).orderBy('position')
  if (wish.state) void query.whereRaw(`${stands} = ?`, [wish.state])
  if (wish.after !== undefined) void query.where('position', '>', wish.after)
  if (wish.limit !== undefined) void query.limit(wish.limit)
  return (await query).map(pairFrom)
}
type PairChange = Partial<
  Pick<BatchPairRow, 'state' | 'plan_id' | 'effect' | 'fingerprint' | 'run_id' | 'ended_at' | 'undo_asked_at'>
> & { problem?: Problem | null }
const changedColumns = ({ problem, ...columns }: PairChange) => ({
  ...columns,
  ...(problem !== undefined && { problem: problem && keptProblem(problem) }),
})
export const setPair = (trx: Knex, id: string, change: PairChange): Promise<number> =>
  trx('batch_pairs').where({ id }).update(changedColumns(change))
/** The same of several. */
export async function setPairs(trx: Knex, ids: readonly string[], change: PairChange): Promise<void> {
  for (const some of inBatches(ids))
    await trx('batch_pairs').whereIn('id', some).update(changedColumns(change))
}
/** Lets all pairs of a batch run that need a look for the very same reason as one of them. */
export const acceptAlike = (
  trx: Knex,
  { batchId, problem }: Pick<Pair, 'batchId' | 'problem'>,
): Promise<number> =>
  trx('batch_pairs')
    .where({ batch_id: batchId, state: 'look', problem: problem && keptProblem(problem) })
    .update({ state: 'ready' })

export const isPlanOfPair = async (db: Knex, planId: string): Promise<boolean> =>
  (await db('batch_pairs').where({ plan_id: planId }).first('id')) !== undefined
/** When the runs of a batch's pairs ended. */
export async function endsOf(db: Knex, batchId: string): Promise<Map<string, string>> {
  const rows = await db('batch_pairs')
    .where({ batch_id: batchId })
    .whereNotNull('ended_at')
    .select('id', 'ended_at')
  return new Map(rows.map(row => [row.id, row.ended_at ?? '']))
}
/** How many pairs of each of some batches are in each state. */
export async function countPairs(
  db: Knex,
  batchIds: readonly string[],
): Promise<Map<string, Partial<Record<PairState, number>>>> {
  if (batchIds.length === 0) return new Map()
  const rows = await selectRows<{ batch_id: string; state: PairState; n: number }>(
    db,
    `SELECT p.batch_id, ${stands} AS state, COUNT(*) AS n FROM batch_pairs p LEFT JOIN runs r ON r.id = p.run_id
     WHERE p.batch_id IN (:batchIds) GROUP BY 1, 2`,
    { batchIds },
  )
  const counts = new Map<string, Partial<Record<PairState, number>>>()
  for (const [id, own] of groupBy(rows, row => row.batch_id))
    counts.set(id, Object.fromEntries(own.map(({ state, n }) => [state, Number(n)])))
  return counts
}
const numbers = [
  'units',
  'items',
  'replaced',
  'cleared',
  'studentRows',
  'dates',
  'settle',
  'alsoSettle',
] as const
/** What all pairs of a batch in some state do together. */
export async function totalsOf(db: Knex, batchId: string, state: PairState): Promise<PairEffect> {
  const sums = numbers.map(name => `COALESCE(SUM(JSON_VALUE(p.effect, '$.${name}')), 0) AS ${name}`)
  const [row] = await selectRows<Record<(typeof numbers)[number], string>>(
    db,
    `SELECT ${sums.join(', ')} FROM batch_pairs p LEFT JOIN runs r ON r.id = p.run_id
     WHERE p.batch_id = :batchId AND ${stands} = :state`,
    { batchId, state },
  )
  return Object.fromEntries(numbers.map(name => [name, Number(row?.[name] ?? 0)])) as unknown as PairEffect
}

/** What is done with a pair by a job of its own. */
export type PairJob = 'batch-try' | 'batch-run' | 'batch-undo'
/** A job of a batch that waits or goes on: which pair it is about. */
export interface OpenJob {
  pairId: string
  kind: PairJob
  state: 'waiting' | 'running'
  done: number
  total: number
}
/** What is being done with pairs of a batch, or waits to be: each is tried and undone by a job of its own, and run by one of its plan. */
export async function openJobs(db: Knex, batchId: string): Promise<OpenJob[]> {
  type Row = Pick<OpenJob, 'kind' | 'state'> & { pair_id: string; done: string; total: string }
  const rows = await selectRows<Row>(
    db,
    `SELECT p.id AS pair_id, j.kind, j.state, j.done, j.total FROM batch_pairs p
     JOIN jobs j ON j.subject = p.id AND j.kind IN ('batch-try', 'batch-undo') AND j.state IN ('waiting', 'running')
     WHERE p.batch_id = :batchId
     UNION ALL
     SELECT p.id, j.kind, j.state, j.done, j.total FROM batch_pairs p
     JOIN jobs j ON j.subject = p.plan_id AND j.kind = 'batch-run' AND j.state IN ('waiting', 'running')
     WHERE p.batch_id = :batchId`,
    { batchId },
  )
  return rows.map(({ pair_id, kind, state, done, total }) => ({
    pairId: pair_id,
    kind,
    state,
    done: Number(done),
    total: Number(total),
  }))
}
/** Takes back what waits of a batch and has not been begun; of some kind, where that is said. */
export async function cancelWaiting(
  trx: Knex,
  batchId: string,
  kinds: readonly PairJob[] = ['batch-try', 'batch-run', 'batch-undo'],
): Promise<void> {
  const own = trx('batch_pairs').where({ batch_id: batchId })
  for (const kind of kinds) {
    const subjects: Knex.QueryBuilder =
      kind === 'batch-run' ? own.clone().whereNotNull('plan_id').select('plan_id') : own.clone().select('id')
    await trx('jobs')
      .where({ kind, state: 'waiting' })
      .whereIn('subject', subjects)
      .update({ state: 'cancelled', token: null, finished_at: stampOf(now()) })
  }
}
/** The pairs of a batch whose runs are being undone together; null where that is not going on. */
export async function undoAsked(db: Knex, batchId: string): Promise<readonly string[] | null> {
  const asked = await db('batch_pairs')
    .where({ batch_id: batchId })
    .whereNotNull('undo_asked_at')
    .pluck<string[]>('id')
  return asked.length > 0 ? asked : null
}
/** That is over: each was undone, or stays as it is. */
export const endUndo = (trx: Knex, batchId: string): Promise<number> =>
  trx('batch_pairs').where({ batch_id: batchId }).update({ undo_asked_at: null })

type NamedColumns = Pick<CourseRow, 'id' | 'source_id' | 'code' | 'section'> &
  Pick<TermRow, 'classes_from'> & { term_code: string; term_name: string }
/** Courses among some as a table of pairs may name them. */
export async function namedCourses(db: Knex, courses: CourseQuery): Promise<NamedCourse[]> {
  const rows = await courses
    .join('terms', 'terms.id', 'courses.term_id')
    .whereIn('origin', ['registrar', 'hand'])
    .select<NamedColumns[]>('courses.id', 'courses.source_id', 'courses.code', 'section', 'classes_from', {
      term_code: 'terms.code',
      term_name: 'terms.name',
    })
  const holding = new Set(await db('items').distinct().pluck('course_id'))
  return rows.map(row => ({
    id: row.id,
    sourceId: row.source_id,
    code: row.code,
    section: row.section,
    term: { code: row.term_code, name: row.term_name, classesFrom: row.classes_from },
    holds: holding.has(row.id),
  }))
}
