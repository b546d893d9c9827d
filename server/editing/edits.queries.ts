import type { Knex } from 'knex'
import { rowOfItemFields } from '../../core/course/fields'
import type { MadeThing } from '../../core/carry/added'
import type { ThingChange } from '../../core/editing/parts'
import type { ItemDates } from '../../core/course/dates'
import type { ItemState } from '../../core/course/model'
import { pointsText } from '../../core/grading/points'
import { now, stampOf } from '../clock'
import { json, jsonOf, newId, selectRows, written } from '../db/rows'
import { shortName, type NamedRow } from '../people/names'

/** Where something stands, or stood. */
export interface Stands {
  lineage: string
  title: string
  parent: string | null
  position: number
}
/** What can be said of an item by files: its dates, its points and where it counts, as its row has them. */
export interface FormerFields extends ItemDates {
  lineage: string
  points: string | null
  category: string | null
  gradingPeriod: string | null
}
/** What a change took the place of: names and places as they were, dates and points as they were, and what it added. */
export interface Former {
  stood: Stands[]
  added: string | null
  /** Of edits of before parts were kept each by itself. */
  fields?: FormerFields[]
  /** What it changed part by part. */
  changes?: ThingChange[]
  /** The line of the log that tells it. */
  log?: string
}

/** Writes dates, points, categories and grading periods of some items, all at once. */
export async function putFields(trx: Knex, courseId: string, fields: readonly FormerFields[]): Promise<void> {
  const wall = 'CHAR(16) CHARACTER SET ascii COLLATE ascii_bin'
  await written(
    trx,
    `UPDATE items t
     JOIN JSON_TABLE(:fields, '$[*]' COLUMNS (
       lineage CHAR(36) CHARACTER SET ascii COLLATE ascii_bin PATH '$.lineage',
       opens ${wall} PATH '$.opens', due ${wall} PATH '$.due', closes ${wall} PATH '$.closes',
       points DECIMAL(12,4) PATH '$.points',
       category CHAR(36) CHARACTER SET ascii COLLATE ascii_bin PATH '$.category',
       period VARCHAR(200) CHARACTER SET utf8mb4 PATH '$.gradingPeriod')) f ON f.lineage = t.lineage
     SET t.opens = f.opens, t.due = f.due, t.closes = f.closes, t.points = f.points,
       t.category_lineage = f.category, t.grading_period = f.period
     WHERE t.course_id = :courseId`,
    { courseId, fields: JSON.stringify(fields) },
  )
}

/** Writes names and places of some units and items, all at once. */
export async function putStands(trx: Knex, courseId: string, stands: readonly Stands[]): Promise<void> {
  for (const table of ['units', 'items'])
    await written(
      trx,
      `UPDATE ${table} t
       JOIN JSON_TABLE(:stands, '$[*]' COLUMNS (
         lineage CHAR(36) CHARACTER SET ascii COLLATE ascii_bin PATH '$.lineage',
         title VARCHAR(500) CHARACTER SET utf8mb4 PATH '$.title',
         parent CHAR(36) CHARACTER SET ascii COLLATE ascii_bin PATH '$.parent',
         position INT PATH '$.position')) p ON p.lineage = t.lineage
       SET t.title = p.title, t.parent_lineage = p.parent, t.position = p.position
       WHERE t.course_id = :courseId`,
      { courseId, stands: JSON.stringify(stands) },
    )
}
/** Writes a new unit or item. @param body hash of its text, where it has one */
export async function insertThing(
  trx: Knex,
  courseId: string,
  { lineage, parent, position }: Omit<Stands, 'title'>,
  given: {
    thing: MadeThing
    state: ItemState
    body: string | null
    category: string | null
    dates: ItemDates
  },
): Promise<void> {
  const { thing, state, body, category, dates } = given
  const place = { course_id: courseId, lineage, parent_lineage: parent, position, title: thing.title }
  if (thing.kind === null) {
    await trx('units').insert({
      ...place,
      state,
      identifier: null,
      fixed: false,
      made_by: 'person',
    })
    return
  }
  await trx('items').insert({
    ...place,
    ...dates,
    kind: thing.kind,
    state,
    exam: thing.exam,
    points: thing.points === null ? null : pointsText(thing.points),
    category_lineage: category,
    rubric_lineage: null,
    group_lineage: null,
    releases: json([]),
    ...rowOfItemFields({}),
    holds: null,
    body_hash: body,
    media_type: body === null ? null : 'text/html',
    settings: json({}),
    identifier: null,
    fixed: false,
    made_by: 'person',
  })
}
export async function removeThing(trx: Knex, courseId: string, lineage: string): Promise<void> {
  await trx('items').where({ course_id: courseId, lineage }).delete()
  await trx('units').where({ course_id: courseId, lineage }).delete()
}

