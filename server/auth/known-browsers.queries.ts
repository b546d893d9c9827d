import type { Knex } from 'knex'
import { hashOfSecret, newSecret } from './secrets'

/** A browser is known for so long after the sign-in that made it so. */
export const knownDays = 180
const databaseNow = (db: Knex) => db.raw<string>('UTC_TIMESTAMP(3)')

/** Whether somebody has signed in under a name with the browser that holds a secret. */
export async function isKnownBrowser(db: Knex, secret: string, login: string): Promise<boolean> {
  const row = await db('known_browsers')
    .join('people', 'people.id', 'known_browsers.person_id')
    .where({ token_hash: hashOfSecret(secret), login })
    .where('since', '>', db.raw<string>('DATE_SUB(UTC_TIMESTAMP(3), INTERVAL ? DAY)', [knownDays]))
    .first('person_id')
  return row !== undefined
}
/** Makes a browser known to a person; answers the secret for its cookie. */
export async function insertKnownBrowser(db: Knex, personId: string): Promise<string> {
  const secret = newSecret()
  await db('known_browsers').insert({
    token_hash: hashOfSecret(secret),
    person_id: personId,
    since: databaseNow(db),
  })
  return secret
}
/** Forgets a person's browsers: with a new password everything begins anew. */
export const forgetBrowsersOf = (db: Knex, personId: string): Promise<number> =>
  db('known_browsers').where({ person_id: personId }).delete()
export const dropOldBrowsers = (db: Knex): Promise<number> =>
  db('known_browsers')
    .where('since', '<', db.raw<string>('DATE_SUB(UTC_TIMESTAMP(3), INTERVAL ? DAY)', [knownDays]))
    .delete()
