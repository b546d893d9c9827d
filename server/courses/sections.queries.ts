import type { Knex } from 'knex'
import { slotNames } from '../../core/dates/rule'
import type { PlannedItem } from '../../core/dates/plan'
import { now, stampOf } from '../clock'
import { inBatches } from '../db/rows'

/** The course whose content each of some courses shows: its own, or that of the section it is joined to. */
export async function contentsOf(db: Knex, courseIds: readonly string[]): Promise<Map<string, string>> {
  const rows =
    courseIds.length === 0
      ? []
      : await db('joined_sections').whereIn('course_id', courseIds).select('course_id', 'content_id')
  return new Map([
    ...courseIds.map(id => [id, id] as const),
    ...rows.map(row => [row.course_id as string, row.content_id as string] as const),
  ])
}
export const contentOf = async (db: Knex, courseId: string): Promise<string> =>
  (await contentsOf(db, [courseId])).get(courseId)!
/** Sections that show a course's content. */
export async function sectionsOf(db: Knex, contentId: string): Promise<string[]> {
  return (
    await db('joined_sections').where({ content_id: contentId }).orderBy('course_id').select('course_id')
  ).map(row => row.course_id)
}
/** Sections that a run joined to its shell. */
export async function sectionsOfRun(db: Knex, runId: string): Promise<string[]> {
  return (await db('joined_sections').where({ run_id: runId }).orderBy('course_id').select('course_id')).map(
    row => row.course_id,
  )
}
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
export async function writeSectionSlots(
  trx: Knex,
  sectionId: string,
  contentId: string,
  items: readonly PlannedItem[],
): Promise<void> {
  const rows = items.flatMap(item =>
    slotNames.flatMap(slot =>
      item[slot] === null
        ? []
        : [{ course_id: sectionId, content_id: contentId, lineage: item.id, slot, at: item[slot] }],
    ),
  )
  for (const batch of inBatches(rows)) await trx('section_slots').insert(batch)
}
/** What a newly joined section takes over as it stands: the dates of items that were in the shell before the run. */
export async function takeOverSlots(
  trx: Knex,
  sectionId: string,
  contentId: string,
  runId: string,
): Promise<void> {
  await trx.raw(
    `INSERT INTO section_slots (course_id, content_id, lineage, slot, at) SELECT ?, course_id, lineage, slot, at FROM slots WHERE course_id = ? AND lineage NOT IN (SELECT lineage FROM run_entries WHERE run_id = ? AND entity = 'item')`,
    [sectionId, contentId, runId],
  )
}
/** Sections that a plan joins to its shell when it is run. */
export async function planSections(db: Knex, planId: string): Promise<string[]> {
  return (await db('plan_sections').where({ plan_id: planId }).orderBy('course_id').select('course_id')).map(
    row => row.course_id,
  )
}
export async function setPlanSections(
  trx: Knex,
  planId: string,
  courseIds: readonly string[],
): Promise<void> {
  await trx('plan_sections').where({ plan_id: planId }).delete()
  if (courseIds.length > 0)
    await trx('plan_sections').insert(courseIds.map(id => ({ plan_id: planId, course_id: id })))
}
/** How many students are on the rosters of both of two courses. */
export async function rosterOverlap(db: Knex, one: string, other: string): Promise<number> {
  const students = (id: string) =>
    db('enrolments').where({ course_id: id, role: 'student' }).whereNull('dropped_at').select('person_id')
  return Number(
    (await db('enrolments')
      .where({ course_id: one, role: 'student' })
      .whereNull('dropped_at')
      .whereIn('person_id', students(other))
      .count({ count: '*' })
      .first())!.count,
  )
}
