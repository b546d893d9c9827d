import type { Knex } from 'knex'
import { newId } from '../db/rows'
import { now, stampOf } from '../clock'
import { copyWhole } from '../sharing/shares.queries'

/** Takes away the place that a plan held for a shell, where it is one. */
export async function dropAwaited(trx: Knex, courseId: string): Promise<void> {
  if (!(await trx('courses').where({ id: courseId, origin: 'awaited' }).first('id'))) return
  await trx('meetings').where({ course_id: courseId }).delete()
  await trx('enrolments').where({ course_id: courseId }).delete()
  await trx('courses').where({ id: courseId }).delete()
}

/**
 * Takes a course as it stands, with its students and all they did, into one of its own that nobody writes to any more. It takes over the
 * registrar's keys: what the registrar says of the old class goes on to be said of the snapshot. Set by set; bodies stay shared.
 */
export async function takeSnapshot(trx: Knex, courseId: string): Promise<string> {
  const id = newId()
  const course = await trx('courses').where({ id: courseId }).first()
  await trx('courses')
    .where({ id: courseId })
    .update({ source_id: `in-place:${id}`, origin: 'hand' })
  await trx('courses').insert({ ...course, id, origin: 'snapshot', created_at: stampOf(now()) })
  await copyWhole(trx, courseId, id)
  await trx.raw(
    `INSERT INTO enrolments (id, course_id, person_id, role, is_primary, may_run, origin, source_id, dropped_at, missing_since)
    SELECT UUID(), ?, person_id, role, is_primary, may_run, origin, source_id, dropped_at, missing_since FROM enrolments WHERE course_id = ?`,
    [id, courseId],
  )
  await trx('enrolments').where({ course_id: courseId }).update({ source_id: null })
  const copies: [table: string, key: string, columns: string][] = [
    ['submissions', 'UUID(), ', 'item_lineage, submitted_at, body_hash'],
    ['attempts', 'UUID(), ', 'item_lineage, number, started_at, finished_at, score'],
    ['posts', 'UUID(), ', 'item_lineage, posted_at, body_hash'],
    ['grades', '', 'item_lineage, score, status, graded_on, comment'],
    ['extensions', '', 'item_lineage, due, reason'],
  ]
  for (const [table, key, columns] of copies) {
    await trx.raw(
      `INSERT INTO ${table} (${key && 'id, '}enrolment_id, ${columns}) SELECT ${key}kept.id, ${columns
        .split(', ')
        .map(column => `done.${column}`)
        .join(', ')} FROM ${table} done
      JOIN enrolments old ON old.id = done.enrolment_id AND old.course_id = ? JOIN enrolments kept ON kept.course_id = ? AND kept.person_id = old.person_id AND kept.role = old.role`,
      [courseId, id],
    )
  }
  return id
}

/** Gives a course the dates that a run's entries name, instead of those it had, and moves it into the term and the meetings of another. */
export async function moveIntoTerm(
  trx: Knex,
  courseId: string,
  placeId: string,
  lineages: readonly string[],
): Promise<void> {
  const place = await trx('courses').where({ id: placeId }).first('term_id')
  await trx('courses').where({ id: courseId }).update({ term_id: place.term_id })
  await trx('meetings').where({ course_id: courseId }).delete()
  await trx.raw(
    'INSERT INTO meetings (course_id, position, weekday, start, `end`, room) SELECT ?, position, weekday, start, `end`, room FROM meetings WHERE course_id = ?',
    [courseId, placeId],
  )
  if (lineages.length > 0)
    await trx('slots').where({ course_id: courseId }).whereIn('lineage', lineages).delete()
}
