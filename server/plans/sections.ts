import type { Knex } from 'knex'
import { codeKey } from '../../core/pairing/codes'
import { joinFaults, type SectionToJoin } from '../../core/pairing/sections'
import { codeKnowledge } from '../courses/codes'
import { loadCourses } from '../courses/courses.queries'
import { sectionsOf } from '../courses/sections.queries'
import { rosterOverlap } from '../courses/staff.queries'
import { inTransaction } from '../db/transaction'
import { notFound, refuse } from '../errors/refusal'
import { writeLog } from '../log/log.queries'
import type { Person } from '../people/people.queries'
import { checkShell } from './pair'
import { lockPlan, repairPlan, setPlanSections } from './plans.queries'

export interface Joinable {
  /** Why the section may not share the content; none: it may. */
  faults: string[]
  /** It does already. */
  joined: boolean
}
/** Sections that could share a shell's content, with what stands against each. */
export async function joinable(
  db: Knex,
  contentId: string,
  sectionIds: readonly string[],
): Promise<Map<string, Joinable>> {
  const courses = await loadCourses(db, [contentId, ...sectionIds])
  const { patterns } = await codeKnowledge(db)
  const factsOf = (id: string): SectionToJoin | null => {
    const course = courses.get(id)
    return course
      ? {
          codeKey: codeKey(course.code, patterns),
          term: course.term.code,
          instructors: course.instructors.map(person => person.id),
          items: course.items,
        }
      : null
  }
  const content = factsOf(contentId)
  const there = new Set(await sectionsOf(db, contentId))
  const result = new Map<string, Joinable>()
  for (const id of sectionIds) {
    const section = factsOf(id)
    if (there.has(id)) result.set(id, { faults: [], joined: true })
    else if (content && section) {
      const faults = joinFaults(content, section, await rosterOverlap(db, contentId, id))
      result.set(id, { faults: faults.map(fault => fault.message), joined: false })
    }
  }
  return result
}
/** Chooses the sections that the run joins to its shell: they show its content, each with the dates of its own meetings. */
export async function chooseSections(
  db: Knex,
  person: Person,
  id: string,
  sections: readonly string[],
): Promise<void> {
  await inTransaction(db, async trx => {
    const plan = await lockPlan(trx, id)
    if (!plan) throw notFound('This plan')
    if (plan.state === 'run' || plan.mode === 'in-place') throw refuse('joins-no-sections')
    for (const section of sections) await checkShell(trx, person, section)
    for (const [section, { faults }] of await joinable(trx, plan.targetId, sections))
      if (faults.length > 0 || section === plan.targetId) throw refuse('cannot-join', { faults })
    await setPlanSections(trx, id, [...new Set(sections)])
    await repairPlan(trx, id, { personId: person.id })
    await writeLog(trx, {
      action: 'plan.sections',
      personId: person.id,
      planId: id,
      courseId: plan.targetId,
      detail: { sections: sections.length },
    })
  })
}
