import type { Knex } from 'knex'
import { codeText } from '../../core/course/code-text'
import type { SectionsReply } from '../../shared/api/sections'
import { accessToCourse, accessToCourses } from '../courses/access'
import { copyContent, dropContent } from '../courses/content.queries'
import { loadCourse, lockCourse } from '../courses/courses.queries'
import { courseLines, lineIn } from '../courses/lines'
import * as sections from '../courses/sections.queries'
import { inSnapshot, inTransaction } from '../db/transaction'
import { notFound, refuse } from '../errors/refusal'
import { addJob } from '../jobs/jobs.queries'
import { writeLog } from '../log/log.queries'
import type { Person } from '../people/people.queries'
import { joinable } from './joinable'
import { siblingsOf } from './siblings'

/** Which sections show a course's content, and which could. Of a section: whose content it shows. */
export const readSections = (db: Knex, person: Person, courseId: string): Promise<SectionsReply> =>
  inSnapshot(db, async trx => {
    const contentId = await sections.contentOf(trx, courseId)
    const shown = await sections.sectionsOf(trx, contentId)
    const isContent = contentId === courseId
    const others = isContent
      ? (await siblingsOf(trx, person, courseId)).filter(id => !shown.includes(id))
      : []
    const access = await accessToCourses(trx, person, [contentId, ...shown, ...others])
    const mayRun = (id: string): boolean => access.get(id)?.run ?? false
    const asked = mayRun(contentId) ? others.filter(mayRun) : []
    const found = await joinable(trx, contentId, asked, { keepsDates: true })
    const lineOf = lineIn(await courseLines(trx, person, [contentId, ...shown, ...asked]))
    return {
      content: lineOf(contentId),
      shown: shown.map(id => ({ course: lineOf(id), mayUnlink: mayRun(contentId) && mayRun(id) })),
      could: asked.flatMap(id => {
        const one = found.get(id)
        return one ? [{ course: lineOf(id), faults: one.faults, leaves: one.leaves }] : []
      }),
    }
  })

async function checkBoth(trx: Knex, person: Person, contentId: string, sectionId: string): Promise<void> {
  for (const id of [contentId, sectionId].sort()) await lockCourse(trx, id)
  for (const id of [contentId, sectionId]) {
    const access = await accessToCourse(trx, person, id)
    if (!access.read) throw notFound('This section')
    if (!access.run) throw refuse('may-not-edit')
  }
}
const nameOf = async (trx: Knex, id: string): Promise<string> => codeText(await loadCourse(trx, id))

/**
 * Has a section show a course's content. What it held goes: `agreed` are the keys of exactly that. Where it had something of the same
 * key before, that keeps its dates.
 */
export async function linkSection(
  db: Knex,
  person: Person,
  { contentId, sectionId, agreed }: { contentId: string; sectionId: string; agreed: readonly string[] },
): Promise<void> {
  await inTransaction(db, async trx => {
    await checkBoth(trx, person, contentId, sectionId)
    if ((await sections.contentOf(trx, contentId)) !== contentId) throw refuse('into-joined-section')
    if (!(await siblingsOf(trx, person, contentId)).includes(sectionId)) throw notFound('This section')
    const found = (await joinable(trx, contentId, [sectionId], { keepsDates: true })).get(sectionId)
    if (!found) throw notFound('This section')
    if (found.joined) return
    if (found.faults.length > 0) throw refuse('cannot-join', { faults: found.faults })
    const leaves = found.leaves.map(({ lineage }) => lineage).sort()
    if (leaves.join() !== [...agreed].sort().join()) throw refuse('section-changed')
    await sections.keepOwnDates(trx, sectionId, contentId)
    await dropContent(trx, sectionId)
    await sections.copyShellDates(trx, sectionId, contentId)
    await sections.joinSection(trx, sectionId, contentId, null)
    await addJob(trx, { kind: 'index', subject: sectionId, personId: null, payload: {} })
    await writeLog(trx, {
      action: 'section.linked',
      personId: person.id,
      courseId: contentId,
      detail: { section: await nameOf(trx, sectionId), gone: leaves.length },
    })
  })
}

/** Gives a section a content of its own: a copy of what it shows now, with its own dates. */
export async function unlinkSection(
  db: Knex,
  person: Person,
  { contentId, sectionId }: { contentId: string; sectionId: string },
): Promise<void> {
  await inTransaction(db, async trx => {
    await checkBoth(trx, person, contentId, sectionId)
    if (!(await sections.sectionsOf(trx, contentId)).includes(sectionId)) throw notFound('This section')
    await copyContent(trx, sectionId, sectionId)
    await sections.partSection(trx, sectionId)
    await addJob(trx, { kind: 'index', subject: sectionId, personId: null, payload: {} })
    await writeLog(trx, {
      action: 'section.unlinked',
      personId: person.id,
      courseId: contentId,
      detail: { section: await nameOf(trx, sectionId) },
    })
  })
}