export async function insertEdit(
  trx: Knex,
  edit: { courseId: string; personId: string; words: string; former: Former },
): Promise<string> {
  const id = newId()
  await trx('course_edits').insert({
    id,
    course_id: edit.courseId,
    person_id: edit.personId,
    at: stampOf(now()),
    words: edit.words,
    former: json(edit.former),
    undone_at: null,
  })
  return id
}
/** The latest change of a course that stands, with who made it. */
export async function latestEdit(
  db: Knex,
  courseId: string,
): Promise<{ id: string; personId: string; at: string; former: Former } | null> {
  const row = await db('course_edits')
    .where({ course_id: courseId })
    .whereNull('undone_at')
    .orderBy('id', 'desc')
    .first()
  return row ? { id: row.id, personId: row.person_id, at: row.at, former: jsonOf(row.former) } : null
}
/** An edit goes on: what followed at once in the same thing is part of it. */
export async function widenEdit(trx: Knex, id: string, words: string, former: Former): Promise<void> {
  await trx('course_edits')
    .where({ id })
    .update({ words, former: json(former) })
}
/** What the changes that stand and came after one did. */
export async function editsAfter(db: Knex, courseId: string, afterId: string): Promise<Former[]> {
  const rows = await db('course_edits')
    .where({ course_id: courseId })
    .where('id', '>', afterId)
    .whereNull('undone_at')
    .select('former')
  return rows.map(({ former }) => jsonOf(former))
}
export interface EditLine {
  id: string
  at: string
  by: string
  words: string
}
/** The latest changes of a course that stand, the latest first. */
export async function loadEdits(db: Knex, courseId: string, limit: number): Promise<EditLine[]> {
  const rows = await selectRows<{ id: string; at: string; words: string } & NamedRow>(
    db,
    `SELECT e.id, e.at, e.words, given_name, family_name FROM course_edits e JOIN people ON people.id = e.person_id
     WHERE e.course_id = :courseId AND e.undone_at IS NULL ORDER BY e.id DESC LIMIT ${limit}`,
    { courseId },
  )
  return rows.map(row => ({ id: row.id, at: row.at, words: row.words, by: shortName(row) }))
}
export async function findEdit(
  db: Knex,
  courseId: string,
  id: string,
): Promise<{ at: string; words: string; former: Former } | null> {
  const row = await db('course_edits').where({ course_id: courseId, id }).whereNull('undone_at').first()
  return row ? { at: row.at, words: row.words, former: jsonOf(row.former) } : null
}
export async function markUndone(trx: Knex, ...ids: string[]): Promise<void> {
  await trx('course_edits')
    .whereIn('id', ids)
    .update({ undone_at: stampOf(now()) })
}
/** Changes that stand again: what took them away was undone. */
export async function markStanding(trx: Knex, ids: readonly string[]): Promise<void> {
  await trx('course_edits').whereIn('id', ids).update({ undone_at: null })
}
/** Changes of a course that stand and were made after something with this id: ids grow with time, also where the clock stands still. */
export async function editsSince(db: Knex, courseId: string, afterId: string): Promise<EditLine[]> {
  const edits = await loadEdits(db, courseId, 1000)
  return edits.filter(({ id }) => id > afterId)
}
/** Whether anything was run into a course since an edit: told by the clock, and by ids, which grow with time where the clock stands still. */
export async function runSince(
  db: Knex,
  courseId: string,
  { id, at }: { id: string; at: string },
): Promise<boolean> {
  const row = await db('runs')
    .where({ target_course_id: courseId })
    .where(since => since.where('finished_at', '>', at).orWhere('id', '>', id))
    .first('id')
  return row !== undefined
}
