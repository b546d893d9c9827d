import type { Knex } from 'knex'
import { migrations } from './migrations'

/** Reads a table: a node that is out of its cluster answers questions that need none. @throws where it cannot be read. */
export async function readATable(db: Knex): Promise<void> {
  await db('terms').first('id')
}
/** Whether the schema is the one that this application works with. */
export async function isSchemaCurrent(db: Knex): Promise<boolean> {
  const done = await db<{ name: string }>('knex_migrations').pluck('name')
  return Object.keys(migrations).every(name => done.includes(name))
}
