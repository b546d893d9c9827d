import { termCalendar } from '~~/core/calendar/schema'
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
  const course = {
    id: 'source',
    code: 'HYD 240',
    section: '01',
    meetings: [],
    windows: { enrolFrom: null, enrolTo: null, openFrom: null, openTo: null },
  }
  const calendar = (from: string, to: string) =>
    termCalendar.parse({ timeZone: 'UTC', classes: { from, to } })
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
    source: { course, nodes, ...around, calendar: calendar('2026-09-02', '2026-12-04') },
    more: [],
    found: [],
    closed: [],
    sameCourse: true,
    target: {
      course: { ...course, id: 'target' },
      nodes: [],
      ...around,
      calendar: calendar('2027-01-06', '2027-04-09'),
    },
    byHand: [],
    zone: { timeZone: 'UTC', years: { from: 2020, to: 2040 }, offset: 0, transitions: [] },
    before: { bases: [], deleted: [] },
    links: [],
    begunWith: null,
    may: { edit: mayEdit, run: true },
    writing: null,
    outcome: null,
    undone: null,
  } as unknown as PlanReply
}
