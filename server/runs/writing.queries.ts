import type { Knex } from 'knex'
import { now, stampOf } from '../clock'
import { inBatches, written } from '../db/rows'
import { shortName } from '../people/names'

/** Who is writing into a course, and since when. */
export interface Writing {
  by: string
  since: string
  planId: string
}
const seconds = 120
// Leases run on the database's clock: the processes' clocks may differ, and a demo's stands still.
const databaseNow = (db: Knex) => db.raw<string>('UTC_TIMESTAMP(3)')

/** Says that somebody begins to write into a course. False where another does. */
export async function beginWriting(
  db: Knex,
  courseId: string,
  personId: string,
  planId: string,
): Promise<boolean> {
  await db('writing').where('lease_until', '<', databaseNow(db)).delete()
  const inserted = await written(
    db,
    `INSERT IGNORE INTO writing (course_id, person_id, plan_id, since, lease_until)
     VALUES (:courseId, :personId, :planId, :since, DATE_ADD(UTC_TIMESTAMP(3), INTERVAL :seconds SECOND))`,
    { courseId, personId, planId, since: stampOf(now()), seconds },
  )
  return inserted > 0
}
export async function endWriting(db: Knex, courseId: string, planId: string): Promise<void> {
  await db('writing').where({ course_id: courseId, plan_id: planId }).delete()
}
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
