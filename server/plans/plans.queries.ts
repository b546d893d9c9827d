import type { Knex } from 'knex'
import { LRUCache } from 'lru-cache'
import { foundCourses } from '../../core/carry/added'
import { planDocument, type PlanDocument } from '../../core/plan/document'
import { now, stampOf } from '../clock'
import { dropContent } from '../courses/content.queries'
import { lockCourse } from '../courses/courses.queries'
import { groupBy, json, jsonOf, newId, selectRows, written } from '../db/rows'
import type { BegunWith, PlanMode, PlanRow, PlanState } from '../db/tables'
import { shortName, type NamedRow } from '../people/names'

/** `sourceIds`: in their order, the first being `sourceId`. `sourceBy`: who chose them; their right to roll from them is the plan's. */
export interface Plan {
  id: string
  sourceId: string
  sourceIds: string[]
  targetId: string
  document: PlanDocument
  revision: number
  state: PlanState
  mode: PlanMode
  setId: string | null
  begunWith: BegunWith | null
  sourceBy: string
  updatedAt: string
  updatedBy: string
}

/** The course that a run of the plan writes into: its shell, or (in place) the course itself. */
export const writtenCourse = (plan: Pick<Plan, 'mode' | 'sourceId' | 'targetId'>): string =>
  plan.mode === 'in-place' ? plan.sourceId : plan.targetId

/** All courses that a plan brings from, in the order of its sides: its sources, then those of which it takes single items. */
export const sidesOfPlan = ({ sourceIds, document }: Pick<Plan, 'sourceIds' | 'document'>): string[] => [
  ...sourceIds,
  ...foundCourses(document.added),
]

type PlanColumns = PlanRow & NamedRow
const planRows = (db: Knex) =>
  db('plans')
    .join('people', 'people.id', 'plans.updated_by')
    .select<PlanColumns[]>('plans.*', 'given_name', 'family_name')
/** Documents as they were read last, by plan: about so many letters are kept by a process. */
const documentsKnown = new LRUCache<string, { text: string; document: PlanDocument }>({
  maxSize: 10_000_000,
  sizeCalculation: ({ text }) => text.length,
})
/** The document in a row; the very same object as long as it says the same, so that what was computed of it holds. */
function documentIn({ id, document: column }: PlanColumns): PlanDocument {
  const raw = jsonOf(column)
  const text = JSON.stringify(raw)
  const last = documentsKnown.get(id)
  if (last?.text === text) return last.document
  const document = planDocument.parse(raw)
  documentsKnown.set(id, { text, document })
  return document
}
/** Rows as plans, with their further sources. */
async function plansFrom(db: Knex, rows: readonly PlanColumns[]): Promise<Plan[]> {
  const ids = rows.map(row => row.id)
  const further = ids.length === 0 ? [] : await db('plan_sources').whereIn('plan_id', ids).orderBy('position')
  const furtherOf = groupBy(further, row => row.plan_id)
  return rows.map(row => ({
    id: row.id,
    sourceId: row.source_course_id,
    sourceIds: [row.source_course_id, ...(furtherOf.get(row.id) ?? []).map(each => each.course_id)],
    targetId: row.target_course_id,
    document: documentIn(row),
    revision: row.revision,
    state: row.state,
    mode: row.mode,
    setId: row.set_id,
    begunWith: row.begun_with && jsonOf(row.begun_with),
    sourceBy: row.source_by,
    updatedAt: row.updated_at,
    updatedBy: shortName(row),
  }))
}

