import type { Knex } from 'knex'
import { countOf, selectRows } from '../db/rows'
import { contentTables } from './content.queries'

/** What content takes: bytes of bodies, each counted once; how many of them no other course shares; rows, by their mean length. */
export interface Storage {
  bodies: number
  own: number
  rows: number
  rowBytes: number
}

export async function storageOf(db: Knex, courseIds: readonly string[]): Promise<Storage> {
  const ids = [...courseIds]
  const [bodies] = await selectRows<{ bodies: string; own: string }>(
    db,
    `SELECT COALESCE(SUM(size), 0) AS bodies, COALESCE(SUM(IF(elsewhere, 0, size)), 0) AS own
     FROM (
       SELECT b.hash, b.size,
         EXISTS (SELECT 1 FROM items o WHERE o.body_hash = b.hash AND o.course_id NOT IN (:ids)) AS elsewhere
       FROM bodies b
       WHERE b.hash IN (SELECT body_hash FROM items WHERE course_id IN (:ids))
     ) each_once`,
    { ids },
  )
  const storage = { bodies: Number(bodies?.bodies ?? 0), own: Number(bodies?.own ?? 0), rows: 0, rowBytes: 0 }
  for (const table of contentTables) {
    const count = await countOf(db(table).whereIn('course_id', ids))
    storage.rows += count
    storage.rowBytes += count * (await meanRowLength(db, table))
  }
  return storage
}
async function meanRowLength(db: Knex, table: string): Promise<number> {
  const [row] = await selectRows<{ mean: number | null }>(
    db,
    `SELECT avg_row_length AS mean FROM information_schema.tables
     WHERE table_schema = DATABASE() AND table_name = ?`,
    [table],
  )
  return Number(row?.mean ?? 0)
}
