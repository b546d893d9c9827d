import type { Knex } from 'knex'
import { wholeCourse } from '../../core/dates/levels'
import { ruleBy } from '../../core/dates/rule'
import { betterWay } from '../../core/plan/better'
import { withMethod } from '../../core/plan/compare'
import { present } from '../../core/present'
import { defaultWindows } from '../../core/pairing/windows'
import {
  asAgain,
  asHabit,
  forFurtherShell,
  recommendedPlan,
  type PlanDocument,
} from '../../core/plan/document'
import type { NewAwaitedPlan, NewPlan } from '../../shared/api/plans'
import { findTerm, loadCalendar } from '../calendars/terms.queries'
import { accessToCourse, orgOfWhatIsMade } from '../courses/access'
import { awaitedInTerm, insertCourse, loadFacts, replaceMeetings } from '../courses/courses.queries'
import { contentOf, sectionsOf } from '../courses/sections.queries'
import { inTransaction, takeTurn } from '../db/transaction'
import { newId } from '../db/rows'
import type { BegunWith } from '../db/tables'
import { notFound, refuse } from '../errors/refusal'
import { usualHabits, withHabitOf } from '../habits/habits'
import type { Habit } from '../habits/habits.queries'
import { writeLog } from '../log/log.queries'
import type { Person } from '../people/people.queries'
import { runsInto } from '../run-facts/runs.queries'
import { compileInput } from './compile'
import { withOwnFound } from './found'
import { checkOffered, checkPair, checkShell, checkSources, sameSources } from './pair'
import * as queries from './plans.queries'

type Sources = NewPlan['sources']
/** What a plan is to begin with; or a habit; or nothing but what a file says otherwise than the course that it is of. */
type Decisions = NewPlan['decisions'] | Habit | 'as-the-file'

/** The decisions a plan begins with: windows from the shell's term where it has none, rules as before where they are asked for. */
async function firstDecisions(
  db: Knex,
  person: Person,
  [first]: Sources,
  target: string,
  decisions: Decisions,
): Promise<{ document: PlanDocument; begunWith?: BegunWith }> {
  const earlier = (await runsInto(db, [target])).find(
    run => run.sourceId === first && run.snapshotId === null,
  )
  if (earlier)
    return {
      document: await withOwnFound(db, person, asAgain(earlier.document)),
      begunWith: { how: 'as-before', habit: null },
    }
  if (decisions === 'as-the-file') return { document: asTheFile() }
  const { document, begunWith } = await rememberedDecisions(db, person, first, target, decisions)
  const shell = await loadFacts(db, target)
  const free = Object.values(shell.windows).every(value => value === null)
  const windows = free ? defaultWindows(await loadCalendar(db, target)) : null
  return { document: { ...document, windows }, begunWith }
}
/** What a file says is taken as it says it: its dates are of this very term. */
function asTheFile(): PlanDocument {
  const recommended = recommendedPlan()
  return { ...recommended, dates: { ...recommended.dates, rule: ruleBy('unchanged') } }
}
/**
 * A plan that began with what is recommended moves its dates by the better way, where one leaves far fewer to settle: that is told, with the
 * usual way beside it. What a person or a department decided once is left as it is; the better way is offered there.
 */
async function beginBetter(trx: Knex, person: Person, id: string): Promise<void> {
  const plan = present(await queries.findPlan(trx, id))
  if (plan.begunWith?.how !== 'recommended') return
  const input = await compileInput(trx, plan)
  const better = betterWay(input)
  const moved = better && withMethod(input, wholeCourse, better.method)
  if (!better || !moved) return
  await queries.repairPlan(trx, id, {
    document: moved.document,
    begunWith: { ...plan.begunWith, better },
    personId: person.id,
  })
}
/**
 * What is remembered for a plan: a habit that was asked for; else one's own usual habit; else what was decided when the source was filled;
 * else the department's usual habit; else what is recommended.
 */
