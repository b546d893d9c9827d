import type { Knex } from 'knex'
import { subtree } from '../../core/course/outline'
import type { NewVersion, VersionsReply } from '../../shared/api/shares'
import type { May } from '../auth/may'
import { isoInstant } from '../clock'
import { accessToCourse, mayEditCourse } from '../courses/access'
import { keepItems, loadOutline } from '../courses/content.queries'
import { lockCourse } from '../courses/courses.queries'
import { inTransaction } from '../db/transaction'
import { notFound, refuse } from '../errors/refusal'
import { writeLog } from '../log/log.queries'
import type { Person } from '../people/people.queries'
import { keepSearchable } from '../search/index.queries'
import { ownText } from '../search/plain-text'
import { findTemplate, keepTemplateSource } from './templates.queries'
import * as queries from './versions.queries'

/** Those who may improve what stands on a shelf: who put it there, the academic office, and colleagues to whom it was opened. */
export const improvesTemplate: May<{ id: string }> = {
  name: 'improves what is on the shelf',
  allow: async ({ db, person, params }) => {
    const access = await accessToCourse(db, person, params.id)
    if (!access.read || !(await findTemplate(db, params.id))) return notFound('This template')
    return (await mayEditCourse(db, person, params.id)) || refuse('may-not-improve')
  },
}

/** Leaves in a copy what a person gets of a course: all, or one unit; never what a share leaves out. @throws Refusal where that is nothing */
export async function keepWanted(
  trx: Knex,
  copyId: string,
  unit: string | null,
  access: Pick<Awaited<ReturnType<typeof accessToCourse>>, 'withheld'>,
): Promise<void> {
  const nodes = await loadOutline(trx, copyId, access.withheld)
  if (unit !== null && !nodes.some(node => node.lineage === unit && node.type === 'unit'))
    throw notFound('This unit')
  const wanted = new Set(unit === null ? nodes.map(node => node.lineage) : subtree(nodes, unit))
  const items = nodes.filter(node => node.type === 'item' && wanted.has(node.lineage))
  if (items.length === 0) throw refuse('empty-template')
  if (unit !== null) await queries.keepUnit(trx, copyId, [...wanted])
  else if (access.withheld.size > 0)
    await keepItems(
      trx,
      copyId,
      items.map(node => node.lineage),
    )
}

/** The versions of what stands on a shelf: how many there are by now, and those that were kept. */
export async function readVersions(db: Knex, templateId: string): Promise<VersionsReply> {
  const versions = await queries.versionsOf(db, templateId)
  return {
    versions: versions.map(({ number, by, at, note, items }) => ({
      number,
      by,
      at: isoInstant(at),
      note,
      items,
    })),
  }
}
/**
 * Keeps what stands on a shelf as a version, and goes on from it: as it is, or with the content of a course, or of one of its units, that a
 * person may roll from.
 */
export async function makeVersion(
  db: Knex,
  person: Person,
  templateId: string,
  { note, from, unit }: NewVersion,
): Promise<VersionsReply> {
  return inTransaction(db, async trx => {
    await lockCourse(trx, templateId)
    if (!(await mayEditCourse(trx, person, templateId))) throw refuse('may-not-improve')
    if (from === templateId) throw refuse('into-itself')
    const access = from ? await accessToCourse(trx, person, from) : null
    if (from && !access?.rollFrom) throw notFound('The course to take it from')
    const version = await queries.keepVersion(trx, templateId, person.id, note)
    if (from && access) {
      await keepTemplateSource(trx, templateId, from)
      await queries.takeContent(trx, templateId, from)
      await keepWanted(trx, templateId, unit, access)
    }
    await keepSearchable(trx, templateId, ownText)
    await log(trx, person, templateId, 'template.version', version)
    return readVersions(trx, templateId)
  })
}
/** Brings a version back that was kept: what stands on the shelf now is kept as one itself. */
export async function bringVersionBack(
  db: Knex,
  person: Person,
  templateId: string,
  number: number,
): Promise<VersionsReply> {
  return inTransaction(db, async trx => {
    await lockCourse(trx, templateId)
    if (!(await mayEditCourse(trx, person, templateId))) throw refuse('may-not-improve')
    const wanted = (await queries.versionsOf(trx, templateId)).find(version => version.number === number)
    if (!wanted) throw notFound('This version')
    await queries.keepVersion(trx, templateId, person.id, `as version ${number} was`)
    await queries.takeContent(trx, templateId, wanted.courseId)
    await keepSearchable(trx, templateId, ownText)
    await log(trx, person, templateId, 'template.brought-back', number)
    return readVersions(trx, templateId)
  })
}
async function log(
  trx: Knex,
  person: Person,
  templateId: string,
  action: 'template.version' | 'template.brought-back',
  version: number,
): Promise<void> {
  const template = await findTemplate(trx, templateId)
  await writeLog(trx, {
    action,
    personId: person.id,
    courseId: templateId,
    detail: { title: template?.title ?? '', version },
  })
}
