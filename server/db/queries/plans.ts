import type { Knex } from 'knex'
import { planDocument, type PlanDocument } from '../../../core/plan/document'
import { now, stampOf } from '../../services/today'
import { jsonOf, newId } from '../rows'
import { personName } from './courses'

export interface PlanRow { id: string, sourceId: string, targetId: string, document: PlanDocument, revision: number, state: 'draft' | 'run', updatedAt: string, updatedBy: string }

const plans = (db: Knex) => db('plans').join('people', 'people.id', 'plans.updated_by').select('plans.*', 'given_name', 'family_name')
const planOf = (row: Record<string, string>): PlanRow => ({
  id: row.id!, sourceId: row.source_course_id!, targetId: row.target_course_id!, document: planDocument.parse(jsonOf(row.document)), revision: Number(row.revision),
  state: row.state as PlanRow['state'], updatedAt: row.updated_at!, updatedBy: personName(row as { given_name: string, family_name: string }),
})

export async function findPlan(db: Knex, id: string): Promise<PlanRow | null> {
  const row = await plans(db).where('plans.id', id).first()
  return row ? planOf(row) : null
}
/** Takes the plan and its shell for this transaction alone: two runs into one shell come one after the other. */
export async function lockPlan(trx: Knex, id: string): Promise<PlanRow | null> {
  const found = await trx('plans').where({ id }).forUpdate().first('target_course_id')
  if (!found) return null
  await trx('courses').where({ id: found.target_course_id }).forUpdate().first('id')
  return findPlan(trx, id)
}
export async function plansInto(db: Knex, targetIds: readonly string[]): Promise<PlanRow[]> {
  return targetIds.length === 0 ? [] : (await plans(db).whereIn('target_course_id', targetIds).orderBy('updated_at', 'desc')).map(planOf)
}
export async function insertPlan(db: Knex, plan: { sourceId: string, targetId: string, personId: string, document: PlanDocument }): Promise<string> {
  const id = newId()
  const at = stampOf(now())
  await db('plans').insert({ id, source_course_id: plan.sourceId, target_course_id: plan.targetId, owner_id: plan.personId, document: JSON.stringify(plan.document), revision: 1, state: 'draft', created_at: at, updated_at: at, updated_by: plan.personId })
  return id
}
/** Saves a plan if it is still a draft at the revision it was read at. Returns whether it was. */
export async function savePlan(db: Knex, id: string, revision: number, change: { document: PlanDocument, sourceId: string, personId: string }): Promise<boolean> {
  const changed = await db('plans').where({ id, revision, state: 'draft' })
    .update({ document: JSON.stringify(change.document), source_course_id: change.sourceId, revision: revision + 1, updated_at: stampOf(now()), updated_by: change.personId })
  return changed === 1
}
export async function markRun(db: Knex, id: string): Promise<void> { await db('plans').where({ id }).update({ state: 'run' }) }
export async function deleteDraft(db: Knex, id: string): Promise<boolean> { return await db('plans').where({ id, state: 'draft' }).delete() === 1 }
