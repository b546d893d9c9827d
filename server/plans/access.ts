import { accessToCourse } from '../courses/access'
import type { May } from '../auth/may'
import { notFound, refuse } from '../errors/refusal'
import { findPlan } from './plans.queries'

function forPlan(name: string, right: 'plan' | 'run' | 'read', refusal: string): May<{ id: string }> {
  return {
    name,
    allow: async ({ db, person, params }) => {
      const plan = await findPlan(db, params.id)
      const target = plan && (await accessToCourse(db, person, plan.targetId))
      // Its shell decides; what it may roll from its sources is the right of whoever chose them (`sources.ts`).
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
