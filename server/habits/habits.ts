import type { Knex } from 'knex'
import { areOneCourse } from '../../core/pairing/codes'
import { asHabit, forOtherSource, habitTold, withHabit, type PlanDocument } from '../../core/plan/document'
import type {
  HabitChange,
  HabitLine,
  HabitsReply,
  KeepableReply,
  NewHabit,
  PlanHabitsReply,
} from '../../shared/api/habits'
import { isoInstant } from '../clock'
import { departmentsOf, dutyReach } from '../courses/access'
import { codeKnowledge } from '../courses/codes'
import { factsOfCourses, orgOfCourse } from '../courses/courses.queries'
import { inTransaction } from '../db/transaction'
import { notFound, refuse } from '../errors/refusal'
import { writeLog } from '../log/log.queries'
import { orgsById, orgTree } from '../people/orgs.queries'
import type { Person } from '../people/people.queries'
import { findPlan } from '../plans/plans.queries'
import { findRun } from '../run-facts/runs.queries'
import { mayChangeHabits } from './access'
import * as queries from './habits.queries'

/** Some organisations and all that are above them: whose habits reach them. */
async function withAbove(db: Knex, orgIds: readonly string[]): Promise<string[]> {
  const tree = await orgTree(db)
  const found = new Set<string>()
  const climb = (id: string): void => {
    const org = tree.find(each => each.id === id)
    if (!org || found.has(id)) return
    found.add(id)
    const above = tree.find(each => each.source_id === org.parent_source_id)
    if (above) climb(above.id)
  }
  for (const id of orgIds) climb(id)
  return [...found]
}

/** Habits as they are told, each with the document that `documentOf` makes of it. */
async function linesOf(
  db: Knex,
  person: Person,
  habits: readonly queries.Habit[],
  documentOf: (habit: queries.Habit) => PlanDocument,
): Promise<HabitLine[]> {
  const courses = await factsOfCourses(
    db,
    habits.map(habit => habit.targetId),
  )
  const orgIds = habits.flatMap(({ owner }) => ('orgId' in owner ? [owner.orgId] : []))
  const orgs = new Map((await orgsById(db, orgIds)).map(org => [org.id, org.name]))
  const lines: HabitLine[] = []
  for (const habit of habits) {
    const { id, owner, name, isUsual, runId, by, madeAt } = habit
    const from = courses.get(habit.targetId)
    lines.push({
      id,
      name,
      department: 'orgId' in owner ? (orgs.get(owner.orgId) ?? '') : null,
      isUsual,
      from: { run: runId, code: from?.code ?? '', term: from?.term.name ?? '' },
      by,
      madeAt: isoInstant(madeAt),
      ...habitTold(documentOf(habit)),
      may: { edit: await mayChangeHabits(db, person, owner) },
    })
  }
  return lines
}
/** A person's habits, and those of their departments. */
export async function listHabits(db: Knex, person: Person): Promise<HabitsReply> {
  const orgs = await withAbove(db, await departmentsOf(db, person))
  const habits = await queries.habitsOf(db, person.id, orgs)
  return { habits: await linesOf(db, person, habits, habit => habit.document) }
}

/** What a habit kept from a run would decide; for which departments one may keep it: that of its shell and those above, as far as a duty reaches. */
export async function keepableOf(db: Knex, person: Person, runId: string): Promise<KeepableReply> {
  const run = await findRun(db, runId)
  if (!run) throw notFound('This run')
  const org = await orgOfCourse(db, run.targetId)
  const reach = await dutyReach(db, person)
  const reaching = org ? await withAbove(db, [org]) : []
  const departments = await orgsById(
    db,
    reaching.filter(id => reach.office.has(id) || reach.coordinator.has(id)),
  )
  const kept = asHabit(run.document)
  const { decides } = habitTold(forOtherSource(kept))
  return {
    ...habitTold(kept),
    departments: departments.map(({ id, name }) => ({ id, name, decides })),
    kept: (await queries.habitsOf(db, person.id, reaching))
      .filter(habit => habit.runId === runId)
      .map(({ id, name }) => ({ id, name })),
  }
}
async function checkName(trx: Knex, owner: queries.HabitOwner, name: string, but?: string): Promise<void> {
  const own = await queries.habitsOf(
    trx,
    'personId' in owner ? owner.personId : '',
    'orgId' in owner ? [owner.orgId] : [],
  )
  const same = own.some(habit => habit.id !== but && habit.name.toLowerCase() === name.toLowerCase())
  if (same) throw refuse('habit-name-taken', { name })
}
/** Keeps the decisions of a run as a habit. For a department only what is not about the items of one course. @throws Refusal */
export async function keepHabit(
  db: Knex,
  person: Person,
  runId: string,
  wish: NewHabit,
): Promise<{ id: string }> {
  const owner = wish.department ? { orgId: wish.department } : { personId: person.id }
  return inTransaction(db, async trx => {
    const run = await findRun(trx, runId)
    if (!run) throw notFound('This run')
    if (!(await mayChangeHabits(trx, person, owner))) throw refuse('not-your-department')
    await queries.turnOfHabits(trx, owner)
    await checkName(trx, owner, wish.name)
    const kept = asHabit(run.document)
    const id = await queries.insertHabit(trx, {
      owner,
      name: wish.name,
      document: wish.department ? forOtherSource(kept) : kept,
      runId: run.id,
      personId: person.id,
    })
    if (wish.usual) await queries.setUsual(trx, owner, id)
    await writeLog(trx, {
      action: 'habit.kept',
      personId: person.id,
      courseId: run.targetId,
      detail: { name: wish.name, department: await departmentName(trx, owner) },
    })
    return { id }
  })
}
async function departmentName(db: Knex, owner: queries.HabitOwner): Promise<string | undefined> {
  if ('personId' in owner) return undefined
  const [org] = await orgsById(db, [owner.orgId])
  return org?.name
}
async function lockedHabit(trx: Knex, person: Person, id: string): Promise<queries.Habit> {
  const found = await queries.findHabit(trx, id)
  if (!found) throw notFound('This habit')
  await queries.turnOfHabits(trx, found.owner)
  const habit = await queries.findHabit(trx, id)
  if (!habit || !(await mayChangeHabits(trx, person, habit.owner))) throw notFound('This habit')
  return habit
}
/** Renames a habit, or makes it the usual one, or usual no more. */
export async function changeHabit(db: Knex, person: Person, id: string, change: HabitChange): Promise<void> {
  await inTransaction(db, async trx => {
    const habit = await lockedHabit(trx, person, id)
    if (change.name !== undefined) {
      await checkName(trx, habit.owner, change.name, id)
      await queries.renameHabit(trx, id, change.name)
    }
    if (change.usual !== undefined) await queries.setUsual(trx, habit.owner, change.usual ? id : null)
    await writeLog(trx, {
      action: 'habit.changed',
      personId: person.id,
      detail: { name: change.name ?? habit.name, department: await departmentName(trx, habit.owner) },
    })
  })
}
export async function forgetHabit(db: Knex, person: Person, id: string): Promise<void> {
  await inTransaction(db, async trx => {
    const habit = await lockedHabit(trx, person, id)
    await queries.deleteHabit(trx, id)
    await writeLog(trx, {
      action: 'habit.deleted',
      personId: person.id,
      detail: { name: habit.name, department: await departmentName(trx, habit.owner) },
    })
  })
}

