import type { Knex } from 'knex'
import { planDocument, type PlanDocument } from '../../core/plan/document'
import { now, stampOf } from '../clock'
import { jsonOf, newId } from '../db/rows'
import { personName } from '../courses/courses.queries'

export type PlanMode = 'roll' | 'in-place'
/** `sourceIds`: in their order, the first being `sourceId`. `sourceBy`: who chose them; their right to take from them is the plan's. */
export interface PlanRow {
  id: string
  sourceId: string
  sourceIds: string[]
  targetId: string
  document: PlanDocument
  revision: number
  state: 'draft' | 'run'
  mode: PlanMode
  setId: string | null
  sourceBy: string
  updatedAt: string
  updatedBy: string
}

/** The course that a run of the plan writes into: its shell, or (in place) the course itself. */
export const writtenCourse = (plan: Pick<PlanRow, 'mode' | 'sourceId' | 'targetId'>): string =>
  plan.mode === 'in-place' ? plan.sourceId : plan.targetId

const plans = (db: Knex) =>
  db('plans').join('people', 'people.id', 'plans.updated_by').select('plans.*', 'given_name', 'family_name')
async function plansOf(db: Knex, rows: Record<string, string>[]): Promise<PlanRow[]> {
  const more = new Map<string, string[]>()
  for (const row of rows.length === 0
    ? []
    : await db('plan_sources')
        .whereIn(
          'plan_id',
          rows.map(row => row.id!),
        )
        .orderBy('position'))
    more.set(row.plan_id, [...(more.get(row.plan_id) ?? []), row.course_id])
  return rows.map(row => ({
    id: row.id!,
    sourceId: row.source_course_id!,
    sourceIds: [row.source_course_id!, ...(more.get(row.id!) ?? [])],
    targetId: row.target_course_id!,
    document: planDocument.parse(jsonOf(row.document)),
    revision: Number(row.revision),
    state: row.state as PlanRow['state'],
    mode: row.mode as PlanMode,
    setId: row.set_id ?? null,
    sourceBy: row.source_by ?? row.owner_id!,
    updatedAt: row.updated_at!,
    updatedBy: personName(row as { given_name: string; family_name: string }),
  }))
}

export async function findPlan(db: Knex, id: string): Promise<PlanRow | null> {
  return (await plansOf(db, await plans(db).where('plans.id', id)))[0] ?? null
}
/** Takes the plan and the course it writes into for this transaction alone: two runs into one come one after the other. */
export async function lockPlan(trx: Knex, id: string): Promise<PlanRow | null> {
  const found = await trx('plans')
    .where({ id })
    .forUpdate()
    .first('target_course_id', 'source_course_id', 'mode')
  if (!found) return null
  await trx('courses')
    .where({
      id: writtenCourse({
        mode: found.mode,
        sourceId: found.source_course_id,
        targetId: found.target_course_id,
      }),
    })
    .forUpdate()
    .first('id')
  return findPlan(trx, id)
}
export async function plansInto(db: Knex, targetIds: readonly string[]): Promise<PlanRow[]> {
  return targetIds.length === 0
    ? []
    : plansOf(
        db,
        await plans(db)
          .whereIn('target_course_id', targetIds)
          .orderBy('updated_at', 'desc')
          .orderBy('plans.id', 'desc'),
      )
}
/** Plans that were made from one another, for several shells. */
export async function plansOfSet(db: Knex, setId: string): Promise<PlanRow[]> {
  return plansOf(db, await plans(db).where({ set_id: setId }).orderBy('plans.id'))
}
export async function insertPlan(
  db: Knex,
  plan: {
    sourceIds: readonly string[]
    targetId: string
    personId: string
    document: PlanDocument
    mode?: PlanMode
    setId?: string
  },
): Promise<string> {
  const id = newId()
  const at = stampOf(now())
  await db('plans').insert({
    id,
    source_course_id: plan.sourceIds[0],
    target_course_id: plan.targetId,
    owner_id: plan.personId,
    source_by: plan.personId,
    mode: plan.mode ?? 'roll',
    set_id: plan.setId ?? null,
    document: JSON.stringify(plan.document),
    revision: 1,
    state: 'draft',
    created_at: at,
    updated_at: at,
    updated_by: plan.personId,
  })
  await putSources(db, id, plan.sourceIds)
  return id
}
async function putSources(db: Knex, id: string, sourceIds: readonly string[]): Promise<void> {
  await db('plan_sources').where({ plan_id: id }).delete()
  if (sourceIds.length > 1)
    await db('plan_sources').insert(
      sourceIds.slice(1).map((course, at) => ({ plan_id: id, position: at + 1, course_id: course })),
    )
}
/** Saves a plan if it is still a draft at the revision it was read at. Returns whether it was. */
export async function savePlan(
  db: Knex,
  id: string,
  revision: number,
  change: { document: PlanDocument; sourceIds?: readonly string[]; sourceBy?: string; personId: string },
): Promise<boolean> {
  const changed = await db('plans')
    .where({ id, revision, state: 'draft' })
    .update({
      document: JSON.stringify(change.document),
      revision: revision + 1,
      updated_at: stampOf(now()),
      updated_by: change.personId,
      ...(change.sourceIds && { source_course_id: change.sourceIds[0] }),
      ...(change.sourceBy && { source_by: change.sourceBy }),
    })
  if (changed === 1 && change.sourceIds) await putSources(db, id, change.sourceIds)
  return changed === 1
}
/** Gives a plan another shell, or (after a roll in place) another pair. */
export async function repairPlan(
  db: Knex,
  id: string,
  change: { targetId?: string; sourceId?: string; setId?: string; document?: PlanDocument; personId: string },
): Promise<void> {
  await db('plans')
    .where({ id })
    .update({
      ...(change.targetId && { target_course_id: change.targetId }),
      ...(change.sourceId && { source_course_id: change.sourceId }),
      ...(change.setId && { set_id: change.setId }),
      ...(change.document && { document: JSON.stringify(change.document) }),
      revision: db.raw('revision + 1'),
      updated_at: stampOf(now()),
      updated_by: change.personId,
    })
}
export async function markRun(db: Knex, id: string): Promise<void> {
  await db('plans').where({ id }).update({ state: 'run' })
}
export async function deleteDraft(db: Knex, id: string): Promise<boolean> {
  return (await db('plans').where({ id, state: 'draft' }).delete()) === 1
}