async function rememberedDecisions(
  db: Knex,
  person: Person,
  source: string,
  target: string,
  decisions: Exclude<Decisions, 'as-the-file'>,
): Promise<{ document: PlanDocument; begunWith: BegunWith }> {
  const recommended = recommendedPlan()
  const by = async (habit: Habit) => ({
    document: await withHabitOf(db, habit, recommended, source),
    begunWith: { how: 'habit', habit: habit.name } as const,
  })
  if (typeof decisions === 'object') return by(decisions)
  if (decisions === 'as-before') {
    const usual = await usualHabits(db, person, target)
    if (usual.own) return by(usual.own)
    const [before] = await runsInto(db, [source])
    if (before) return { document: asHabit(before.document), begunWith: { how: 'as-before', habit: null } }
    if (usual.department) return by(usual.department)
  }
  return { document: recommended, begunWith: { how: 'recommended', habit: null } }
}

/** Begins a plan. A draft for the same pair is opened again instead. */
export async function startPlan(
  db: Knex,
  person: Person,
  wish: Pick<NewPlan, 'sources' | 'target'> & { decisions?: Decisions },
): Promise<string> {
  const { sources, target } = wish
  await checkPair(db, person, sources, target)
  await checkOffered(db, sources)
  return inTransaction(db, async trx => {
    await takeTurn(trx, `drafts ${target}`)
    const plans = await queries.plansInto(trx, [target])
    const there = plans.find(plan => plan.state === 'draft' && sameSources(plan.sourceIds, sources))
    if (there) return there.id
    const id = await queries.insertPlan(trx, {
      sourceIds: sources,
      targetId: target,
      personId: person.id,
      ...(await firstDecisions(trx, person, sources, target, wish.decisions ?? 'recommended')),
    })
    await beginBetter(trx, person, id)
    await writeLog(trx, {
      action: 'plan.started',
      personId: person.id,
      courseId: target,
      planId: id,
      detail: { sources: sources.length },
    })
    return id
  })
}

async function checkInPlace(db: Knex, person: Person, [source, ...more]: Sources): Promise<void> {
  if (more.length > 0) throw refuse('in-place-one-course')
  const joined = (await contentOf(db, source)) !== source || (await sectionsOf(db, source)).length > 0
  if (joined) throw refuse('in-place-shared-content')
  if (!(await accessToCourse(db, person, source)).run) throw refuse('in-place-instructors-only')
}
/**
 * Begins a plan for a term, before there is a shell; or to use a course again in place. Until the shell comes its place is held by a course
 * of its own, which has the first source's name and meetings and is no shell: nothing can be run into it.
 */
export async function startAwaited(db: Knex, person: Person, wish: NewAwaitedPlan): Promise<string> {
  const { sources, mode } = wish
  const [source] = sources
  await checkSources(db, person, sources)
  await checkOffered(db, sources)
  if (mode === 'in-place') await checkInPlace(db, person, sources)
  return inTransaction(db, async trx => {
    await takeTurn(trx, `awaits ${person.id}`)
    const term = await findTerm(trx, wish.term)
    if (!term) throw refuse('unknown-term', { term: wish.term })
    const from = await loadFacts(trx, source)
    if (mode === 'in-place' && from.term.classesFrom >= term.classesFrom)
      throw refuse('in-place-later-term', { code: from.code, term: from.term.name })
    const waiting = await queries.plansInto(trx, await awaitedInTerm(trx, term.id))
    const there = waiting.find(
      plan =>
        plan.state === 'draft' &&
        plan.mode === mode &&
        plan.sourceBy === person.id &&
        sameSources(plan.sourceIds, sources),
    )
    if (there) return there.id
    const target = await insertPlace(trx, person, source, term.id)
    const id = await queries.insertPlan(trx, {
      sourceIds: sources,
      targetId: target,
      personId: person.id,
      ...(await firstDecisions(trx, person, sources, target, 'as-before')),
      mode,
    })
    await beginBetter(trx, person, id)
    await writeLog(trx, {
      action: mode === 'in-place' ? 'plan.started-in-place' : 'plan.started-for-term',
      personId: person.id,
      planId: id,
      courseId: source,
      detail: { term: term.name },
    })
    return id
  })
}
/** The place that a plan holds until its shell comes: named like its first source, meeting when that met. */
export async function insertPlace(
  trx: Knex,
  person: Person,
  source: string,
  termId: string,
): Promise<string> {
  const from = await loadFacts(trx, source)
  const place = await insertCourse(trx, {
    sourceId: `awaited:${newId()}`,
    termId,
    orgId: await orgOfWhatIsMade(trx, person, source),
    code: from.code,
    section: from.section,
    title: from.title,
    language: null,
    personId: person.id,
    origin: 'awaited',
  })
  await replaceMeetings(trx, place, from.meetings)
  return place
}

