import type { Knex } from 'knex'
import { id } from './columns'

/** A section can be linked without a run. */
export async function linkedSections(db: Knex): Promise<void> {
  await db.raw(`ALTER TABLE joined_sections MODIFY run_id ${id} NULL`)
}
