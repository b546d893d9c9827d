import type { Knex } from 'knex'
import { id, instant, key, tableOptions } from './columns'

/**
 * Turns: a row for whatever may happen only once at a time (a write into a course, the duties of the office), written by whoever takes
 * it. And a token for who is writing into a shell, so that one who was given up for lost cannot end another's.
 */
export async function turns(db: Knex): Promise<void> {
  await db.raw(
    `CREATE TABLE turns (
      name ${key} PRIMARY KEY,
      taken BIGINT UNSIGNED NOT NULL,
      at ${instant} NOT NULL,
      INDEX (at)
    ) ${tableOptions}`,
  )
  await db.raw(`DELETE FROM writing`)
  await db.raw(`ALTER TABLE writing ADD COLUMN token ${id} NOT NULL`)
}