export async function findPlan(db: Knex, id: string): Promise<Plan | null> {
  const [plan] = await plansFrom(db, await planRows(db).where('plans.id', id))
  return plan ?? null
}
/** Takes the plan and the course it writes into for this transaction alone: two runs into one come one after the other. */
export async function lockPlan(trx: Knex, id: string): Promise<Plan | null> {
  const locked = await trx('plans').where({ id }).forUpdate().first('id')
  const plan = locked ? await findPlan(trx, id) : null
  if (plan) await lockCourse(trx, writtenCourse(plan))
  return plan
}
/** Plans into some shells, the latest first. */
export async function plansInto(db: Knex, targetIds: readonly string[]): Promise<Plan[]> {
  if (targetIds.length === 0) return []
  const rows = await planRows(db)
    .whereIn('target_course_id', targetIds)
    .orderBy([
      { column: 'updated_at', order: 'desc' },
      { column: 'plans.id', order: 'desc' },
    ])
  return plansFrom(db, rows)
}
/** Plans that were made from one another, for several shells. */
export async function plansOfSet(db: Knex, setId: string): Promise<Plan[]> {
  return plansFrom(db, await planRows(db).where({ set_id: setId }).orderBy('plans.id'))
}

export interface NewPlanRow {
  sourceIds: readonly [string, ...string[]]
  targetId: string
  personId: string
  document: PlanDocument
  mode?: PlanMode
  setId?: string
  begunWith?: BegunWith
}
export async function insertPlan(db: Knex, plan: NewPlanRow): Promise<string> {
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
    document: json(plan.document),
    begun_with: plan.begunWith ? json(plan.begunWith) : null,
    revision: 1,
    state: 'draft',
    created_at: at,
    updated_at: at,
    updated_by: plan.personId,
  })
  await replaceSources(db, id, plan.sourceIds)
  return id
}
async function replaceSources(db: Knex, id: string, sourceIds: readonly string[]): Promise<void> {
  await db('plan_sources').where({ plan_id: id }).delete()
  const further = sourceIds.slice(1)
  if (further.length > 0)
    await db('plan_sources').insert(
      further.map((course, at) => ({ plan_id: id, position: at + 1, course_id: course })),
    )
}

export interface PlanUpdate {
  document: PlanDocument
  sourceIds?: readonly string[]
  sourceBy?: string
  personId: string
}
/** Updates a plan if it is still a draft at the revision it was read at. Returns whether it was. */
export async function updatePlan(
  db: Knex,
  id: string,
  revision: number,
  change: PlanUpdate,
): Promise<boolean> {
  const [first] = change.sourceIds ?? []
  const changed = await db('plans')
    .where({ id, revision, state: 'draft' })
    .update({
      document: json(change.document),
      revision: revision + 1,
      updated_at: stampOf(now()),
      updated_by: change.personId,
      ...(first && { source_course_id: first }),
      ...(change.sourceBy && { source_by: change.sourceBy }),
    })
  if (changed === 1 && change.sourceIds) await replaceSources(db, id, change.sourceIds)
  return changed === 1
}
export interface PlanRepair {
  targetId?: string
  sourceId?: string
  setId?: string
  document?: PlanDocument
  begunWith?: BegunWith
  personId: string
}
/** Gives a plan another shell, another set, another document, or (after a roll in place) another pair; whatever revision it is at. */
export async function repairPlan(db: Knex, id: string, change: PlanRepair): Promise<void> {
  await db('plans')
    .where({ id })
    .update({
      ...(change.targetId && { target_course_id: change.targetId }),
      ...(change.sourceId && { source_course_id: change.sourceId }),
      ...(change.setId && { set_id: change.setId }),
      ...(change.document && { document: json(change.document) }),
      ...(change.begunWith && { begun_with: json(change.begunWith) }),
      revision: db.raw<number>('revision + 1'),
      updated_at: stampOf(now()),
      updated_by: change.personId,
    })
}
/** Drafts that roll from a course roll from another from now on: what they were begun from stands there. */
export async function moveDrafts(db: Knex, from: string, to: string): Promise<void> {
  const names = { from, to }
  await written(
    db,
    `UPDATE plans SET source_course_id = :to, revision = revision + 1
     WHERE source_course_id = :from AND state = 'draft' AND mode = 'roll'`,
    names,
  )
  await written(
    db,
    `UPDATE plan_sources s JOIN plans p ON p.id = s.plan_id
     SET s.course_id = :to, p.revision = p.revision + 1
     WHERE s.course_id = :from AND p.state = 'draft' AND p.mode = 'roll'`,
    names,
  )
}
export async function markAsRun(db: Knex, id: string): Promise<void> {
  await db('plans').where({ id }).update({ state: 'run' })
}
/** A plan whose run was undone is a draft again, as it was run. */
export async function reopenPlan(db: Knex, id: string): Promise<void> {
  await db('plans')
    .where({ id })
    .update({ state: 'draft', revision: db.raw<number>('revision + 1') })
}
export async function deleteDraft(db: Knex, id: string): Promise<boolean> {
  // One that was run once is kept with the record of what it did: it ends as it was run.
  if (await db('runs').where({ plan_id: id }).first('id'))
    return (await db('plans').where({ id, state: 'draft' }).update({ state: 'run' })) === 1
  return (await db('plans').where({ id, state: 'draft' }).delete()) === 1
}
/** Deletes a draft that nobody has changed since it was begun, and that was never run. */
export const deleteUntouched = (db: Knex, id: string): Promise<number> =>
  db('plans')
    .where({ id, state: 'draft', revision: 1 })
    .whereNotIn('id', db('runs').where({ plan_id: id }).select('plan_id'))
    .delete()

