import type { Knex } from 'knex'
import { hash, id, instant, longText, tableOptions, title } from './columns'

/** A plan adds things of its own, brings items as frames or with other settings, and takes away what stands around the units. */
export async function added(db: Knex): Promise<void> {
  // "alone": taken by itself from a course that is no source; it waits for nothing that stands there.
  await db.raw(
    `ALTER TABLE run_entries
       ADD text_from ENUM('source', 'made', 'none') NOT NULL DEFAULT 'source',
       ADD settings JSON NULL,
       ADD exam BOOLEAN NULL,
       ADD alone BOOLEAN NOT NULL DEFAULT FALSE`,
  )
  await db.raw(`ALTER TABLE carried ADD wrote_settings ${hash} NULL`)
  // What is searched: a title with the text of its body, once for all courses that hold the two.
  await db.raw(
    `CREATE TABLE searched (
      id ${hash} PRIMARY KEY,
      body_hash ${hash} NULL,
      title ${title} NOT NULL,
      text ${longText.replace('TEXT', 'MEDIUMTEXT')} NOT NULL,
      INDEX (body_hash),
      FULLTEXT INDEX title_words (title),
      FULLTEXT INDEX all_words (title, text)
    ) ${tableOptions}`,
  )
  // What was changed in a course itself, and how to take it back.
  await db.raw(
    `CREATE TABLE course_edits (
      id ${id} PRIMARY KEY,
      course_id ${id} NOT NULL,
      person_id ${id} NOT NULL,
      at ${instant} NOT NULL,
      words ${longText} NOT NULL,
      former JSON NOT NULL,
      undone_at ${instant} NULL,
      INDEX (course_id, at),
      FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE,
      FOREIGN KEY (person_id) REFERENCES people (id)
    ) ${tableOptions}`,
  )
  // What stands on a shelf is improved there: each version before is kept, as a course that nobody rolls from.
  await db.raw(
    `ALTER TABLE courses MODIFY origin
       ENUM('registrar', 'hand', 'awaited', 'template', 'snapshot', 'version') NOT NULL DEFAULT 'registrar'`,
  )
  await db.raw(
    `ALTER TABLE templates
       ADD version INT NOT NULL DEFAULT 1,
       ADD note ${title} NOT NULL DEFAULT '',
       ADD open_to_colleagues BOOLEAN NOT NULL DEFAULT FALSE`,
  )
  await db.raw(
    `CREATE TABLE template_versions (
      template_id ${id} NOT NULL,
      number INT NOT NULL,
      course_id ${id} NOT NULL,
      person_id ${id} NOT NULL,
      kept_at ${instant} NOT NULL,
      note ${title} NOT NULL,
      PRIMARY KEY (template_id, number),
      FOREIGN KEY (template_id) REFERENCES courses (id),
      FOREIGN KEY (course_id) REFERENCES courses (id),
      FOREIGN KEY (person_id) REFERENCES people (id)
    ) ${tableOptions}`,
  )
  // Where such a title with such a body stands.
  await db.raw(
    `CREATE TABLE searched_items (
      course_id ${id} NOT NULL,
      lineage ${id} NOT NULL,
      searched_id ${hash} NOT NULL,
      PRIMARY KEY (course_id, lineage),
      INDEX (searched_id, course_id),
      FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE
    ) ${tableOptions}`,
  )
}
