import type { Knex } from 'knex'

/** Asks the database for anything at all. @throws where it does not answer. */
export async function pingDatabase(db: Knex): Promise<void> {
  await db.raw('SELECT 1')
}
