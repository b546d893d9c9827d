import type { Knex } from 'knex'
import { id, shortText, tableOptions, wallTime } from './columns'

/** Units open on dates, items are filed under grading periods, and a course may grant grace allowances. */
export async function otherDates(db: Knex): Promise<void> {
  await db.raw(`ALTER TABLE units ADD opens ${wallTime} NULL AFTER state`)
  await boundYear(db, 'units')
  await db.raw(`ALTER TABLE items ADD grading_period ${shortText} NULL`)
  await db.raw(
    `CREATE TABLE grace_rules (
      course_id ${id} PRIMARY KEY,
      allowances INT NOT NULL,
      days INT NOT NULL,
      adds_up BOOLEAN NOT NULL,
      FOREIGN KEY (course_id) REFERENCES courses (id)
    ) ${tableOptions}`,
  )
  // When the units of the content open in one of its sections.
  await db.raw(
    `CREATE TABLE section_openings (
      course_id ${id} NOT NULL,
      lineage ${id} NOT NULL,
      content_id ${id} NOT NULL,
      opens ${wallTime} NULL,
      PRIMARY KEY (course_id, lineage),
      FOREIGN KEY (course_id) REFERENCES courses (id),
      FOREIGN KEY (content_id, lineage) REFERENCES units (course_id, lineage) ON DELETE CASCADE
    ) ${tableOptions}`,
  )
  await boundYear(db, 'section_openings')
}

/** Dates of a year outside 1970 to 2199 are mistakes (docs/dates.md, section 2). */
async function boundYear(db: Knex, table: string): Promise<void> {
  await db.raw(
    `ALTER TABLE ${table} ADD CONSTRAINT opens_year
     CHECK (opens IS NULL OR opens BETWEEN '1970-01-01T00:00' AND '2199-12-31T23:59')`,
  )
}
