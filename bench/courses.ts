import type { Knex } from 'knex'
import { dayOf, wallOf } from '../core/calendar/day'
import { present } from '../core/present'
import { hashOf, storeBodies } from '../server/courses/bodies.queries'
import { keepSearchable } from '../server/search/index.queries'
import { ownText } from '../server/search/plain-text'
import { inBatches, newId } from '../server/db/rows'
import { word } from './words'

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1)
const title = (): string => capital(`${word()} ${word()} ${word()}`)
/** About a thousand letters, as a page of a course has; or as many thousand as is said. */
const page = (kilobytes = 1): Buffer =>
  Buffer.from(
    Array.from(
      { length: 8 * kilobytes },
      () => `<p>${capital(Array.from({ length: 18 }, word).join(' '))}.</p>`,
    ).join('\n'),
  )
const kinds = ['page', 'assignment', 'quiz', 'discussion'] as const
const firstDay = dayOf('2026-09-09')

/** A made-up course like another (its term, its organisation): so many items, twenty in a unit, three of four with dates, each with a text of its own. */
export async function makeBenchCourse(
  db: Knex,
  like: string,
  {
    code,
    items,
    kilobytes = 1,
    students = [],
  }: { code: string; items: number; kilobytes?: number; students?: readonly string[] },
): Promise<string> {
  const model = present(await db('courses').where({ source_id: like }).first())
  const courseId = newId()
  await db('courses').insert({ ...model, id: courseId, source_id: `bench-${code}`, code })
  const categories = Array.from({ length: 5 }, (_, n) => ({
    course_id: courseId,
    lineage: newId(),
    title: title(),
    weight: '20.0000',
    position: n,
    within: 'points' as const,
    drop_lowest: 0,
    drop_highest: 0,
    exempt: false,
    fixed: false,
  }))
  await db('grade_categories').insert(categories)
  const units = Array.from({ length: Math.ceil(items / 20) }, (_, n) => ({
    course_id: courseId,
    lineage: newId(),
    parent_lineage: null,
    position: n,
    title: `${n + 1}. ${title()}`,
    state: 'visible' as const,
  }))
  for (const batch of inBatches(units)) await db('units').insert(batch)
  const atOnce = kilobytes > 1 ? 20 : 500
  for (let from = 0; from < items; from += atOnce) {
    const bodies = Array.from({ length: Math.min(atOnce, items - from) }, () => page(kilobytes))
    await storeBodies(db, bodies)
    await db('items').insert(
      bodies.map((body, n) => {
        const at = from + n
        const kind = present(kinds[at % 4])
        const day = Math.floor((at / items) * 85)
        return {
          course_id: courseId,
          lineage: newId(),
          parent_lineage: present(units[Math.floor(at / 20)]).lineage,
          position: at % 20,
          kind,
          title: `${title()} ${at}`,
          state: 'visible' as const,
          exam: false,
          settings: '{}' as never,
          releases: '[]' as never,
          body_hash: hashOf(body),
          media_type: 'text/html',
          ...(kind !== 'page' && {
            points: '10.0000',
            category_lineage: present(categories[at % 5]).lineage,
            opens: wallOf(firstDay + day, 480),
            due: wallOf(firstDay + day + 7, 1439),
          }),
        }
      }),
    )
  }
  for (const batch of inBatches(students))
    await db('enrolments').insert(
      batch.map(person => ({
        id: newId(),
        course_id: courseId,
        person_id: person,
        role: 'student' as const,
        origin: 'registrar' as const,
        is_primary: false,
        may_run: false,
      })),
    )
  await keepSearchable(db, courseId, ownText)
  return courseId
}
/** An empty shell like another. */
export async function makeBenchShell(db: Knex, like: string, code: string): Promise<string> {
  const model = present(await db('courses').where({ source_id: like }).first())
  const id = newId()
  await db('courses').insert({ ...model, id, source_id: `bench-shell-${code}-${id}`, code })
  return id
}
