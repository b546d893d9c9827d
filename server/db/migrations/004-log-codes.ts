import type { Knex } from 'knex'

/** Codes that open a course do not stand in the log, where others than those who were given one read and search it. */
export async function forgetCodes(db: Knex): Promise<void> {
  await db.raw(`UPDATE log SET detail = JSON_REMOVE(detail, '$.code') WHERE action = 'share.used'`)
}
