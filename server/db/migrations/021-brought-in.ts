import type { Knex } from 'knex'
import { id } from './columns'

/**
 * What comes with a course that is brought in: a later file of a course is a course of its own until it has been compared; a course without
 * a calendar has a term of its own; and students whom its roster names are lines of that course alone, gone with it.
 */
export async function broughtIn(db: Knex): Promise<void> {
  await db.raw(
    `ALTER TABLE courses MODIFY origin
       ENUM('registrar', 'hand', 'awaited', 'template', 'snapshot', 'version', 'file') NOT NULL DEFAULT 'registrar'`,
  )
  await db.raw(`ALTER TABLE terms ADD own BOOLEAN NOT NULL DEFAULT FALSE`)
  await db.raw(
    `ALTER TABLE people ADD of_course ${id} NULL,
       ADD FOREIGN KEY (of_course) REFERENCES courses (id) ON DELETE CASCADE`,
  )
}
