import type { Knex } from 'knex'
import { now, stampOf } from '../clock'
import type { CourseQuery } from '../courses/access.queries'
import type { Arrangement, TemplateRow } from '../db/tables'
import { shortName, type NamedRow } from '../people/names'

export interface Template {
  courseId: string
  subject: string
  arrangement: Arrangement
  about: string
  authorId: string
  author: string
  createdAt: string
}
export async function insertTemplate(
  db: Knex,
  row: Omit<TemplateRow, 'created_at' | 'retired_at'>,
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
  }))
}
