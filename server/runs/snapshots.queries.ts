import type { Knex } from 'knex'
import { now, stampOf } from '../clock'
import { copyMeetings, copyWhole } from '../courses/content.queries'
import { copyEnrolments, copyStudentData } from '../courses/student-data.queries'
import { newId } from '../db/rows'
import { keepSearchable } from '../search/index.queries'
import { ownText } from '../search/plain-text'

/**
 * Copies a course as it stands, with its students and all they did, into one of its own that nobody writes to any more. It
 * has the registrar's keys from then on: what the registrar says of the old class goes on to be said of the snapshot. Set by
 * set; bodies stay shared.
 */
export async function makeSnapshot(trx: Knex, courseId: string): Promise<string> {
  const id = newId()
  const course = await trx('courses').where({ id: courseId }).first()
  if (!course) throw new Error(`there is no course ${courseId}`)
  await trx('courses')
    .where({ id: courseId })
    .update({ source_id: `in-place:${id}`, origin: 'hand' })
  await trx('courses').insert({ ...course, id, origin: 'snapshot', created_at: stampOf(now()) })
  await copyWhole(trx, courseId, id)
  await keepSearchable(trx, id, ownText)
  await copyEnrolments(trx, courseId, id)
  await copyStudentData(trx, courseId, id)
  return id
}

/** Moves a course into the term of another, and gives it the other's weekly meetings. */
export async function moveIntoTerm(trx: Knex, courseId: string, placeId: string): Promise<void> {
  const place = await trx('courses').where({ id: placeId }).first('term_id')
  if (!place) throw new Error(`there is no course ${placeId}`)
  await trx('courses').where({ id: courseId }).update({ term_id: place.term_id })
  await trx('meetings').where({ course_id: courseId }).delete()
  await copyMeetings(trx, placeId, courseId)
}
