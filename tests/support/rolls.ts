import { createHash } from 'node:crypto'
import { present } from '../../core/present'
import type { PlanDocument } from '../../core/plan/document'
import { contentTables } from '../../server/courses/content.queries'
import { newId } from '../../server/db/rows'
import { effectOf } from '../../server/runs/effect'
import { readPlan, savePlan } from '../../server/plans/plans'
import { startPlan } from '../../server/plans/start'
import { runPlan } from '../../server/runs/runs'
import type { Person } from '../../server/people/people.queries'
import type { Demo } from './demo'

export type Decide = (document: PlanDocument) => Partial<PlanDocument>
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
  /** A student of the demo's old course is enrolled in a course, and hands in work on an item of it. */
  async handIn(courseId: string, lineage: string): Promise<void> {
    const students = await demo
      .db('enrolments')
      .where({ course_id: demo.courses.old, role: 'student' })
      .pluck('person_id')
    const enrolment = newId()
    await demo.db('enrolments').insert({
      id: enrolment,
      course_id: courseId,
      person_id: present(students[0]),
      role: 'student',
      origin: 'registrar',
      source_id: `in-${enrolment}`,
      is_primary: false,
      may_run: false,
    })
    await demo.db('completions').insert({
      enrolment_id: enrolment,
      item_lineage: lineage,
      finished_at: '2027-01-20 10:00:00',
    })
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
