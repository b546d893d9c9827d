import type { Knex } from 'knex'
import { id, instant } from './columns'

/**
 * Who took a share back: a plan that rested on it says whom to ask (unknown of shares that ended before). And when a template
 * was retired: it is not offered any more, and what was rolled from it stays.
 */
export async function endingShares(db: Knex): Promise<void> {
  await db.raw(
    `ALTER TABLE shares ADD COLUMN revoked_by ${id} NULL, ADD CONSTRAINT shares_revoked_by FOREIGN KEY (revoked_by) REFERENCES people (id)`,
  )
  await db.raw(`ALTER TABLE templates ADD COLUMN retired_at ${instant} NULL`)
}
