import type { Knex } from 'knex'
import { codeKey } from '../../core/pairing/codes'
import { coursesOf } from '../courses/access'
import { codeKnowledge } from '../courses/codes'
import { coursesInTerm, loadCourse } from '../courses/courses.queries'
import type { Person } from '../people/people.queries'

const atMost = 40
/** Other courses of a term that have a course's code or title, among those that a person may see. */
export async function siblingsOf(db: Knex, person: Person, courseId: string): Promise<string[]> {
  const course = await loadCourse(db, courseId)
  const { patterns } = await codeKnowledge(db)
  const key = codeKey(course.code, patterns)
  const rows = await coursesInTerm(db, (await coursesOf(db, person))(), course.term.code)
  return rows
    .filter(row => row.id !== courseId)
    .filter(row => codeKey(row.code, patterns) === key || row.title === course.title)
    .map(row => row.id)
    .slice(0, atMost)
}
