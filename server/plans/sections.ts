import type { Knex } from 'knex'
import { inTransaction } from '../db/transaction'
import { notFound, refuse } from '../errors/refusal'
import { writeLog } from '../log/log.queries'
import type { Person } from '../people/people.queries'
import { joinable } from '../sections/joinable'
import { checkShell } from './pair'
import { lockPlan, repairPlan, setPlanSections } from './plans.queries'

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
    for (const [section, { faults }] of await joinable(trx, plan.targetId, sections, {
      sources: plan.sourceIds,
    }))
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
