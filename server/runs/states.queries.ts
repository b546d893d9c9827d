import { partSection } from '../courses/sections.queries'
import type { Knex } from 'knex'
import { now, stampOf } from '../clock'
import { copyContent, copyWhole, dropContent, holdsAnything } from '../courses/content.queries'
import { inBatches, json, jsonOf, newId } from '../db/rows'
import { inTransaction } from '../db/transaction'
import type { CourseRow, JoinedSectionRow, SectionDatesRow, SectionOpeningRow } from '../db/tables'

const factColumns = [
  'term_id',
  'origin',
  'shown_title',
  'label',
  'enrol_from',
  'enrol_to',
  'open_from',
  'open_to',
] as const satisfies (keyof CourseRow)[]
type Facts = Pick<CourseRow, (typeof factColumns)[number]>
/** A section beside a course: what is said of it, whose content it shows, and the dates that this has there. */
interface KeptSection {
  readonly id: string
  readonly facts: Facts
  readonly joined: Omit<JoinedSectionRow, 'course_id'> | null
  readonly dates: readonly Omit<SectionDatesRow, 'course_id'>[]
  /** States that were kept before units opened on dates have none. */
  readonly openings?: readonly Omit<SectionOpeningRow, 'course_id'>[]
  /** A copy of what it held itself; left out where that was nothing. */
  readonly copy?: string
}
export type CourseFacts = Facts
/** What is said of a course itself, and of the sections that a run writes beside it. */
export interface KeptFacts {
  readonly course: Facts
  readonly sections: readonly KeptSection[]
}
export async function saidOfCourse(trx: Knex, courseId: string): Promise<Facts> {
  const row = await trx('courses')
    .where({ id: courseId })
    .first(...factColumns)
  if (!row) throw new Error(`there is no course ${courseId}`)
  return row
}

/** A copy of a course as it stands, which nobody sees. */
async function hiddenCopy(trx: Knex, courseId: string): Promise<string> {
  const course = await trx('courses').where({ id: courseId }).first()
  if (!course) throw new Error(`there is no course ${courseId}`)
  const id = newId()
  const hidden = { id, source_id: `kept:${id}`, origin: 'version' as const, created_at: stampOf(now()) }
  await trx('courses').insert({ ...course, ...hidden })
  await copyWhole(trx, courseId, id)
  return id
}
/**
 * Keeps how a course stands now, with the sections beside it: a copy of its rows, set by set (bodies stay shared), which nobody sees; none
 * where it holds nothing. `given`: a copy that is there already, and what was said of the course then. Answers the key to put it back by.
 */
export async function keepState(
  trx: Knex,
  courseId: string,
  sectionIds: readonly string[],
  given?: { copy: string; course: CourseFacts },
): Promise<string> {
  const id = newId()
  const holds = !given && (await holdsAnything(trx, courseId))
  const copy = given?.copy ?? (holds ? await hiddenCopy(trx, courseId) : null)
  const course = given?.course ?? (await saidOfCourse(trx, courseId))
  const sections: KeptSection[] = []
  for (const section of sectionIds) {
    const joined = await trx('joined_sections')
      .where({ course_id: section })
      .first('content_id', 'run_id', 'joined_at')
    const dates = await trx('section_dates')
      .where({ course_id: section })
      .orderBy('lineage')
      .select('lineage', 'content_id', 'opens', 'due', 'closes')
    const openings = await trx('section_openings')
      .where({ course_id: section })
      .orderBy('lineage')
      .select('lineage', 'content_id', 'opens')
    const facts = await saidOfCourse(trx, section)
    const own = (await holdsAnything(trx, section)) ? { copy: await hiddenCopy(trx, section) } : {}
    sections.push({ id: section, facts, joined: joined ?? null, dates, openings, ...own })
  }
  const facts: KeptFacts = { course, sections }
  await trx('kept_states').insert({
    id,
    course_id: courseId,
    copy_id: copy,
    facts: json(facts),
    kept_at: stampOf(now()),
  })
  return id
}
/**
 * Puts a course back as it stood, and those of its sections that are named. What was made of them meanwhile is gone: keep that first. When
 * it meets is the registrar's to say; only a course that goes `intoItsTerm` takes that along, and what it is.
 */
export async function putState(
  trx: Knex,
  stateId: string,
  { intoItsTerm, sectionIds }: { intoItsTerm: boolean; sectionIds: readonly string[] },
): Promise<void> {
  const state = await trx('kept_states').where({ id: stateId }).first()
  if (!state) throw new Error(`there is no kept state ${stateId}`)
  const { course: whole, sections } = jsonOf(state.facts)
  const { term_id, origin, ...facts } = whole
  const course = intoItsTerm ? { ...facts, term_id, origin } : facts
  await dropContent(trx, state.course_id)
  if (intoItsTerm) await trx('meetings').where({ course_id: state.course_id }).delete()
  if (state.copy_id) await (intoItsTerm ? copyWhole : copyContent)(trx, state.copy_id, state.course_id)
  await trx('courses').where({ id: state.course_id }).update(course)
  for (const { id, facts, joined, dates, openings = [], copy } of sections) {
    if (!sectionIds.includes(id)) continue
    const { term_id: _, origin: __, ...said } = facts
    await trx('courses').where({ id }).update(said)
    await partSection(trx, id)
    await dropContent(trx, id)
    if (copy) await copyContent(trx, copy, id)
    if (joined) await trx('joined_sections').insert({ course_id: id, ...joined })
    for (const batch of inBatches(dates.map(row => ({ course_id: id, ...row }))))
      await trx('section_dates').insert(batch)
    for (const batch of inBatches(openings.map(row => ({ course_id: id, ...row }))))
      await trx('section_openings').insert(batch)
  }
}
/** A state that is kept: where its copy is, and of which sections it tells. */
export async function findState(
  db: Knex,
  stateId: string,
): Promise<{ copyId: string | null; sections: string[]; termId: string } | null> {
  const state = await db('kept_states').where({ id: stateId }).first()
  if (!state) return null
  const { course, sections } = jsonOf(state.facts)
  return { copyId: state.copy_id, sections: sections.map(({ id }) => id), termId: course.term_id }
}

/** Forgets states that were kept for longer than so many days, with their copies: what rested on them cannot be undone any more. Answers how many. */
export async function dropOldStates(db: Knex, days: number): Promise<number> {
  const until = stampOf(new Date(now().getTime() - days * 86_400_000))
  const old = await db('kept_states').where('kept_at', '<', until).select('id', 'copy_id', 'facts')
  for (const { id, copy_id, facts } of old)
    await inTransaction(db, async trx => {
      for (const table of ['runs', 'undos'] as const)
        await trx(table).where({ before_id: id }).update({ before_id: null })
      await trx('kept_states').where({ id }).delete()
      const copies = [copy_id, ...jsonOf(facts).sections.map(({ copy }) => copy)]
      for (const copy of copies) if (copy) await dropCopy(trx, copy)
    })
  return old.length
}
async function dropCopy(trx: Knex, copy: string): Promise<void> {
  // A snapshot is a course that people read: it stays.
  const hidden = await trx('courses')
    .where({ id: copy, source_id: `kept:${copy}` })
    .first('id')
  if (!hidden) return
  await dropContent(trx, hidden.id)
  await trx('meetings').where({ course_id: hidden.id }).delete()
  await trx('courses').where({ id: hidden.id }).delete()
}
