import type { Knex } from 'knex'
import { now, stampOf } from '../clock'
import { jsonOf } from '../db/rows'

/** A document of rules, or null where none has been laid down. */
export async function loadRules<T>(
  db: Knex,
  name: string,
): Promise<{ revision: number; value: T; by: string; at: string } | null> {
  const row = await db('office_rules')
    .join('people', 'people.id', 'office_rules.person_id')
    .where({ name })
    .first('revision', 'value', 'given_name', 'family_name', 'updated_at')
  return row
    ? {
        revision: row.revision,
        value: jsonOf<T>(row.value),
        by: `${row.given_name} ${row.family_name}`,
        at: row.updated_at,
      }
    : null
}
/** Saves a document that was read at a revision (0: there was none). False where another has changed it since. */
export async function saveRules(
  db: Knex,
  name: string,
  revision: number,
  value: unknown,
  personId: string,
): Promise<boolean> {
  const row = { value: JSON.stringify(value), person_id: personId, updated_at: stampOf(now()) }
  if (revision > 0)
    return (
      (await db('office_rules')
        .where({ name, revision })
        .update({ ...row, revision: revision + 1 })) > 0
    )
  const [result] = (await db.raw(
    'INSERT IGNORE INTO office_rules (name, revision, value, person_id, updated_at) VALUES (?, 1, ?, ?, ?)',
    [name, row.value, row.person_id, row.updated_at],
  )) as [{ affectedRows: number }]
  return result.affectedRows > 0
}
