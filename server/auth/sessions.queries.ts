import type { Knex } from 'knex'
import { now, stampOf } from '../clock'
import { newId } from '../db/rows'
import { hashOfSecret, newSecret } from './secrets'

/** A sign-in lasts so long, then one signs in again (OWASP ASVS 4.0.3, 3.3.2). */
export const sessionHours = 12
const databaseNow = (db: Knex) => db.raw<string>('UTC_TIMESTAMP(3)')
const live = (db: Knex) => db('sessions').whereNull('ended_at').where('expires_at', '>', databaseNow(db))

/** Begins a sign-in; answers the secret for its cookie, which is kept nowhere here. */
export async function insertSession(
  db: Knex,
  personId: string,
  device: string,
): Promise<{ id: string; secret: string }> {
  const id = newId()
  const secret = newSecret()
  const at = stampOf(now())
  await db('sessions').insert({
    id,
    person_id: personId,
    token_hash: hashOfSecret(secret),
    device,
    started_at: at,
    seen_at: at,
    expires_at: db.raw<string>('DATE_ADD(UTC_TIMESTAMP(3), INTERVAL ? HOUR)', [sessionHours]),
  })
  return { id, secret }
}
/** The sign-in of a cookie's secret, where it stands; it is noted that it was seen, at most once a minute. */
export async function seeSession(db: Knex, secret: string): Promise<{ id: string; personId: string } | null> {
  const row = await live(db)
    .where({ token_hash: hashOfSecret(secret) })
    .first('id', 'person_id', 'seen_at')
  if (!row) return null
  if (row.seen_at < stampOf(new Date(now().getTime() - 60_000)))
    await db('sessions')
      .where({ id: row.id })
      .update({ seen_at: stampOf(now()) })
  return { id: row.id, personId: row.person_id }
}
export interface SignIn {
  id: string
  device: string
  startedAt: string
  seenAt: string
}
/** A person's sign-ins that stand, the last seen first. */
export async function sessionsOf(db: Knex, personId: string): Promise<SignIn[]> {
  const rows = await live(db)
    .where({ person_id: personId })
    .orderBy([
      { column: 'seen_at', order: 'desc' },
      { column: 'id', order: 'desc' },
    ])
    .select('id', 'device', 'started_at', 'seen_at')
  return rows.map(row => ({
    id: row.id,
    device: row.device,
    startedAt: row.started_at,
    seenAt: row.seen_at,
  }))
}
/** Ends one sign-in of a person; false where it is none of theirs, or has ended. */
export async function endSession(db: Knex, personId: string, id: string): Promise<boolean> {
  const ended = await live(db)
    .where({ person_id: personId, id })
    .update({ ended_at: stampOf(now()) })
  return ended > 0
}
/** Ends a person's sign-ins, but for one where it is named; answers how many. */
export function endSessionsOf(db: Knex, personId: string, except?: string): Promise<number> {
  const query = live(db).where({ person_id: personId })
  if (except) void query.whereNot({ id: except })
  return query.update({ ended_at: stampOf(now()) })
}
/** Ends the sign-ins of everybody who may not sign in any more. */
export const endClosedSessions = (db: Knex): Promise<number> =>
  db('sessions')
    .whereNull('ended_at')
    .whereIn('person_id', db('people').where({ active: false }).orWhereNull('login').select('id'))
    .update({ ended_at: stampOf(now()) })
/** Forgets sign-ins that ran out a month ago. */
export const dropOldSessions = (db: Knex): Promise<number> =>
  db('sessions')
    .where('expires_at', '<', db.raw<string>('DATE_SUB(UTC_TIMESTAMP(3), INTERVAL 30 DAY)'))
    .delete()
