import type { Knex } from 'knex'

/** Whether the registrar still lists somebody decides what they may do: the index that finds staff answers it too. */
export async function staffIndex(db: Knex): Promise<void> {
  await db.raw(
    'ALTER TABLE enrolments DROP INDEX staff, ADD INDEX staff (role, course_id, person_id, dropped_at, missing_since, is_primary)',
  )
}
