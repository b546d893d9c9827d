import type { Knex } from 'knex'
import { indexSources, suggestSource, type Suggestion } from '../../core/pairing/suggest'
import { accessToCourses, coursesOf } from '../courses/access'
import { codeKnowledge } from '../courses/codes'
import { contentsOf } from '../courses/sections.queries'
import type { Person } from '../people/people.queries'
import { runsInto } from '../run-facts/runs.queries'
import { todayHere } from './shells'
import * as queries from './shells.queries'

/** The registrar's shells of a term that a person may run into and nothing was run into, each with its suggested source; and how many were filled before. */
export async function suggestedForTerm(
  db: Knex,
  person: Person,
  termId: string,
): Promise<{ shells: { id: string; suggestion: Suggestion | null }[]; filled: number }> {
  const listed = (await queries.coursesOfTerm(db, termId, person.id)).filter(course => !course.missing)
  const ids = listed.map(course => course.id)
  const access = await accessToCourses(db, person, ids)
  const contents = await contentsOf(db, ids)
  // A section that shows another's content is filled with that.
  const own = ids.filter(id => access.get(id)?.run && (contents.get(id) ?? id) === id)
  const filled = new Set((await runsInto(db, own)).map(run => run.targetId))
  const shells = own.filter(id => !filled.has(id))
  const among = await coursesOf(db, person, { shared: true })
  const candidates = await queries.candidatesAmong(db, among(), shells, await todayHere(db))
  const index = indexSources([...candidates.values()], await codeKnowledge(db))
  return {
    shells: shells.map(id => {
      const candidate = candidates.get(id)
      return { id, suggestion: candidate ? suggestSource(candidate, index) : null }
    }),
    filled: filled.size,
  }
}
