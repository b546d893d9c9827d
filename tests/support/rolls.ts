import { createHash } from 'node:crypto'
import type { PlanDocument } from '../../core/plan/document'
import { effectOf } from '../../server/plans/effect'
import { readPlan, savePlan } from '../../server/plans/plans'
import { startPlan } from '../../server/plans/start'
import { runPlan } from '../../server/runs/runs'
import type { Person } from '../../server/people/people.queries'
import type { Demo } from './demo'

export type Decide = (document: PlanDocument) => Partial<PlanDocument>
export const contentTables = [
  'units',
  'items',
  'grade_categories',
  'grade_rules',
  'grace_rules',
  'rubrics',
  'work_groups',
  'furnishings',
  'carried_bases',
]
/** Rolls of the demo's courses, as somebody plans and runs them. */
export const useRolls = (demo: Demo, who: () => Person) => ({
  async planned(sources: [string, ...string[]], target: string, decide?: Decide): Promise<string> {
    const plan = await startPlan(demo.db, who(), { sources, target })
    if (decide) {
      const { revision, document } = await readPlan(demo.db, who(), plan)
      await savePlan(demo.db, who(), plan, revision, { document: { ...document, ...decide(document) } })
    }
    return plan
  },
  async run(plan: string): Promise<string> {
    const { fingerprint } = await effectOf(demo.db, plan)
    return runPlan(demo.db, who(), plan, fingerprint)
  },
  /** A digest of every row that a course has. */
  async digest(courseId: string): Promise<string> {
    const rows: unknown[] = [await demo.db('courses').where({ id: courseId })]
    for (const table of [
      ...contentTables,
      'meetings',
      'enrolments',
      'section_dates',
      'section_openings',
      'joined_sections',
    ] as 'items'[])
      rows.push(await demo.db(table).where({ course_id: courseId }).orderByRaw('1, 2'))
    return createHash('sha256').update(JSON.stringify(rows)).digest('hex')
  },
})
