import type { Knex } from 'knex'
import { accessToCourse, accessToCourses } from '../courses/access'
import type { May } from '../auth/may'
import { notFound, refuse } from '../errors/refusal'
import type { Person } from '../people/people.queries'
import { findPlan, sectionsOfPlan, writtenCourse, type Plan, type Sections } from './plans.queries'
import { courseNames } from './sources'

/** The course that a plan is about to change, or has changed: in place that is the course itself, not the place it waits for. */
export const changedCourse = (plan: Plan): string =>
  plan.state === 'run' ? plan.targetId : writtenCourse(plan)

/** Courses that a run would begin to write into for a person: the shell, and each section that is joined to it. */
function coursesToRunInto(plan: Plan, { joined, chosen }: Sections): string[] {
  return [writtenCourse(plan), ...chosen.filter(id => !joined.includes(id))]
}
/** Courses of a plan that a person may not run into. */
async function barredFrom(db: Knex, person: Person, plan: Plan, beside: Sections): Promise<string[]> {
  const written = coursesToRunInto(plan, beside)
  const access = await accessToCourses(db, person, written)
  return written.filter(id => !access.get(id)?.run)
}
export const mayRunPlan = async (db: Knex, person: Person, plan: Plan): Promise<boolean> =>
  (await barredFrom(db, person, plan, await sectionsOfPlan(db, plan))).length === 0
/** Asks once more, within the run's own transaction, of every course that is written. @throws Refusal naming one that may not be. */
export async function checkMayRun(trx: Knex, person: Person, plan: Plan, beside: Sections): Promise<void> {
  const barred = await barredFrom(trx, person, plan, beside)
  if (barred.length > 0) throw refuse('may-not-run-into', { courses: await courseNames(trx, barred) })
}

function forPlan(name: string, right: 'plan' | 'run' | 'read', refusal: string): May<{ id: string }> {
  return {
    name,
    allow: async ({ db, person, params }) => {
      const plan = await findPlan(db, params.id)
      const target = plan && (await accessToCourse(db, person, changedCourse(plan)))
      // What it changes decides; what it may roll from its sources is the right of whoever chose them (`sources.ts`).
      if (!target?.read || target.role === 'shared') return notFound('This plan')
      return right === 'read' || target[right] || refuse('forbidden', { title: refusal })
    },
  }
}
/** Those who may see a plan: who has to do with its shell. */
export const readsPlan = forPlan('reads the plan', 'read', '')
/** Those who may change a plan: instructors and assistants of its shell, and the academic office. */
export const editsPlan = forPlan('edits the plan', 'plan', 'You may see this plan, not change it')
/** Those who may run a plan: instructors of its shell, assistants whom they have allowed it, the academic office. */
export const runsPlan = forPlan(
  'runs the plan',
  'run',
  'An instructor of the shell must run this plan, or allow you to',
)
