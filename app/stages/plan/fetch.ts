import { withOwnKeys } from '~~/core/course/own-keys'
import type { OutlineNode } from '~~/core/course/outline'
import type { PlanReply } from '~~/shared/api/plans'
import { api } from '~/composables/api'

const withKeys = <S extends { nodes: OutlineNode[] }>(side: S): S => ({
  ...side,
  nodes: withOwnKeys(side.nodes),
})
/** A plan as the server has it, with all its courses. */
export async function fetchPlan(id: string): Promise<PlanReply> {
  const plan = await api.get<PlanReply>(`/plans/${id}`)
  return {
    ...plan,
    source: withKeys(plan.source),
    more: plan.more.map(withKeys),
    found: plan.found.map(withKeys),
    target: withKeys(plan.target),
  }
}
