import type { Knex } from 'knex'
import type { OutlineNode } from '../../core/course/outline'
import type { NewTemplate, TemplateLine, TemplatesReply } from '../../shared/api/shares'
import { isoInstant } from '../clock'
import { coursesOf } from '../courses/access'
import { copyWhole, loadOutline } from '../courses/content.queries'
import { insertCourse, loadCourseKeys } from '../courses/courses.queries'
import { courseLines, lineIn } from '../courses/lines'
import { inTransaction } from '../db/connection'
import { groupBy, newId } from '../db/rows'
import { notFound, refuse } from '../errors/refusal'
import { writeLog } from '../log/log.queries'
import type { Person } from '../people/people.queries'
import { departmentsSharing } from './shares.queries'
import * as queries from './templates.queries'

/** The top units of an outline with the kinds of their items, however deep, in order: what the picture of a template is drawn from. */
function shapeOf(nodes: readonly OutlineNode[]): TemplateLine['shape'] {
  const shape: TemplateLine['shape'] = []
  for (const { type, depth, title, kind, exam } of nodes) {
    if (type === 'unit' && depth === 0) shape.push({ title, kinds: [] })
    else if (kind !== null && depth > 0) shape.at(-1)?.kinds.push({ kind, exam })
  }
  return shape
}

/** Templates that a person may roll from: their own and those offered to a department of theirs. The newest first. */
export async function readTemplates(db: Knex, person: Person): Promise<TemplatesReply> {
  const among = await coursesOf(db, person, { shared: true })
  const templates = await queries.templatesAmong(db, among())
  const ids = templates.map(template => template.courseId)
  const lineOf = lineIn(await courseLines(db, person, ids))
  const offered = groupBy(await departmentsSharing(db, ids), share => share.course_id)
  const lines: TemplateLine[] = []
  for (const { courseId, authorId, createdAt, ...template } of templates)
    lines.push({
      ...template,
      course: lineOf(courseId),
      own: authorId === person.id,
      createdAt: isoInstant(createdAt),
      shape: shapeOf(await loadOutline(db, courseId)),
      offeredTo: (offered.get(courseId) ?? []).map(share => share.name),
    })
  return { templates: lines }
}
/** Makes a template from a course: its content, without students, under a name of its own. */
export async function makeTemplate(
  db: Knex,
  person: Person,
  courseId: string,
  { title, subject, arrangement, about }: NewTemplate,
): Promise<{ id: string }> {
  return inTransaction(db, async trx => {
    const source = await loadCourseKeys(trx, courseId)
    if (!source) throw notFound('This course')
    const id = await insertCourse(trx, {
      ...source,
      sourceId: `template:${newId()}`,
      section: '',
      title,
      personId: person.id,
      origin: 'template',
    })
    const { items } = await copyWhole(trx, courseId, id)
    if (items === 0) throw refuse('empty-template')
    await queries.insertTemplate(trx, {
      course_id: id,
      subject,
      arrangement,
      about,
      person_id: person.id,
    })
    await writeLog(trx, {
      action: 'template.made',
      personId: person.id,
      courseId: id,
      detail: { title },
    })
    return { id }
  })
}
