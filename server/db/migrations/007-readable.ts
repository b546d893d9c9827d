import type { Knex } from 'knex'
import { hash, instant, tableOptions } from './columns'

/** What may be shown of a body (safe HTML, or questions), made once; `version`: of the rules it was made by. */
export async function readableBodies(db: Knex): Promise<void> {
  await db.raw(
    `CREATE TABLE readable_bodies (
      hash ${hash} NOT NULL,
      form ENUM('page', 'questions') NOT NULL,
      version INT NOT NULL,
      value LONGTEXT CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL,
      made_at ${instant} NOT NULL,
      PRIMARY KEY (hash, form)
    ) ${tableOptions}`,
  )
}