/** Gives a plan that waited its shell. */
export async function attachShell(db: Knex, person: Person, id: string, shell: string): Promise<void> {
  await inTransaction(db, async trx => {
    const plan = await queries.lockPlan(trx, id)
    if (!plan) throw notFound('This plan')
    const place = await loadFacts(trx, plan.targetId)
    if (place.origin !== 'awaited' || plan.mode === 'in-place' || plan.state === 'run')
      throw refuse('waits-for-no-shell')
    await checkPair(trx, person, plan.sourceIds, shell)
    const course = await loadFacts(trx, shell)
    if (course.term.code !== place.term.code)
      throw refuse('shell-in-other-term', { planned: place.term.name, shell: course.term.name })
    await queries.repairPlan(trx, id, { targetId: shell, personId: person.id })
    await queries.dropHeld(trx, plan.targetId)
    await writeLog(trx, { action: 'plan.attached', personId: person.id, planId: id, courseId: shell })
  })
}

/** How many plans of further shells were made or given the decisions, and how many were there already. */
export interface FurtherPlans {
  made: number
  there: number
}
/** Makes plans with the same sources and decisions for further shells: each has the dates of its own meetings, and is run by itself. */
export async function planFurtherShells(
  db: Knex,
  person: Person,
  id: string,
  shells: readonly string[],
): Promise<FurtherPlans> {
  return inTransaction(db, async trx => {
    const plan = await queries.lockPlan(trx, id)
    if (!plan) throw notFound('This plan')
    if (plan.mode === 'in-place') throw refuse('in-place-no-shells')
    const setId = plan.setId ?? newId()
    const counts = { made: 0, there: 0 }
    for (const shell of [...new Set(shells)].sort()) {
      await checkPair(trx, person, plan.sourceIds, shell)
      await takeTurn(trx, `drafts ${shell}`)
      const plans = await queries.plansInto(trx, [shell])
      if (plans.some(other => other.state === 'draft' && sameSources(other.sourceIds, plan.sourceIds))) {
        counts.there++
        continue
      }
      await planFurtherShell(trx, person, plan, shell, setId)
      counts.made++
    }
    if (counts.made > 0 && plan.setId === null)
      await queries.repairPlan(trx, id, { setId, personId: person.id })
    return counts
  })
}
async function planFurtherShell(
  trx: Knex,
  person: Person,
  plan: queries.Plan,
  shell: string,
  setId: string,
): Promise<void> {
  const sourceIds: Sources = [plan.sourceId, ...plan.sourceIds.slice(1)]
  const { document: own } = await firstDecisions(trx, person, sourceIds, shell, 'recommended')
  const planId = await queries.insertPlan(trx, {
    sourceIds,
    targetId: shell,
    personId: person.id,
    setId,
    document: await withOwnFound(trx, person, forFurtherShell(plan.document, own)),
  })
  await writeLog(trx, {
    action: 'plan.started',
    personId: person.id,
    courseId: shell,
    planId,
    detail: { sources: sourceIds.length },
  })
}

/** Gives the decisions of one plan to the other drafts of its set; the parts that are about one shell stay as they are there. */
export async function shareDecisions(db: Knex, person: Person, id: string): Promise<FurtherPlans> {
  return inTransaction(db, async trx => {
    const plan = await queries.lockPlan(trx, id)
    if (!plan?.setId) throw refuse('for-one-shell')
    const set = await queries.plansOfSet(trx, plan.setId)
    const others = set.filter(other => other.id !== id && other.state === 'draft')
    for (const other of others) {
      await checkShell(trx, person, other.targetId)
      const document = await withOwnFound(trx, person, forFurtherShell(plan.document, other.document))
      await queries.repairPlan(trx, other.id, { document, personId: person.id })
    }
    await writeLog(trx, {
      action: 'plan.decisions-given',
      personId: person.id,
      planId: id,
      courseId: plan.targetId,
      detail: { plans: others.length },
    })
    return { made: others.length, there: 0 }
  })
}
