import type { Knex } from 'knex'
import { hash, id, instant, tableOptions, title } from './columns'

/**
 * Sign-ins that can be ended, guesses that are counted, and links by which a person sets a password. Of a cookie and of a link only
 * the hash is kept. What runs out does so by the database's clock; what a person reads is the application's time.
 */
export async function sessions(db: Knex): Promise<void> {
  await db.raw(
    `CREATE TABLE sessions (
      id ${id} PRIMARY KEY,
      person_id ${id} NOT NULL,
      token_hash ${hash} NOT NULL UNIQUE,
      device ${title} NOT NULL,
      started_at ${instant} NOT NULL,
      seen_at ${instant} NOT NULL,
      expires_at ${instant} NOT NULL,
      ended_at ${instant} NULL,
      INDEX (person_id, ended_at),
      INDEX (expires_at),
      FOREIGN KEY (person_id) REFERENCES people (id)
    ) ${tableOptions}`,
  )
  // "name": SHA-256 of what was named (a sign-in name, a person), since people type passwords where names belong.
  await db.raw(
    `CREATE TABLE guesses (
      id ${id} PRIMARY KEY,
      kind ENUM('sign-in', 'share-code', 'invitation') NOT NULL,
      name ${hash} NOT NULL,
      address VARCHAR(45) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
      at ${instant} NOT NULL,
      INDEX (kind, name, at),
      INDEX (kind, address, at),
      INDEX (at)
    ) ${tableOptions}`,
  )
  await db.raw(
    `CREATE TABLE invitations (
      id ${id} PRIMARY KEY,
      person_id ${id} NOT NULL,
      token_hash ${hash} NOT NULL UNIQUE,
      invited_by ${id} NOT NULL,
      invited_at ${instant} NOT NULL,
      expires_at ${instant} NOT NULL,
      ended_at ${instant} NULL,
      INDEX (person_id, ended_at),
      FOREIGN KEY (person_id) REFERENCES people (id),
      FOREIGN KEY (invited_by) REFERENCES people (id)
    ) ${tableOptions}`,
  )
}
