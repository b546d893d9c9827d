import type { OutlineNode } from '~~/core/course/outline'
import { recommendedPlan, type PlanDocument } from '~~/core/plan/document'
import type { PlanReply } from '~~/shared/api/plans'

/** An item of an outline; whatever is not given is empty. */
export const item = (lineage: string, given: Partial<OutlineNode> = {}): OutlineNode => ({
  lineage,
  parent: null,
  position: 0,
  type: 'item',
  depth: 0,
  unit: null,
  title: lineage,
  kind: 'page',
  state: 'visible',
  exam: false,
  points: null,
  category: null,
  opens: null,
  due: null,
  closes: null,
  ...given,
})
export const unit = (lineage: string, given: Partial<OutlineNode> = {}): OutlineNode =>
  item(lineage, { type: 'unit', kind: null, ...given })

/** What the server says of a plan, as far as a test looks at it. */
export function somePlan(given: {
  document?: PlanDocument
  revision?: number
  savedBy?: string
  nodes?: OutlineNode[]
  mayEdit?: boolean
}): PlanReply {
  const course = { id: 'source', code: 'HYD 240', section: '01' }
  const {
    document = recommendedPlan(),
    revision = 1,
    savedBy = 'I. Marchetti',
    nodes = [],
    mayEdit = true,
  } = given
  return {
    id: 'plan',
    revision,
    state: 'draft',
    mode: 'roll',
    document,
    savedAt: '2027-01-05T20:00:00.000Z',
    savedBy,
    source: { course, nodes, categories: [] },
    more: [],
    target: { course: { ...course, id: 'target' }, nodes: [], categories: [] },
    may: { edit: mayEdit, run: true },
    writing: null,
  } as unknown as PlanReply
}
