import type { Knex } from 'knex'
import { courseText } from '../../core/course/code-text'
import { present } from '../../core/present'
import { accessToCourse } from '../courses/access'
import { holdsContent } from '../courses/content.queries'
import { loadCourseKeys, loadFacts, lockCourse } from '../courses/courses.queries'
import { contentOf } from '../courses/sections.queries'
import { notFound, refuse } from '../errors/refusal'
import type { Person } from '../people/people.queries'

/** A course that a file goes into, or is compared with. */
export interface Target {
  readonly id: string
  readonly courseKey: string
  readonly term: string
  readonly name: string
  readonly isFilled: boolean
  /** The registrar has it. */
  readonly isClass: boolean
}
/** The course that a file is to go into, taken for this transaction. @throws Refusal where the person may not write it, or nothing may be written there */
export async function targetOf(trx: Knex, person: Person, id: string): Promise<Target> {
  const access = await accessToCourse(trx, person, id)
  if (!access.read) throw notFound('This course')
  if (!access.run) throw refuse('may-not-edit')
  await lockCourse(trx, id)
  const facts = await loadFacts(trx, id)
  if (!['registrar', 'hand'].includes(facts.origin)) throw refuse('into-snapshot')
  if ((await contentOf(trx, id)) !== id) throw refuse('into-joined-section')
  return {
    id,
    courseKey: present(await loadCourseKeys(trx, id)).sourceId,
    term: facts.term.code,
    name: courseText(facts),
    isFilled: await holdsContent(trx, id),
    isClass: facts.origin === 'registrar',
  }
}
