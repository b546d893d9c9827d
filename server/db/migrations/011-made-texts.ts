import type { Knex } from 'knex'
import { hash, title } from './columns'

/** A run makes texts of its own: of one heading of an item, of several items, or passage by passage. */
export async function madeTexts(db: Knex): Promise<void> {
  await db.raw(
    `ALTER TABLE carried
       MODIFY how ENUM('carried', 'into', 'kept', 'left', 'template') NOT NULL,
       ADD wrote ${hash} NULL`,
  )
  await db.raw(`ALTER TABLE run_entries ADD title ${title} NULL`)
}
