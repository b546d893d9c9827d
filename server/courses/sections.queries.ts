import type { Knex } from 'knex'
import { datesOf } from '../../core/course/dates'
import type { PlannedItem } from '../../core/dates/plan'
import { now, stampOf } from '../clock'
import { inBatches, written } from '../db/rows'

/** The course whose content each of some courses shows: its own, or that of the section it is joined to. */
export async function contentsOf(db: Knex, courseIds: readonly string[]): Promise<Map<string, string>> {
  const known = db.isTransaction ? knownIn(db) : new Map<string, string>()
  const asked = [...new Set(courseIds)].filter(id => !known.has(id))
  if (asked.length > 0) {
    const joined = await db('joined_sections').whereIn('course_id', asked).select('course_id', 'content_id')
    for (const id of asked) known.set(id, id)
    for (const { course_id, content_id } of joined) known.set(course_id, content_id)
  }
  return new Map(courseIds.map(id => [id, known.get(id) ?? id]))
}
/** What a transaction has been told already: every loader of a course asks, and a run loads it a dozen times. */
const contentsKnown = new WeakMap<Knex, Map<string, string>>()
function knownIn(trx: Knex): Map<string, string> {
  const known = contentsKnown.get(trx) ?? new Map<string, string>()
  contentsKnown.set(trx, known)
  return known
}
/** Whoever joins or parts sections within a transaction has it ask again. */
export const forgetContents = (trx: Knex): boolean => contentsKnown.delete(trx)
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
  runId: string | null,
): Promise<void> {
  forgetContents(trx)
  await trx('joined_sections')
    .insert({ course_id: sectionId, content_id: contentId, run_id: runId, joined_at: stampOf(now()) })
    .onConflict('course_id')
    .ignore()
}
/** A section shows nothing of another any more, and has no dates beside its own content's. */
export async function partSection(trx: Knex, sectionId: string): Promise<void> {
  forgetContents(trx)
  for (const table of ['section_dates', 'section_openings', 'joined_sections'] as const)
    await trx(table).where({ course_id: sectionId }).delete()
}
/** Keeps the dates that a section has itself of what the content has under the same keys, as its dates there. */
export async function keepOwnDates(trx: Knex, section: string, content: string): Promise<void> {
  await written(
    trx,
    `INSERT INTO section_openings (course_id, content_id, lineage, opens)
     SELECT :section, :content, own.lineage, own.opens FROM units own
     JOIN units shown ON shown.course_id = :content AND shown.lineage = own.lineage
     WHERE own.course_id = :section`,
    { section, content },
  )
  await written(
    trx,
    `INSERT INTO section_dates (course_id, content_id, lineage, opens, due, closes)
     SELECT :section, :content, own.lineage, own.opens, own.due, own.closes FROM items own
     JOIN items shown ON shown.course_id = :content AND shown.lineage = own.lineage
     WHERE own.course_id = :section`,
    { section, content },
  )
}
/** Writes the dates that units and items of the content have in one section. */
export async function writeSectionDates(
  trx: Knex,
  sectionId: string,
  contentId: string,
  { units, items }: { units: readonly PlannedItem[]; items: readonly PlannedItem[] },
): Promise<void> {
  const of = (item: PlannedItem) => ({ course_id: sectionId, content_id: contentId, lineage: item.id })
  const openings = units.map(unit => ({ ...of(unit), opens: unit.opens }))
  const dates = items.map(item => ({ ...of(item), ...datesOf(item) }))
  for (const batch of inBatches(openings)) await trx('section_openings').insert(batch).onConflict().merge()
  for (const batch of inBatches(dates)) await trx('section_dates').insert(batch).onConflict().merge()
}
/** What a newly joined section has from the start: the shell’s own dates, where the run gave it none. */
export async function copyShellDates(trx: Knex, section: string, content: string): Promise<void> {
  await written(
    trx,
    `INSERT INTO section_openings (course_id, content_id, lineage, opens)
     SELECT :section, course_id, lineage, opens FROM units
     WHERE course_id = :content
       AND lineage NOT IN (SELECT lineage FROM section_openings WHERE course_id = :section)`,
    { section, content },
  )
  await written(
    trx,
    `INSERT INTO section_dates (course_id, content_id, lineage, opens, due, closes)
     SELECT :section, course_id, lineage, opens, due, closes FROM items
     WHERE course_id = :content
       AND lineage NOT IN (SELECT lineage FROM section_dates WHERE course_id = :section)`,
    { section, content },
  )
}
