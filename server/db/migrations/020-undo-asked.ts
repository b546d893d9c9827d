import type { Knex } from 'knex'
import { instant } from './columns'

/** That the run of a pair is to be undone, with others of its batch, is a fact of the pair; it stood in what a job was given. */
export async function undoAskedAt(db: Knex): Promise<void> {
  await db.raw(`ALTER TABLE batch_pairs ADD undo_asked_at ${instant} NULL`)
  await db.raw(
    `UPDATE batch_pairs p JOIN jobs j ON j.subject = p.batch_id AND j.kind = 'batch' AND j.state IN ('waiting', 'running')
     SET p.undo_asked_at = j.created_at WHERE JSON_CONTAINS(j.payload, JSON_QUOTE(p.id), '$.undo')`,
  )
}
