import type { Knex } from 'knex'
import { datesOf } from '../../core/course/dates'
import type { PlannedItem } from '../../core/dates/plan'
import { now, stampOf } from '../clock'
import { inBatches, written } from '../db/rows'

/** The course whose content each of some courses shows: its own, or that of the section it is joined to. */
export async function contentsOf(db: Knex, courseIds: readonly string[]): Promise<Map<string, string>> {
  const contents = new Map(courseIds.map(id => [id, id]))
  if (courseIds.length === 0) return contents
  const joined = await db('joined_sections').whereIn('course_id', courseIds).select('course_id', 'content_id')
  for (const { course_id, content_id } of joined) contents.set(course_id, content_id)
  return contents
}
export const contentOf = async (db: Knex, courseId: string): Promise<string> =>
  (await contentsOf(db, [courseId])).get(courseId) ?? courseId
/** Sections that show a course's content. */
export const sectionsOf = (db: Knex, contentId: string): Promise<string[]> =>
  db('joined_sections').where({ content_id: contentId }).orderBy('course_id').pluck('course_id')
/** Sections that a run joined to its shell. */
export const sectionsOfRun = (db: Knex, runId: string): Promise<string[]> =>
  db('joined_sections').where({ run_id: runId }).orderBy('course_id').pluck('course_id')

export async function joinSection(
  trx: Knex,
  sectionId: string,
  contentId: string,
  runId: string,
): Promise<void> {
  await trx('joined_sections')
    .insert({ course_id: sectionId, content_id: contentId, run_id: runId, joined_at: stampOf(now()) })
    .onConflict('course_id')
    .ignore()
}
/** Writes the dates that items of the content have in one section. */
export async function writeSectionDates(
  trx: Knex,
  sectionId: string,
  contentId: string,
  items: readonly PlannedItem[],
): Promise<void> {
  const rows = items.map(item => ({
    course_id: sectionId,
    content_id: contentId,
    lineage: item.id,
    ...datesOf(item),
  }))
  for (const batch of inBatches(rows)) await trx('section_dates').insert(batch).onConflict().merge()
}
/** What a newly joined section has from the start: the shell’s own dates, where the run gave it none. */
export const copyShellDates = (trx: Knex, section: string, content: string): Promise<number> =>
  written(
    trx,
    `INSERT INTO section_dates (course_id, content_id, lineage, opens, due, closes)
     SELECT :section, course_id, lineage, opens, due, closes FROM items
     WHERE course_id = :content
       AND lineage NOT IN (SELECT lineage FROM section_dates WHERE course_id = :section)`,
    { section, content },
  )
