import type { Knex } from 'knex'
import { hashOfSecret, newSecret } from '../auth/secrets'
import { now, stampOf } from '../clock'
import { newId } from '../db/rows'

/** A link to set a password is valid for so long. */
export const invitationDays = 7
const live = (db: Knex) =>
  db('invitations').whereNull('ended_at').where('expires_at', '>', db.raw<string>('UTC_TIMESTAMP(3)'))

/** Makes an invitation; answers its secret, which is kept nowhere here. */
export async function insertInvitation(db: Knex, personId: string, by: string): Promise<string> {
  const secret = newSecret()
  await db('invitations').insert({
    id: newId(),
    person_id: personId,
    token_hash: hashOfSecret(secret),
    invited_by: by,
    invited_at: stampOf(now()),
    expires_at: db.raw<string>('DATE_ADD(UTC_TIMESTAMP(3), INTERVAL ? DAY)', [invitationDays]),
  })
  return secret
}
/** Whom a link invites, where it still does. */
export async function invited(db: Knex, secret: string): Promise<{ id: string; personId: string } | null> {
  const row = await live(db)
    .where({ token_hash: hashOfSecret(secret) })
    .first('id', 'person_id')
  return row ? { id: row.id, personId: row.person_id } : null
}
/** Ends the links of a person; answers how many there were. */
export const endInvitationsOf = (db: Knex, personId: string): Promise<number> =>
  live(db)
    .where({ person_id: personId })
    .update({ ended_at: stampOf(now()) })
/** Ends one link; false where it has ended already. */
export async function endInvitation(db: Knex, id: string): Promise<boolean> {
  const ended = await live(db)
    .where({ id })
    .update({ ended_at: stampOf(now()) })
  return ended > 0
}
/** When each of some people was invited, where the link still holds. */
export async function invitedAmong(db: Knex, personIds: readonly string[]): Promise<Map<string, string>> {
  const rows = await live(db).whereIn('person_id', personIds).select('person_id', 'invited_at')
  return new Map(rows.map(row => [row.person_id, row.invited_at]))
}
