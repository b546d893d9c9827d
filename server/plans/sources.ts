import type { Knex } from 'knex'
import { codeText } from '../../core/course/code-text'
import type { PlanReply } from '../../shared/api/plans'
import { isoInstant } from '../clock'
import { accessToCourses, type CourseAccess } from '../courses/access'
import { factsOfCourses } from '../courses/courses.queries'
import { findPerson } from '../people/people.queries'
import { endedShares } from '../sharing/shares.queries'
import type { Plan } from './plans.queries'

/** What a plan may roll from each source, and the sources that it may not be rolled from any more. */
export interface SourceAccess {
  access: Map<string, CourseAccess>
  closed: string[]
}
/** What a plan may roll from its sources: by the right of whoever chose them, which may have ended. */
export async function sourceAccess(
  db: Knex,
  plan: Pick<Plan, 'sourceBy' | 'sourceIds'>,
): Promise<SourceAccess> {
  const chooser = await findPerson(db, plan.sourceBy)
  const access = chooser
    ? await accessToCourses(db, chooser, plan.sourceIds)
    : new Map<string, CourseAccess>()
  return { access, closed: plan.sourceIds.filter(source => !access.get(source)?.rollFrom) }
}
/** `HYD 240-01 and BKG 115-02` of some courses. */
export async function courseNames(db: Knex, ids: readonly string[]): Promise<string> {
  const courses = [...(await factsOfCourses(db, ids)).values()]
  return courses.map(codeText).join(' and ')
}
/** Why sources are closed, as far as it is known: by whom and when. */
export async function whyClosed(db: Knex, ids: readonly string[]): Promise<PlanReply['closed']> {
  const ended = await endedShares(db, ids)
  return ids.map(course => {
    const share = ended.get(course)
    return share
      ? { course, how: share.how, by: share.by, at: isoInstant(share.at) }
      : { course, how: 'ended', by: null, at: null }
  })
}
