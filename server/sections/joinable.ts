import type { Knex } from 'knex'
import { ownThings } from '../../core/carry/own-things'
import type { OutlineNode } from '../../core/course/outline'
import { codeKey } from '../../core/pairing/codes'
import { joinFaults, type SectionToJoin } from '../../core/pairing/sections'
import { studentDataNames } from '../../core/student-data/student-data'
import { loadBases } from '../courses/carried.queries'
import { codeKnowledge } from '../courses/codes'
import { loadOutline } from '../courses/content.queries'
import { loadCourses } from '../courses/courses.queries'
import { sectionsOf } from '../courses/sections.queries'
import { rosterOverlap } from '../courses/staff.queries'
import { countStudentData } from '../courses/student-data.queries'

/** A thing of a section that goes when it shows another's content. */
export type Leaving = Pick<OutlineNode, 'lineage' | 'title' | 'type' | 'kind'>
export interface Joinable {
  /** Why the section may not share the content; none: it may. */
  faults: string[]
  /** It does already. */
  joined: boolean
  /** What goes there then, all of it as a template or a run brought it. */
  leaves: Leaving[]
}
/**
 * Sections that could share a shell's content, with what stands against each. `sources`: courses that the content comes from, or will; what
 * a section has from them is no content of its own. `keepsDates`: a section keeps the dates that it has of what the content has too.
 */
export async function joinable(
  db: Knex,
  contentId: string,
  sectionIds: readonly string[],
  { sources = [], keepsDates = false }: { sources?: readonly string[]; keepsDates?: boolean },
): Promise<Map<string, Joinable>> {
  const result = new Map<string, Joinable>()
  if (sectionIds.length === 0) return result
  const courses = await loadCourses(db, [contentId, ...sectionIds])
  const { patterns } = await codeKnowledge(db)
  const factsOf = (id: string): SectionToJoin | null => {
    const course = courses.get(id)
    return course
      ? {
          codeKey: codeKey(course.code, patterns),
          term: course.term.code,
          instructors: course.instructors.map(person => person.id),
        }
      : null
  }
  const content = factsOf(contentId)
  const there = new Set(await sectionsOf(db, contentId))
  const from = new Set([...sources, ...(await sourcesOf(db, contentId))])
  const shown = keepsDates ? await loadOutline(db, contentId) : []
  const datesKept = new Set(shown.map(({ lineage }) => lineage))
  for (const id of sectionIds) {
    const section = factsOf(id)
    if (there.has(id)) result.set(id, { faults: [], joined: true, leaves: [] })
    else if (content && section) {
      const { leaves, ...held } = await heldBy(db, id, from, datesKept)
      const overlap = await rosterOverlap(db, contentId, id)
      const faults = joinFaults(content, section, { ...held, overlap })
      result.set(id, { faults: faults.map(fault => fault.message), joined: false, leaves })
    }
  }
  return result
}
/** Courses that things of a course were carried from. */
async function sourcesOf(db: Knex, courseId: string): Promise<string[]> {
  const bases = await loadBases(db, courseId)
  return bases.flatMap(({ how, of }) => (how === 'carried' && of !== undefined ? [of] : []))
}
/** What a section holds of its own, and what goes if it shows another's content. */
async function heldBy(
  db: Knex,
  sectionId: string,
  from: ReadonlySet<string>,
  datesKept: ReadonlySet<string>,
) {
  const nodes = await loadOutline(db, sectionId)
  const shown = (await sectionsOf(db, sectionId)).length
  if (nodes.length === 0) return { own: [], work: 0, shown, leaves: [] }
  const own = ownThings(nodes, await loadBases(db, sectionId), from, datesKept).map(({ title }) => title)
  const lineages = nodes.map(({ lineage }) => lineage)
  const counts = await countStudentData(db, sectionId, lineages)
  const work = studentDataNames.reduce((sum, name) => sum + counts[name], 0)
  const leaves = nodes.map(({ lineage, title, type, kind }): Leaving => ({ lineage, title, type, kind }))
  return { own, work, shown, leaves }
}
