import type { Knex } from 'knex'
import type { z } from 'zod'
import { present } from '../../core/present'
import { now, stampOf } from '../clock'
import { inBatches, json, jsonOf, newId } from '../db/rows'
import { inTransaction } from '../db/transaction'
import type { JobRow } from '../db/tables'
import type { NewJob } from '../work/kinds'
import type { JobKinds } from './kind'

export interface Job<P = unknown> {
  id: string
  kind: string
  subject: string
  personId: string | null
  payload: P
  attempts: number
  token: string
  /** How long whoever holds it may be silent. */
  leaseSeconds: number
}
/** A job and the token of whoever holds it. */
export type HeldJob = Pick<Job, 'id' | 'token' | 'leaseSeconds'>
export interface JobView {
  id: string
  kind: string
  state: JobRow['state']
  done: number
  total: number
  problem: string | null
}

// Leases run on the database's clock: the processes' clocks may differ, and a demo's stands still.
const inSeconds = (db: Knex, seconds: number) =>
  db.raw<string>('DATE_ADD(UTC_TIMESTAMP(3), INTERVAL ? SECOND)', [seconds])
const databaseNow = (db: Knex) => db.raw<string>('UTC_TIMESTAMP(3)')

export async function addJob(db: Knex, job: NewJob): Promise<string> {
  const row = rowOf(job)
  await db('jobs').insert(row)
  return row.id
}
/** Lays down many jobs at once; they are begun in this order. */
export async function addJobs(db: Knex, jobs: readonly NewJob[]): Promise<void> {
  for (const batch of inBatches(jobs)) await db('jobs').insert(batch.map(rowOf))
}
const rowOf = (job: NewJob) => ({
  id: newId(),
  kind: job.kind,
  subject: job.subject,
  person_id: job.personId,
  payload: json(job.payload),
  state: 'waiting' as const,
  created_at: stampOf(now()),
})

/** The oldest job (of some kinds) that waits, or one whose holder has stopped answering; nobody else gets it meanwhile. */
async function nextJob(trx: Knex, kinds: readonly string[]): Promise<JobRow | undefined> {
  const lost = await trx('jobs')
    .whereIn('kind', kinds)
    .where({ state: 'running' })
    .where('lease_until', '<', databaseNow(trx))
    .forUpdate()
    .skipLocked()
    .first()
  if (lost) return lost
  const waiting: JobRow[] = []
  // By its index each kind gives its oldest, and nothing else is locked: several processes take from one queue at once.
  for (const kind of kinds)
    waiting.push(
      ...(await trx('jobs')
        .where({ kind, state: 'waiting' })
        .where(due => due.whereNull('not_before').orWhere('not_before', '<=', databaseNow(trx)))
        .orderBy(['created_at', 'id'])
        .limit(1)
        .forUpdate()
        .skipLocked()),
    )
  return waiting.sort((a, b) => a.created_at.localeCompare(b.created_at) || a.id.localeCompare(b.id))[0]
}
/** Takes a job for a while; null where there is none. Several processes may ask at once. */
export async function claimJob<K extends JobKinds>(
  db: Knex,
  kinds: K,
): Promise<Job<z.output<K[keyof K]['payload']>> | null> {
  return inTransaction(db, async trx => {
    const row = await nextJob(trx, Object.keys(kinds))
    if (!row) return null
    const { leaseSeconds, triesAtMost, payload: asked } = present(kinds[row.kind])
    const job = trx('jobs').where({ id: row.id })
    if (row.state === 'running' && row.attempts >= triesAtMost) {
      await job.update({
        state: 'failed',
        token: null,
        problem: `It was begun ${row.attempts} times and never finished.\nNothing was written. Tell the help desk.`,
        finished_at: stampOf(now()),
      })
      return null
    }
    const token = newId()
    const attempts = row.attempts + 1
    await job.update({
      state: 'running',
      token,
      lease_until: inSeconds(trx, leaseSeconds),
      attempts,
      step: null,
      done: 0,
      total: 0,
    })
    const { id, kind, subject, person_id } = row
    const payload = asked.parse(jsonOf(row.payload)) as z.output<K[keyof K]['payload']>
    return { id, kind, subject, personId: person_id, payload, token, attempts, leaseSeconds }
  })
}

const heldBy = (db: Knex, { id, token }: HeldJob) => db('jobs').where({ id, token, state: 'running' })
/** Says that a job is still being worked on, and how far it is. False where it is no longer ours: cancelled, or claimed by another. */
export async function beat(
  db: Knex,
  job: HeldJob,
  progress: { step?: string; done: number; total: number },
): Promise<boolean> {
  const changed = await heldBy(db, job).update({
    lease_until: inSeconds(db, job.leaseSeconds),
    ...(progress.step && { step: progress.step }),
    done: Math.round(progress.done),
    total: Math.round(progress.total),
  })
  return changed > 0
}
/** Says that a job is still being worked on by this process, whatever it is busy with. */
export const keepLease = (db: Knex, job: HeldJob): Promise<number> =>
  heldBy(db, job).update({ lease_until: inSeconds(db, job.leaseSeconds) })
/**
 * Holds a job for the transaction that does its work, so that it cannot be cancelled half-way; false where it is no longer ours. Its row is
 * written: whoever cancels it on another node of a cluster loses then, or we do.
 */
export async function holdJob(trx: Knex.Transaction, job: HeldJob): Promise<boolean> {
  return (await heldBy(trx, job).update({ lease_until: inSeconds(trx, job.leaseSeconds) })) > 0
}
export async function endJob(
  db: Knex,
  job: HeldJob,
  state: 'done' | 'failed',
  problem: string | null = null,
): Promise<boolean> {
  const end = { state, problem, token: null, finished_at: stampOf(now()) }
  return (await heldBy(db, job).update(end)) > 0
}
/** Puts a job back, to be begun again after some seconds. */
export async function postponeJob(db: Knex, job: HeldJob, seconds: number, problem: string): Promise<void> {
  await heldBy(db, job).update({
    state: 'waiting',
    token: null,
    problem,
    not_before: inSeconds(db, seconds),
  })
}
/** Cancels what waits or goes on about something; answers how many that were. */
export function cancelJobs(db: Knex, subject: string, kinds?: readonly string[]): Promise<number> {
  return db('jobs')
    .where({ subject })
    .modify(query => (kinds ? query.whereIn('kind', kinds) : query))
    .whereIn('state', ['waiting', 'running'])
    .update({ state: 'cancelled', token: null, finished_at: stampOf(now()) })
}
/** Forgets jobs that ended over thirty days ago. */
export const dropOldJobs = (db: Knex): Promise<number> =>
  db('jobs')
    .where('finished_at', '<', stampOf(new Date(now().getTime() - 30 * 86_400_000)))
    .delete()
/** The latest job about each of some things. */
export async function latestJobs(db: Knex, subjects: readonly string[]): Promise<Map<string, JobView>> {
  const rows = await db('jobs')
    .whereIn('subject', subjects)
    .orderBy('id')
    .select('subject', 'id', 'kind', 'state', 'done', 'total', 'problem')
  return new Map(rows.map(({ subject, ...view }) => [subject, view]))
}
