import { createHash } from 'node:crypto'
import type { Knex } from 'knex'
import { compileTerm } from '../../core/calendar/term'
import { compilePlan, planLedger, type CompiledPlan, type CompileInput } from '../../core/plan/compile'
import { recommendedPlan, type PlanDocument } from '../../core/plan/document'
import type { EffectReply, PlanReply, PlanSaved, PlansReply } from '../../shared/api/plans'
import { accessToCourse, readableCourses } from '../db/queries/access'
import { loadCalendar, loadCategories, loadCourses, loadOutline } from '../db/queries/courses'
import { writeLog } from '../db/queries/log'
import type { Person } from '../db/queries/people'
import * as queries from '../db/queries/plans'
import { runsInto } from '../db/queries/runs'
import { inTransaction } from '../db/connection'
import { notFound, Problem } from '../http/problem'
import { courseLines, loadWhole } from './courses'
import { instantText, now } from './today'
import { zoneRules } from './zones'

/** Zone data for planning into a term: the years its dates may reach. */
export function zoneFor(calendar: { timeZone: string, classes: { from: string, to: string } }): ReturnType<typeof zoneRules> {
  return zoneRules(calendar.timeZone, Number(calendar.classes.from.slice(0, 4)) - 3, Number(calendar.classes.to.slice(0, 4)) + 4)
}

async function checkPair(db: Knex, person: Person, source: string, target: string): Promise<void> {
  if (source === target) throw new Problem(400, 'A course cannot be rolled into itself here', undefined, [{ field: 'source', message: 'Choose another course to roll from.' }])
  const from = await accessToCourse(db, person, source)
  const into = await accessToCourse(db, person, target)
  if (!from.read) throw notFound('The course to roll from')
  if (!into.read) throw notFound('The shell to roll into')
  if (!into.plan) throw new Problem(403, 'You may see this shell, not plan for it', 'Its instructors, its assistants and the academic office may.')
}

/** Begins a plan with the recommended decisions. A draft for the same pair is taken up again instead. */
export async function startPlan(db: Knex, person: Person, pair: { source: string, target: string }): Promise<string> {
  await checkPair(db, person, pair.source, pair.target)
  return inTransaction(db, async (trx) => {
    const there = (await queries.plansInto(trx, [pair.target])).find(plan => plan.state === 'draft' && plan.sourceId === pair.source)
    if (there) return there.id
    const id = await queries.insertPlan(trx, { sourceId: pair.source, targetId: pair.target, personId: person.id, document: recommendedPlan() })
    await writeLog(trx, { action: 'plan.started', personId: person.id, courseId: pair.target, planId: id })
    return id
  })
}

/** A plan with both its courses, as one page needs it. */
export async function readPlan(db: Knex, person: Person, id: string): Promise<PlanReply> {
  const plan = await queries.findPlan(db, id)
  if (!plan) throw notFound('This plan')
  const [source, target, access] = [await loadWhole(db, person, plan.sourceId), await loadWhole(db, person, plan.targetId), await accessToCourse(db, person, plan.targetId)]
  const run = (await runsInto(db, [plan.targetId])).find(entry => entry.planId === id)
  return {
    id, revision: plan.revision, state: plan.state, document: plan.document, savedAt: instantText(plan.updatedAt), savedBy: plan.updatedBy, source, target, zone: zoneFor(target.calendar) as PlanReply['zone'],
    may: { edit: access.plan && plan.state === 'draft', run: access.run && plan.state === 'draft' }, run: run ? { id: run.id, at: instantText(run.finishedAt), by: run.by } : null,
  }
}

