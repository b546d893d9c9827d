import type { Knex } from 'knex'
import { now, stampOf } from '../clock'
import { json, jsonOf, written } from '../db/rows'
import { fullName } from '../people/names'

/** A document that the academic office has laid down, with the revision it was read at. */
export interface OfficeRules {
  revision: number
  value: unknown
  by: string
  at: string
}
/** A document of rules, or null where none has been laid down. */
export async function loadRules(db: Knex, name: string): Promise<OfficeRules | null> {
  const row = await db('office_rules')
    .join('people', 'people.id', 'office_rules.person_id')
    .where({ name })
    .first('revision', 'value', 'given_name', 'family_name', 'updated_at')
  if (!row) return null
  return { revision: row.revision, value: jsonOf(row.value), by: fullName(row), at: row.updated_at }
}
/** Saves a document that was read at a revision (0: there was none). False where another has changed it since. */
export async function saveRules(
  db: Knex,
  name: string,
  revision: number,
  value: unknown,
  personId: string,
): Promise<boolean> {
  const at = stampOf(now())
  if (revision > 0) {
    const changed = await db('office_rules')
      .where({ name, revision })
      .update({ value: json(value), person_id: personId, updated_at: at, revision: revision + 1 })
    return changed > 0
  }
  const inserted = await written(
    db,
    `INSERT IGNORE INTO office_rules (name, revision, value, person_id, updated_at)
     VALUES (:name, 1, :value, :personId, :at)`,
    { name, value: JSON.stringify(value), personId, at },
  )
  return inserted > 0
}
