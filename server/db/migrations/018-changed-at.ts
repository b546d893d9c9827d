import type { Knex } from 'knex'

/** What a course's content is read from. */
const tables = [
  'items',
  'units',
  'grade_categories',
  'grade_rules',
  'grace_rules',
  'rubrics',
  'work_groups',
  'furnishings',
  'carried_bases',
  'section_dates',
  'section_openings',
] as const

/**
 * Every row of a course's content says when it was written last, so that it is known without reading it whether a course stands as it did.
 * The database sees to that itself, whoever writes; the column is invisible, since it is no part of the content.
 */
export async function changedAt(db: Knex): Promise<void> {
  for (const table of tables)
    await db.raw(
      `ALTER TABLE ${table} ADD changed_at DATETIME(6) INVISIBLE NOT NULL
       DEFAULT CURRENT_TIMESTAMP(6) ON UPDATE CURRENT_TIMESTAMP(6)`,
    )
}