/** Saves a plan read at a revision. Another's change in between is told, never overwritten. */
export async function savePlan(db: Knex, person: Person, id: string, revision: number, change: { document: PlanDocument, source?: string }): Promise<PlanSaved> {
  const plan = await queries.findPlan(db, id)
  if (!plan) throw notFound('This plan')
  if (plan.state === 'run') throw new Problem(409, 'This plan has been run', 'Its decisions are kept as they were. Begin a new plan to roll again.')
  if (change.source && change.source !== plan.sourceId) await checkPair(db, person, change.source, plan.targetId)
  if (!await queries.savePlan(db, id, revision, { document: change.document, sourceId: change.source ?? plan.sourceId, personId: person.id })) {
    const theirs = await queries.findPlan(db, id)
    throw new Problem(412, 'This plan was changed elsewhere', theirs ? `${theirs.updatedBy} saved it at ${instantText(theirs.updatedAt)}. Your change is not saved yet.` : undefined)
  }
  return { revision: revision + 1, savedAt: now().toISOString() }
}

export async function discardPlan(db: Knex, person: Person, id: string): Promise<void> {
  await inTransaction(db, async (trx) => {
    if (!await queries.deleteDraft(trx, id)) throw new Problem(409, 'This plan has been run', 'What was run is kept.')
    await writeLog(trx, { action: 'plan.discarded', personId: person.id, planId: id })
  })
}

/** Plans into shells that a person may read, the latest first. */
export async function listPlans(db: Knex, person: Person): Promise<PlansReply> {
  const readable = await readableCourses(db, person)
  const seen = new Set(readable)
  const plans = (await queries.plansInto(db, readable)).filter(plan => seen.has(plan.sourceId))
  const lines = await courseLines(db, person, plans.flatMap(plan => [plan.sourceId, plan.targetId]))
  const runs = await runsInto(db, readable)
  return { plans: plans.map((plan) => {
    const run = runs.find(entry => entry.planId === plan.id)
    return { id: plan.id, state: plan.state, source: lines.get(plan.sourceId)!, target: lines.get(plan.targetId)!, updatedAt: instantText(plan.updatedAt), updatedBy: plan.updatedBy, run: run ? { id: run.id, at: instantText(run.finishedAt), items: run.effect.added.items } : null }
  }) }
}

/** What the computation of a plan rests on, read within one transaction. */
export async function compileInput(db: Knex, plan: queries.PlanRow): Promise<CompileInput> {
  const courses = await loadCourses(db, [plan.sourceId, plan.targetId])
  const side = async (id: string) => {
    const calendar = await loadCalendar(db, id)
    return { calendar, term: compileTerm(calendar), meetings: courses.get(id)!.meetings, nodes: await loadOutline(db, id), categories: await loadCategories(db, id) }
  }
  const [source, target] = [await side(plan.sourceId), await side(plan.targetId)]
  return { document: plan.document, source, target, zone: zoneFor(target.calendar) }
}
/** A mark of exactly what a run would write, from what it found: any change in plan, source or shell changes it. */
export function fingerprintOf(plan: queries.PlanRow, input: CompileInput, compiled: CompiledPlan): string {
  const facts = [plan.sourceId, plan.targetId, plan.document, compiled.placements, input.source.nodes, input.target.nodes]
  return createHash('sha256').update(JSON.stringify(facts)).digest('hex')
}

/** What Run would do now, in numbers. */
export async function effectOf(db: Knex, id: string): Promise<EffectReply> {
  return inTransaction(db, async (trx) => {
    const plan = await queries.findPlan(trx, id)
    if (!plan) throw notFound('This plan')
    const input = await compileInput(trx, plan)
    const compiled = compilePlan(input)
    return { effect: compiled.effect as EffectReply['effect'], fingerprint: fingerprintOf(plan, input, compiled) }
  })
}

/** The dates of a plan with old and new side by side, in course order. */
export async function datesOf(db: Knex, id: string): Promise<{ input: CompileInput, ledger: ReturnType<typeof planLedger>, plan: queries.PlanRow }> {
  const plan = await queries.findPlan(db, id)
  if (!plan) throw notFound('This plan')
  const input = await compileInput(db, plan)
  return { plan, input, ledger: planLedger(input) }
}
