import type { Knex } from 'knex'
import { hash, id, instant, tableOptions } from './columns'

/**
 * Browsers in which somebody has signed in before: wrong guesses that others make, at their name or from their network, do not keep them
 * waiting there. Of the cookie only the hash is kept.
 */
export async function knownBrowsers(db: Knex): Promise<void> {
  await db.raw(
    `CREATE TABLE known_browsers (
      token_hash ${hash} PRIMARY KEY,
      person_id ${id} NOT NULL,
      since ${instant} NOT NULL,
      INDEX (person_id),
      INDEX (since),
      FOREIGN KEY (person_id) REFERENCES people (id)
    ) ${tableOptions}`,
  )
}
