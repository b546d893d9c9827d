import type { Knex } from 'knex'
import { selectRows } from '../db/rows'
import { contentTables } from './content.queries'
import { contentOf } from './sections.queries'

/** Of these a course has rows of its own, though it shows another one's content. */
const ownTables = ['section_dates', 'section_openings'] as const
const tallyIn = (table: string, of: 'content' | 'own'): string =>
  `SELECT COUNT(*) AS count, SUM(TO_SECONDS(changed_at) * 1000000 + MICROSECOND(changed_at)) AS sum
   FROM ${table} WHERE course_id = :${of}`
const tallies = [
  ...contentTables.map(table => tallyIn(table, 'content')),
  ...ownTables.map(table => tallyIn(table, 'own')),
].join(' UNION ALL ')

/**
 * Stands for what a course holds as it stands now: how many rows there are, and the sum of when each was written last, in microseconds.
 * Whoever changes, adds or takes away a row changes it; nothing of the rows is read for it.
 */
export async function contentTally(db: Knex, courseId: string): Promise<string> {
  const content = await contentOf(db, courseId)
  const rows = await selectRows<{ count: number; sum: string | null }>(db, tallies, {
    content,
    own: courseId,
  })
  return [content, ...rows.map(({ count, sum }) => `${count}:${sum ?? ''}`)].join(' ')
}
