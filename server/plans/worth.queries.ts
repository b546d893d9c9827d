import type { Knex } from 'knex'
import { inBatches, selectRows } from '../db/rows'

/** What one reads of some bodies, as it is kept to be searched. */
export async function textsOfBodies(db: Knex, bodies: readonly string[]): Promise<Map<string, string>> {
  const texts = new Map<string, string>()
  for (const batch of inBatches([...new Set(bodies)])) {
    const rows = await db('searched').whereIn('body_hash', batch).select('body_hash', 'text')
    for (const row of rows) if (row.body_hash !== null) texts.set(row.body_hash, row.text)
  }
  return texts
}
/** By body: the terms in which a course of some that began before a day held it and had students, the latest first. */
export async function termsOfBodies(
  db: Knex,
  bodies: readonly string[],
  courses: readonly string[],
  before: string,
): Promise<Map<string, string[]>> {
  const found = new Map<string, string[]>()
  if (bodies.length === 0 || courses.length === 0) return found
  for (const batch of inBatches([...new Set(bodies)])) {
    const rows = await selectRows<{ body: string; term: string }>(
      db,
      `SELECT DISTINCT i.body_hash AS body, t.name AS term, t.classes_from
       FROM items i JOIN courses c ON c.id = i.course_id JOIN terms t ON t.id = c.term_id
       WHERE i.body_hash IN (:bodies) AND i.course_id IN (:courses) AND i.state <> 'deleted'
         AND c.origin IN ('registrar', 'hand', 'snapshot') AND t.classes_from < :before
         AND EXISTS (SELECT 1 FROM enrolments e WHERE e.course_id = c.id AND e.role = 'student')
       ORDER BY t.classes_from DESC`,
      { bodies: batch, courses, before },
    )
    for (const { body, term } of rows) found.set(body, [...(found.get(body) ?? []), term])
  }
  return found
}
