import type { Knex } from 'knex'
import { now, stampOf } from '../clock'
import { jsonOf, newId } from '../db/rows'

export interface Job {
  id: string
  kind: string
  subject: string
  personId: string | null
  attempts: number
  payload: Record<string, unknown>
  token: string
}
export interface JobView {
  id: string
  kind: string
  state: 'waiting' | 'running' | 'done' | 'failed' | 'cancelled'
  done: number
  total: number
  problem: string | null
}

const leaseSeconds = 30
// Leases run on the database's clock: the processes' clocks may differ, and a demo's stands still.
const leaseEnd = (db: Knex) => db.raw('DATE_ADD(UTC_TIMESTAMP(3), INTERVAL ? SECOND)', [leaseSeconds])

export async function addJob(
  db: Knex,
  job: { kind: string; subject: string; personId: string | null; payload: unknown },
): Promise<string> {
  const id = newId()
  await db('jobs').insert({
    id,
    kind: job.kind,
    subject: job.subject,
    person_id: job.personId,
    payload: JSON.stringify(job.payload),
    state: 'waiting',
    created_at: stampOf(now()),
  })
  return id
}

/** Takes the oldest job (of some kinds) that waits, or whose holder has stopped answering. Several processes may ask at once. */
export async function claimJob(db: Knex, kinds?: readonly string[]): Promise<Job | null> {
  return db.transaction(async trx => {
    const row = await trx('jobs')
      .where(any =>
        any
          .where(ready =>
            ready
              .where({ state: 'waiting' })
              .where(due =>
                due.whereNull('not_before').orWhere('not_before', '<=', trx.raw('UTC_TIMESTAMP(3)')),
              ),
          )
          .orWhere(lost =>
            lost.where({ state: 'running' }).where('lease_until', '<', trx.raw('UTC_TIMESTAMP(3)')),
          ),
      )
      .modify(query => {
        if (kinds) void query.whereIn('kind', kinds)
      })
      .orderBy('created_at')
      .orderBy('id')
      .forUpdate()
      .skipLocked()
      .first()
    if (!row) return null
    if (row.state === 'running' && row.attempts >= 3) {
      await trx('jobs')
        .where({ id: row.id })
        .update({
          state: 'failed',
          token: null,
          problem: 'It was begun three times and never finished.',
          finished_at: stampOf(now()),
        })
      return null
    }
    const token = newId()
    await trx('jobs')
      .where({ id: row.id })
      .update({
        state: 'running',
        token,
        lease_until: leaseEnd(trx),
        attempts: row.attempts + 1,
        done: 0,
        total: 0,
      })
    return {
      id: row.id,
      kind: row.kind,
      subject: row.subject,
      personId: row.person_id,
      payload: jsonOf(row.payload),
      token,
      attempts: row.attempts + 1,
    }
  })
}

/** Says that a job is still being worked on, and how far it is. False where it is no longer ours: cancelled, or taken over. */
export async function beat(
  db: Knex,
  job: Pick<Job, 'id' | 'token'>,
  progress: { done: number; total: number },
): Promise<boolean> {
  return (
    (await db('jobs')
      .where({ id: job.id, token: job.token, state: 'running' })
      .update({
        lease_until: leaseEnd(db),
        done: Math.round(progress.done),
        total: Math.round(progress.total),
      })) > 0
  )
}

/** Holds a job for the transaction that does its work, so that it cannot be cancelled half-way; false where it is no longer ours. */
export async function holdJob(trx: Knex.Transaction, job: Pick<Job, 'id' | 'token'>): Promise<boolean> {
  return Boolean(
    await trx('jobs').where({ id: job.id, token: job.token, state: 'running' }).forUpdate().first('id'),
  )
}
export async function endJob(
  db: Knex,
  job: Pick<Job, 'id' | 'token'>,
  state: 'done' | 'failed',
  problem: string | null = null,
): Promise<boolean> {
  return (
    (await db('jobs')
      .where({ id: job.id, token: job.token, state: 'running' })
      .update({ state, problem, token: null, finished_at: stampOf(now()) })) > 0
  )
}
/** Puts a job back, to be begun again after some seconds. */
export async function postponeJob(
  db: Knex,
  job: Pick<Job, 'id' | 'token'>,
  seconds: number,
  problem: string,
): Promise<void> {
  await db('jobs')
    .where({ id: job.id, token: job.token, state: 'running' })
    .update({
      state: 'waiting',
      token: null,
      problem,
      not_before: db.raw('DATE_ADD(UTC_TIMESTAMP(3), INTERVAL ? SECOND)', [seconds]),
    })
}
export async function cancelJobs(db: Knex, subject: string): Promise<void> {
  await db('jobs')
    .where({ subject })
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
  const rows = await db('jobs').whereIn('subject', subjects).orderBy('id')
  return new Map(
    rows.map(row => [
      row.subject,
      {
        id: row.id,
        kind: row.kind,
        state: row.state,
        done: Number(row.done),
        total: Number(row.total),
        problem: row.problem,
      },
    ]),
  )
}
