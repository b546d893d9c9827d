import type { Knex } from 'knex'
import { shortText } from './columns'

/** Phone numbers of a roster are known by keyed hashes alone, so that they are found in texts. */
export async function phoneKeys(db: Knex): Promise<void> {
  await db.raw(`ALTER TABLE people ADD phone_keys ${shortText} NULL`)
}
