import type { Knex } from 'knex'
import { now, stampOf } from '../clock'
import { inBatches, newId, written } from '../db/rows'
import { shortName } from '../people/names'

/** Who is writing into a course, and since when. */
export interface Writing {
  by: string
  since: string
  planId: string
}
const leaseSeconds = 15
// Leases run on the database's clock: the processes' clocks may differ, and a demo's stands still.
const databaseNow = (db: Knex) => db.raw<string>('UTC_TIMESTAMP(3)')

/** Who says so may say later that they still write, or that they have ended. */
export interface Writer {
  courseId: string
  token: string
}
/**
 * Says that somebody begins to write into a course; null where another does. It tells those who look, and turns them away early;
 * what keeps two runs apart is the turn that each takes (`lockCourse`). So a plan is not kept waiting by its own run that a
 * stopped server left behind.
 */
export async function beginWriting(
  db: Knex,
  courseId: string,
  personId: string,
  planId: string,
): Promise<Writer | null> {
  const token = newId()
  await db('writing')
    .where({ course_id: courseId })
    .where(over => over.where('lease_until', '<', databaseNow(db)).orWhere({ plan_id: planId }))
    .delete()
  const inserted = await written(
    db,
    `INSERT IGNORE INTO writing (course_id, person_id, plan_id, since, lease_until, token)
     VALUES (:courseId, :personId, :planId, :since, DATE_ADD(UTC_TIMESTAMP(3), INTERVAL :leaseSeconds SECOND), :token)`,
    { courseId, personId, planId, since: stampOf(now()), leaseSeconds, token },
  )
  return inserted > 0 ? { courseId, token } : null
}
const rowOf = (db: Knex, { courseId, token }: Writer) => db('writing').where({ course_id: courseId, token })
/** Says that a write still goes on. To be called every few seconds. */
export const stillWriting = (db: Knex, writer: Writer): Promise<number> =>
  rowOf(db, writer).update({
    lease_until: db.raw<string>('DATE_ADD(UTC_TIMESTAMP(3), INTERVAL ? SECOND)', [leaseSeconds]),
  })
export const endWriting = (db: Knex, writer: Writer): Promise<number> => rowOf(db, writer).delete()
/** Who is writing into each of some courses. */
export async function writingInto(db: Knex, courseIds: readonly string[]): Promise<Map<string, Writing>> {
  const found = new Map<string, Writing>()
  for (const batch of inBatches(courseIds)) {
    const rows = await db('writing')
      .join('people', 'people.id', 'writing.person_id')
      .whereIn('course_id', batch)
      .where('lease_until', '>=', databaseNow(db))
      .select('course_id', 'plan_id', 'since', 'given_name', 'family_name')
    for (const row of rows)
      found.set(row.course_id, { by: shortName(row), since: row.since, planId: row.plan_id })
  }
  return found
}
