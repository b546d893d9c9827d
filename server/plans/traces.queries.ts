import type { Knex } from 'knex'
import type { Looked, Trace } from '../../core/student-data/traces/trace'
import { now, stampOf } from '../clock'
import { json, jsonOf } from '../db/rows'

/** With this the basis of a search begins, in the place of as many letters of a hash: what an older version found is told in another form, and is not read. */
export const searchVersion = 'v2'
export interface TracesFound {
  readonly basis: string
  readonly found: Trace[]
  readonly looked: Looked
}
/** What the last search for traces in a plan's texts found; null where none was made. */
export async function findTraces(db: Knex, planId: string): Promise<TracesFound | null> {
  const row = await db('trace_searches').where({ plan_id: planId }).first()
  if (!row?.basis.startsWith(searchVersion)) return null
  return { basis: row.basis, found: [...jsonOf(row.found)], looked: jsonOf(row.looked) }
}
/** Keeps what was found; nothing where the plan was discarded while it was searched. */
export async function keepTraces(
  db: Knex,
  planId: string,
  { basis, found, looked }: TracesFound,
): Promise<void> {
  await db.raw(
    `INSERT INTO trace_searches (plan_id, basis, found, looked, searched_at)
     SELECT id, :basis, :found, :looked, :at FROM plans WHERE id = :planId LOCK IN SHARE MODE
     ON DUPLICATE KEY UPDATE basis = VALUES(basis), found = VALUES(found), looked = VALUES(looked),
       searched_at = VALUES(searched_at)`,
    { planId, basis, found: json<readonly Trace[]>(found), looked: json(looked), at: stampOf(now()) },
  )
}
/** What was found names students: it is kept no longer than the plan is one. */
export const forgetTraces = async (trx: Knex, planId: string): Promise<void> => {
  await trx('trace_searches').where({ plan_id: planId }).delete()
}
