import type { Knex } from 'knex'
import { decimal, hash, id, instant, key, longText, tableOptions, title, wallTime, word } from './columns'

/** What kinds of student data have beyond whom they are about: their columns, and whether a course as a whole can be meant. */
const kinds: Readonly<Record<string, { columns: string; about: 'item' | 'course'; once?: true }>> = {
  reports: {
    about: 'item',
    columns: `service ${title} NOT NULL, made_at ${instant} NOT NULL, overlap ${decimal} NULL`,
  },
  journals: { about: 'item', columns: `written_at ${instant} NOT NULL, body_hash ${hash} NULL` },
  comments: { about: 'item', columns: `written_at ${instant} NOT NULL, body_hash ${hash} NULL` },
  follows: { about: 'item', columns: `since ${instant} NOT NULL`, once: true },
  memberships: { about: 'course', columns: `group_name ${title} NOT NULL` },
  answers: { about: 'item', columns: `answered_at ${instant} NOT NULL, answer ${longText} NOT NULL` },
  completions: { about: 'item', columns: `finished_at ${instant} NOT NULL`, once: true },
  attendances: { about: 'course', columns: `held_at ${wallTime} NOT NULL, mark ${key} NOT NULL` },
  notes: { about: 'course', columns: `written_at ${instant} NOT NULL, body_hash ${hash} NULL` },
  awards: { about: 'course', columns: `award ${title} NOT NULL, given_at ${instant} NOT NULL` },
  visits: { about: 'course', columns: `visited_at ${instant} NOT NULL` },
  accommodations: { about: 'course', columns: `times ${decimal} NOT NULL, reason ${title} NOT NULL` },
  allowances: { about: 'item', columns: `used_at ${instant} NOT NULL, days INT NOT NULL` },
  events: { about: 'course', columns: `title ${title} NOT NULL, starts ${wallTime} NOT NULL` },
}

/** Every kind of student data, what tells students in texts, what was found there, and what is kept aside after clearing. */
export async function studentDataInFull(db: Knex): Promise<void> {
  for (const [name, { columns, about, once }] of Object.entries(kinds)) {
    const lineage = about === 'item' ? 'NOT NULL' : 'NULL'
    const body = columns.includes('body_hash') ? ', FOREIGN KEY (body_hash) REFERENCES bodies (hash)' : ''
    await db.raw(
      `CREATE TABLE ${name} (
        ${once ? '' : `id ${id} PRIMARY KEY,`}
        enrolment_id ${id} NOT NULL,
        item_lineage ${id} ${lineage},
        ${columns},
        ${once ? 'PRIMARY KEY (enrolment_id, item_lineage)' : 'INDEX (enrolment_id)'},
        FOREIGN KEY (enrolment_id) REFERENCES enrolments (id)${body}
      ) ${tableOptions}`,
    )
  }
  // By what else somebody is told in a text: other names, and what the institution calls them by. It lets nobody sign in.
  await db.raw(
    `ALTER TABLE people ADD middle_name ${title} NULL, ADD nickname ${title} NULL, ADD number ${key} NULL,
       ADD user_name ${key} NULL`,
  )
  // Traces of students in what a plan carries, as they were last searched for; "basis" stands for all that was searched.
  await db.raw(
    `CREATE TABLE trace_searches (
      plan_id ${id} PRIMARY KEY,
      basis ${hash} NOT NULL,
      found JSON NOT NULL,
      looked JSON NOT NULL,
      searched_at ${instant} NOT NULL,
      FOREIGN KEY (plan_id) REFERENCES plans (id) ON DELETE CASCADE
    ) ${tableOptions}`,
  )
  await db.raw('ALTER TABLE runs ADD traces JSON NULL')
  // Whose students may stand in the texts of a template, which has none of its own: those of the courses that it was made from.
  await db.raw(
    `CREATE TABLE template_sources (
      template_id ${id} NOT NULL,
      course_id ${id} NOT NULL,
      PRIMARY KEY (template_id, course_id),
      FOREIGN KEY (template_id) REFERENCES templates (course_id) ON DELETE CASCADE,
      FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE
    ) ${tableOptions}`,
  )
  await db.raw(
    `INSERT INTO template_sources (template_id, course_id)
     SELECT DISTINCT t.course_id, other.course_id
     FROM templates t
     JOIN items own ON own.course_id = t.course_id
     JOIN items other ON other.lineage = own.lineage
     JOIN courses c ON c.id = other.course_id AND c.origin IN ('registrar', 'hand', 'snapshot')`,
  )
  // What was cleared, whole, so that it can be put back until the day that the office sets.
  await db.raw(
    `CREATE TABLE clearings (
      id ${id} PRIMARY KEY,
      course_id ${id} NOT NULL,
      run_id ${id} NULL,
      person_id ${id} NOT NULL,
      cleared_at ${instant} NOT NULL,
      keep_until ${instant} NOT NULL,
      counts JSON NOT NULL,
      state ENUM('kept', 'restored', 'destroyed') NOT NULL DEFAULT 'kept',
      ended_at ${instant} NULL,
      ended_by ${id} NULL,
      INDEX (course_id, state),
      INDEX (state, keep_until),
      FOREIGN KEY (course_id) REFERENCES courses (id),
      FOREIGN KEY (run_id) REFERENCES runs (id),
      FOREIGN KEY (person_id) REFERENCES people (id),
      FOREIGN KEY (ended_by) REFERENCES people (id)
    ) ${tableOptions}`,
  )
  await db.raw(
    `CREATE TABLE kept_aside (
      id ${id} PRIMARY KEY,
      clearing_id ${id} NOT NULL,
      kind ${word} NOT NULL,
      enrolment_id ${id} NOT NULL,
      item_lineage ${id} NULL,
      former JSON NOT NULL,
      body_hash ${hash} NULL,
      INDEX (clearing_id, kind),
      FOREIGN KEY (clearing_id) REFERENCES clearings (id) ON DELETE CASCADE,
      FOREIGN KEY (body_hash) REFERENCES bodies (hash)
    ) ${tableOptions}`,
  )
}