/** Of a habit what holds for a source: decisions about single things only where it was kept from the same course. */
async function fittingTo(db: Knex, source: string): Promise<(habit: queries.Habit) => Promise<Fitted>> {
  const knowledge = await codeKnowledge(db)
  return async habit => {
    const courses = await factsOfCourses(db, [source, habit.targetId, habit.sourceId])
    const own = courses.get(source)
    const isSame = [habit.targetId, habit.sourceId].some(id => {
      const course = courses.get(id)
      return id === source || (own && course && areOneCourse(course.code, own.code, knowledge))
    })
    return { document: isSame ? habit.document : forOtherSource(habit.document), isSame }
  }
}
interface Fitted {
  readonly document: PlanDocument
  readonly isSame: boolean
}
/** Organisations whose habits reach a shell, the nearest first. */
async function orgsReaching(db: Knex, shellId: string): Promise<string[]> {
  const org = await orgOfCourse(db, shellId)
  return org ? withAbove(db, [org]) : []
}
const habitsReaching = async (db: Knex, person: Person, shellId: string): Promise<queries.Habit[]> =>
  queries.habitsOf(db, person.id, await orgsReaching(db, shellId))
/** The habits that could be laid over a plan, each as far as it holds for the plan's source. */
export async function habitsForPlan(db: Knex, person: Person, planId: string): Promise<PlanHabitsReply> {
  const plan = await findPlan(db, planId)
  if (!plan) throw notFound('This plan')
  const habits = await habitsReaching(db, person, plan.targetId)
  const fit = await fittingTo(db, plan.sourceId)
  const fitted = new Map<string, Fitted>()
  for (const habit of habits) fitted.set(habit.id, await fit(habit))
  const documentOf = ({ id, document }: queries.Habit): PlanDocument => fitted.get(id)?.document ?? document
  const lines = await linesOf(db, person, habits, documentOf)
  return {
    habits: lines.map((line, at) => {
      const { document, isSame } = fitted.get(line.id) ?? { document: plan.document, isSame: true }
      const all = habits[at] ? habitTold(habits[at].document).decides.length : 0
      return { ...line, document, leavesOut: isSame ? 0 : all - line.decides.length }
    }),
  }
}
/** A habit that a person may use for any plan: their own, or that of a department which reaches them. @throws Refusal */
export async function habitToUse(db: Knex, person: Person, id: string): Promise<queries.Habit> {
  const orgs = await withAbove(db, await departmentsOf(db, person))
  const habit = (await queries.habitsOf(db, person.id, orgs)).find(each => each.id === id)
  if (!habit) throw notFound('This habit')
  return habit
}
/** A plan's decisions with a habit laid over them. */
export async function withHabitOf(
  db: Knex,
  habit: queries.Habit,
  document: PlanDocument,
  source: string,
): Promise<PlanDocument> {
  return withHabit(document, (await (await fittingTo(db, source))(habit)).document)
}
/** The habits that plans for a shell begin with: the person's own, and that of the nearest department which has one. */
export async function usualHabits(
  db: Knex,
  person: Person,
  shellId: string,
): Promise<{ own: queries.Habit | null; department: queries.Habit | null }> {
  const orgs = await orgsReaching(db, shellId)
  const usual = (await queries.habitsOf(db, person.id, orgs)).filter(habit => habit.isUsual)
  const ofOrg = (org: string): queries.Habit | undefined =>
    usual.find(({ owner }) => 'orgId' in owner && owner.orgId === org)
  return {
    own: usual.find(({ owner }) => 'personId' in owner) ?? null,
    department: orgs.map(ofOrg).find(habit => habit !== undefined) ?? null,
  }
}
