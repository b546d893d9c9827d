import { aroundTables } from '../courses/around.queries'
import type { Knex } from 'knex'
import { now, stampOf } from '../clock'
import type { CourseQuery } from '../courses/access.queries'
import type { NewTemplate } from '../../shared/api/shares'
import type { Arrangement, TemplateRow } from '../db/tables'
import { dropVersions } from './versions.queries'
import { shortName, type NamedRow } from '../people/names'

export interface Template {
  courseId: string
  subject: string
  arrangement: Arrangement
  about: string
  authorId: string
  author: string
  createdAt: string
  retired: boolean
  version: number
  note: string
  colleagues: boolean
}
/** Keeps from which course a template has what it holds; from another template, from which courses that has it. */
export async function keepTemplateSource(trx: Knex, templateId: string, courseId: string): Promise<void> {
  const further = await trx('template_sources').where({ template_id: courseId }).pluck('course_id')
  const rows = [courseId, ...further].map(course => ({ template_id: templateId, course_id: course }))
  await trx('template_sources').insert(rows).onConflict().ignore()
}
/** Courses with those that templates among them were made from. */
export async function withTemplateSources(db: Knex, courses: readonly string[]): Promise<string[]> {
  const further = await db('template_sources')
    .whereIn('template_id', [...courses])
    .pluck('course_id')
  return [...new Set([...courses, ...further])]
}
export async function insertTemplate(
  db: Knex,
  row: Pick<
    TemplateRow,
    'course_id' | 'subject' | 'arrangement' | 'about' | 'person_id' | 'open_to_colleagues'
  >,
): Promise<void> {
  await db('templates').insert({ ...row, created_at: stampOf(now()) })
}
/** Templates among some courses, the newest first. */
export async function templatesAmong(db: Knex, courses: CourseQuery): Promise<Template[]> {
  const rows = await db('templates')
    .join('people', 'people.id', 'templates.person_id')
    .whereIn('course_id', courses.select('courses.id'))
    .orderBy([
      { column: 'templates.created_at', order: 'desc' },
      { column: 'course_id', order: 'desc' },
    ])
    .select<(TemplateRow & NamedRow)[]>('templates.*', 'given_name', 'family_name')
  return rows.map(row => ({
    courseId: row.course_id,
    subject: row.subject,
    arrangement: row.arrangement,
    about: row.about,
    authorId: row.person_id,
    author: shortName(row),
    createdAt: row.created_at,
    retired: row.retired_at !== null,
    version: row.version,
    note: row.note,
    colleagues: row.open_to_colleagues,
  }))
}

/** A template with its name, or null where the course is none. */
export async function findTemplate(
  db: Knex,
  courseId: string,
): Promise<{ authorId: string; title: string; retired: boolean } | null> {
  const row = await db('templates')
    .join('courses', 'courses.id', 'templates.course_id')
    .where({ course_id: courseId })
    .first('person_id', 'title', 'retired_at')
  return row ? { authorId: row.person_id, title: row.title, retired: row.retired_at !== null } : null
}
/** Whether a person has a template of this title already. */
export async function ownTemplateNamed(db: Knex, personId: string, title: string): Promise<boolean> {
  const row = await db('templates')
    .join('courses', 'courses.id', 'templates.course_id')
    .where({ person_id: personId, title })
    .first('course_id')
  return row !== undefined
}
/** Those of some courses that are templates and retired. */
export const retiredAmong = (db: Knex, courseIds: readonly string[]): Promise<string[]> =>
  db('templates').whereIn('course_id', courseIds).whereNotNull('retired_at').pluck('course_id')

export async function updateTemplate(
  trx: Knex,
  courseId: string,
  { title, colleagues, ...facts }: Omit<NewTemplate, 'unit' | 'org'>,
): Promise<void> {
  await trx('templates')
    .where({ course_id: courseId })
    .update({ ...facts, open_to_colleagues: colleagues })
  await trx('courses').where({ id: courseId }).update({ title })
}
export async function setRetired(trx: Knex, courseId: string, retired: boolean): Promise<void> {
  await trx('templates')
    .where({ course_id: courseId })
    .update({ retired_at: retired ? stampOf(now()) : null })
}
/** What a template holds, in the order in which it can be taken away. */
const held = [
  'items',
  'units',
  ...aroundTables,
  'carried_bases',
  'meetings',
  'enrolments',
  'course_preferences',
] as const
/**
 * Takes a template away with all it holds. Where plans or runs name it as their source its name stays for them, without anything in
 * it, and nobody may roll from it.
 */
export async function dropTemplate(trx: Knex, courseId: string): Promise<void> {
  const shares = await trx('shares').where({ course_id: courseId }).pluck('id')
  await trx('share_uses').whereIn('share_id', shares).delete()
  await trx('shares').where({ course_id: courseId }).delete()
  await dropVersions(trx, courseId)
  await trx('templates').where({ course_id: courseId }).delete()
  for (const table of held) await trx(table).where({ course_id: courseId }).delete()
  const isNamed =
    (await trx('plans').where({ source_course_id: courseId }).first('id')) ??
    (await trx('plan_sources').where({ course_id: courseId }).first('plan_id')) ??
    (await trx('runs').where({ source_course_id: courseId }).first('id')) ??
    (await trx('log').where({ course_id: courseId }).first('id'))
  if (!isNamed) await trx('courses').where({ id: courseId }).delete()
}
