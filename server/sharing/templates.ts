import type { Knex } from 'knex'
import type { OutlineNode } from '../../core/course/outline'
import {
  newTemplate,
  type TemplateLine,
  type TemplatesReply,
  type TemplateWish,
} from '../../shared/api/shares'
import { isoInstant } from '../clock'
import { accessToCourse, accessToCourses, coursesOf, mayEditCourse, orgOfWhatIsMade } from '../courses/access'
import type { May } from '../auth/may'
import { copyWhole, loadOutline } from '../courses/content.queries'
import { insertCourse, loadCourseKeys } from '../courses/courses.queries'
import { courseLines, lineIn } from '../courses/lines'
import { inTransaction, takeTurn } from '../db/transaction'
import { groupBy, newId } from '../db/rows'
import { notFound, refuse } from '../errors/refusal'
import { writeLog } from '../log/log.queries'
import type { Person } from '../people/people.queries'
import { keepSearchable } from '../search/index.queries'
import { ownText } from '../search/plain-text'
import { shareCourse } from './shares'
import { keepWanted } from './versions'
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
  const access = await accessToCourses(db, person, ids)
  for (const { courseId, authorId, createdAt, ...template } of templates) {
    const mayChange = authorId === person.id || access.get(courseId)?.role === 'office'
    // Retired, it is there for those alone who may offer it again.
    if (template.retired && !mayChange) continue
    lines.push({
      ...template,
      course: lineOf(courseId),
      own: authorId === person.id,
      mayChange,
      mayImprove: await mayEditCourse(db, person, courseId),
      createdAt: isoInstant(createdAt),
      shape: shapeOf(await loadOutline(db, courseId, access.get(courseId)?.withheld)),
      offeredTo: (offered.get(courseId) ?? []).map(share => share.name),
    })
  }
  return { templates: lines }
}
/** Makes a template from a course: its content, without students, under a name of its own. */
export async function makeTemplate(
  db: Knex,
  person: Person,
  courseId: string,
  wish: TemplateWish,
): Promise<{ id: string }> {
  const { unit, org, ...facts } = newTemplate.parse(wish)
  const { title } = facts
  const made = await inTransaction(db, async trx => {
    await takeTurn(trx, `makes ${person.id}`)
    const source = await loadCourseKeys(trx, courseId)
    if (!source) throw notFound('This course')
    if (await queries.ownTemplateNamed(trx, person.id, title)) throw refuse('template-named-so', { title })
    const access = await accessToCourse(trx, person, courseId)
    const id = await insertCourse(trx, {
      ...source,
      orgId: await orgOfWhatIsMade(trx, person, courseId),
      sourceId: `template:${newId()}`,
      section: '',
      title,
      personId: person.id,
      origin: 'template',
    })
    await copyWhole(trx, courseId, id)
    // What a share leaves out is left out of everything made from it.
    await keepWanted(trx, id, unit, access)
    await keepSearchable(trx, id, ownText)
    await queries.insertTemplate(trx, {
      course_id: id,
      subject: facts.subject,
      arrangement: facts.arrangement,
      about: facts.about,
      person_id: person.id,
      open_to_colleagues: facts.colleagues,
    })
    await queries.keepTemplateSource(trx, id, courseId)
    await writeLog(trx, {
      action: 'template.made',
      personId: person.id,
      courseId: id,
      detail: { title },
    })
    return { id }
  })
  if (org !== null) await shareCourse(db, person, made.id, { withheld: [], days: null, org })
  return made
}

/** Those who may change a template: who made it, and the academic office. */
export const keepsTemplate: May<{ id: string }> = {
  name: 'keeps the template',
  allow: async ({ db, person, params }) => {
    const template = await queries.findTemplate(db, params.id)
    const access = await accessToCourse(db, person, params.id)
    if (!template || !access.read) return notFound('This template')
    return (
      template.authorId === person.id ||
      access.role === 'office' ||
      refuse('forbidden', { title: 'Who made this template, and the academic office, may change it' })
    )
  },
}
/** Does something with a template that is there, and writes it into the log. */
async function withTemplate(
  db: Knex,
  person: Person,
  id: string,
  action: 'template.changed' | 'template.retired' | 'template.offered-again' | 'template.deleted',
  work: (trx: Knex) => Promise<void>,
): Promise<{ id: string }> {
  return inTransaction(db, async trx => {
    await takeTurn(trx, `template ${id}`)
    const template = await queries.findTemplate(trx, id)
    if (!template) throw notFound('This template')
    await work(trx)
    const isGone = action === 'template.deleted'
    await writeLog(trx, {
      action,
      personId: person.id,
      ...(!isGone && { courseId: id }),
      detail: { title: template.title },
    })
    return { id }
  })
}
export const changeTemplate = (
  db: Knex,
  person: Person,
  id: string,
  wish: TemplateWish,
): Promise<{ id: string }> => {
  const { unit: _unit, org: _org, ...facts } = newTemplate.parse(wish)
  return withTemplate(db, person, id, 'template.changed', trx => queries.updateTemplate(trx, id, facts))
}
/** Retires a template: it is not offered any more. Or offers it again. Plans and courses from it stay as they are. */
export const retireTemplate = (
  db: Knex,
  person: Person,
  id: string,
  retired: boolean,
): Promise<{ id: string }> =>
  withTemplate(db, person, id, retired ? 'template.retired' : 'template.offered-again', trx =>
    queries.setRetired(trx, id, retired),
  )
/** Deletes a template with all it holds. Courses that were rolled from it stay as they are. */
export const deleteTemplate = (db: Knex, person: Person, id: string): Promise<{ id: string }> =>
  withTemplate(db, person, id, 'template.deleted', trx => queries.dropTemplate(trx, id))