/** Whether a plan or a share of an earlier version still names a place: nothing does any more, once made. */
async function isUsed(trx: Knex, courseId: string): Promise<boolean> {
  const plan = await trx('plans')
    .where({ target_course_id: courseId })
    .orWhere({ source_course_id: courseId })
    .first('id')
  const share = await trx('shares').where({ course_id: courseId }).first('id')
  const further = await trx('plan_sources').where({ course_id: courseId }).first('plan_id')
  return plan !== undefined || share !== undefined || further !== undefined
}

/** The sections of a plan's shell: those that show its content already, and those that the plan has chosen. */
export interface Sections {
  readonly joined: readonly string[]
  readonly chosen: readonly string[]
}
export async function sectionsOfPlan(
  db: Knex,
  { id, targetId }: Pick<Plan, 'id' | 'targetId'>,
): Promise<Sections> {
  const rows = await selectRows<{ section: string; joined: number }>(
    db,
    `SELECT course_id AS section, 1 AS joined FROM joined_sections WHERE content_id = :targetId
     UNION ALL SELECT course_id, 0 FROM plan_sections WHERE plan_id = :id
     ORDER BY section`,
    { id, targetId },
  )
  const those = (joined: number): string[] =>
    rows.flatMap(row => (Number(row.joined) === joined ? [row.section] : []))
  return { joined: those(1), chosen: those(0) }
}
/** All of them, in one order. */
export const everySection = ({ joined, chosen }: Sections): string[] =>
  [...new Set([...joined, ...chosen])].sort()
/** Sections that a plan joins to its shell when it is run. */
export const planSections = (db: Knex, planId: string): Promise<string[]> =>
  db('plan_sections').where({ plan_id: planId }).orderBy('course_id').pluck('course_id')
export async function setPlanSections(
  trx: Knex,
  planId: string,
  courseIds: readonly string[],
): Promise<void> {
  await trx('plan_sections').where({ plan_id: planId }).delete()
  const rows = courseIds.map(id => ({ plan_id: planId, course_id: id }))
  if (rows.length > 0) await trx('plan_sections').insert(rows)
}
/** Takes away the place that a plan held for a shell, or the file that it compared, where nothing else rests on it. */
export async function dropHeld(trx: Knex, courseId: string): Promise<void> {
  const place = await trx('courses')
    .where({ id: courseId })
    .whereIn('origin', ['awaited', 'file'])
    .first('id')
  if (!place || (await isUsed(trx, courseId))) return
  await dropContent(trx, courseId)
  await trx('meetings').where({ course_id: courseId }).delete()
  await trx('enrolments').where({ course_id: courseId }).delete()
  await trx('courses').where({ id: courseId }).delete()
}
