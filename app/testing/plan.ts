import { around } from '~~/tests/support/outline'
import type { OutlineNode } from '~~/core/course/outline'
import { recommendedPlan, type PlanDocument } from '~~/core/plan/document'
import type { PlanReply } from '~~/shared/api/plans'

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
    source: { course, nodes, ...around },
    more: [],
    found: [],
    closed: [],
    sameCourse: true,
    target: { course: { ...course, id: 'target' }, nodes: [], ...around },
    before: { bases: [], deleted: [] },
    links: [],
    begunWith: null,
    may: { edit: mayEdit, run: true },
    writing: null,
    outcome: null,
    undone: null,
  } as unknown as PlanReply
}
