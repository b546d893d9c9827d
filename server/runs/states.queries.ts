import type { Knex } from 'knex'
import { now, stampOf } from '../clock'
import { copyContent, dropContent, holdsAnything } from '../courses/content.queries'
import { json, jsonOf, newId } from '../db/rows'
import type { CourseRow, JoinedSectionRow, SectionDatesRow } from '../db/tables'

const factColumns = [
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
}
/** What is said of a course itself, and of the sections that a run writes beside it. */
export interface KeptFacts {
  readonly course: Facts
  readonly sections: readonly KeptSection[]
}
async function factsOf(trx: Knex, courseId: string): Promise<Facts> {
  const row = await trx('courses')
    .where({ id: courseId })
    .first(...factColumns)
  if (!row) throw new Error(`there is no course ${courseId}`)
  return row
}

/**
 * Keeps how a course stands now, with the sections beside it: a copy of its rows, set by set (bodies stay shared), which nobody sees; none
 * where it holds nothing. Answers the key to put it back by.
 */
export async function keepState(trx: Knex, courseId: string, sectionIds: readonly string[]): Promise<string> {
  const id = newId()
  const at = stampOf(now())
  const course = await trx('courses').where({ id: courseId }).first()
  if (!course) throw new Error(`there is no course ${courseId}`)
  let copy: string | null = null
  if (await holdsAnything(trx, courseId)) {
    copy = newId()
    await trx('courses').insert({
      ...course,
      id: copy,
      source_id: `kept:${copy}`,
      origin: 'version',
      created_at: at,
    })
    await copyContent(trx, courseId, copy)
  }
  const sections: KeptSection[] = []
  for (const section of sectionIds) {
    const joined = await trx('joined_sections')
      .where({ course_id: section })
      .first('content_id', 'run_id', 'joined_at')
    const dates = await trx('section_dates')
      .where({ course_id: section })
      .orderBy('lineage')
      .select('lineage', 'content_id', 'opens', 'due', 'closes')
    sections.push({ id: section, facts: await factsOf(trx, section), joined: joined ?? null, dates })
  }
  const facts: KeptFacts = { course: await factsOf(trx, courseId), sections }
  await trx('kept_states').insert({
    id,
    course_id: courseId,
    copy_id: copy,
    facts: json(facts),
    kept_at: at,
  })
  return id
}
/** Puts a course and its sections back as they stood. What was made of them meanwhile is gone: keep that first. */
export async function putState(trx: Knex, stateId: string): Promise<void> {
  const state = await trx('kept_states').where({ id: stateId }).first()
  if (!state) throw new Error(`there is no kept state ${stateId}`)
  const { course, sections } = jsonOf(state.facts)
  await dropContent(trx, state.course_id)
  if (state.copy_id) await copyContent(trx, state.copy_id, state.course_id)
  await trx('courses').where({ id: state.course_id }).update(course)
  for (const { id, facts, joined, dates } of sections) {
    await trx('courses').where({ id }).update(facts)
    await trx('joined_sections').where({ course_id: id }).delete()
    await trx('section_dates').where({ course_id: id }).delete()
    if (joined) await trx('joined_sections').insert({ course_id: id, ...joined })
    for (let at = 0; at < dates.length; at += 500)
      await trx('section_dates').insert(dates.slice(at, at + 500).map(row => ({ course_id: id, ...row })))
  }
}
/** Sections that a kept state knows. */
export async function sectionsIn(db: Knex, stateId: string): Promise<string[]> {
  const state = await db('kept_states').where({ id: stateId }).first('facts')
  return state ? jsonOf(state.facts).sections.map(({ id }) => id) : []
}
