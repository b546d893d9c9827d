import type { Knex } from 'knex'
import { askedOf } from '../../core/carry/base'
import { codeText } from '../../core/course/code-text'
import { areOneCourse } from '../../core/pairing/codes'
import { compileTerm } from '../../core/calendar/term'
import { planBase, planSide, type PlanBase } from '../../core/plan/base'
import { compileInputOf } from '../../core/plan/ledger'
import { planDifferences } from '../../core/plan/differences'
import { arriving } from '../../core/plan/effect-text'
import type { PlanDocument } from '../../core/plan/document'
import { mapCounts } from '../../core/student-data/student-data'
import type { CourseLine, CourseWhole } from '../../shared/api/courses'
import type { PlanReply, PlanSaved, PlansReply, PlanState } from '../../shared/api/plans'
import type { WritingNow } from '../../shared/api/writing'
import { loadCalendar } from '../calendars/terms.queries'
import { zoneRules } from '../calendars/zones'
import { isoInstant, now } from '../clock'
import { accessToCourse, accessToCourses, readableCourses } from '../courses/access'
import { codeKnowledge } from '../courses/codes'
import { isFileAmong } from '../courses/courses.queries'
import { carriedBefore } from '../courses/known'
import { courseLines, lineIn, loadWhole } from '../courses/lines'
import { inSnapshot, inTransaction } from '../db/transaction'
import { notFound, refuse } from '../errors/refusal'
import { writeLog } from '../log/log.queries'
import { addedByHand } from '../courses/student-data.queries'
import type { Person } from '../people/people.queries'
import { loadLinks } from '../courses/links.queries'
import { contentsOf } from '../courses/sections.queries'
import { outcomeOfRun } from '../run-facts/outcomes'
import { runsUnderWay } from '../run-facts/run-jobs.queries'
import { runsInto, undonePlans, undoneRunOf } from '../run-facts/runs.queries'
import { writingInto, writingTold } from '../run-facts/writing.queries'
import { changedCourse, mayRunPlan } from './access'
import { checkDocument } from './faults'
import { checkFound, foundAccess } from './found'
import { checkOffered, checkOnce, checkSources, sameSources } from './pair'
import * as queries from './plans.queries'
import { joinable } from '../sections/joinable'
import { siblingsOf } from '../sections/siblings'
import { sourceAccess, whyClosed } from './sources'

const writerOf = async (db: Knex, plan: queries.Plan): Promise<WritingNow> => {
  const course = queries.writtenCourse(plan)
  return writingTold((await writingInto(db, [course])).get(course))
}

/** What the page must know of the target's zone: what it does in the years that the plan's dates may reach. */
function zoneFor(
  { document, mode }: queries.Plan,
  sources: readonly CourseWhole[],
  found: PlanReply['found'],
  target: CourseWhole,
  before: PlanBase['before'],
) {
  const base = planBase({
    document,
    mode,
    sources: sources.map(planSide),
    found: found.map(each => ({ id: each.course.id, ...planSide(each) })),
    target: planSide(target),
    before,
    searched: null,
    byHand: [],
  })
  return compileInputOf(base, zoneRules).zone
}

const staffRoles: readonly CourseLine['role'][] = ['instructor', 'assistant', 'office']
/** Sections that could share the content of a plan's shell, as the page needs them. */
async function sectionsToJoin(
  db: Knex,
  plan: queries.Plan,
  siblings: readonly CourseLine[],
): Promise<PlanReply['sections']> {
  const own = siblings.filter(one => staffRoles.includes(one.role))
  const chosen = new Set(await queries.planSections(db, plan.id))
  const found = await joinable(
    db,
    plan.targetId,
    own.map(one => one.id),
    { sources: plan.sourceIds },
  )
  return own.flatMap(course => {
    const one = found.get(course.id)
    return one ? [{ course, chosen: chosen.has(course.id), ...one }] : []
  })
}

/** Of a course that a plan may not roll from any more: which one it is, and nothing of what it holds. */
const namedOnly = (whole: CourseWhole): CourseWhole => ({
  ...whole,
  course: { ...whole.course, students: 0, items: 0 },
  nodes: [],
  categories: [],
  studentData: mapCounts(() => 0),
})
/** A plan with all its courses, as one page needs it. */
export const readPlan = (db: Knex, person: Person, id: string): Promise<PlanReply> =>
  inSnapshot(db, trx => planWithCourses(trx, person, id))
async function planWithCourses(db: Knex, person: Person, id: string): Promise<PlanReply> {
  const plan = await queries.findPlan(db, id)
  if (!plan) throw notFound('This plan')
  const { access, closed } = await sourceAccess(db, plan)
  const whole = async (source: string): Promise<CourseWhole> => {
    const loaded = await loadWhole(db, person, source, { access: access.get(source), withDeleted: true })
    return closed.includes(source) ? namedOnly(loaded) : loaded
  }
  const source = await whole(plan.sourceId)
  const more = await Promise.all(plan.sourceIds.slice(1).map(whole))
  const found = await loadFound(db, person, plan, closed)
  const target = await loadWhole(db, person, plan.targetId)
  const known = await carriedBefore(db, plan.targetId, await isFileAmong(db, plan.sourceIds))
  const before = askedOf(known, plan.sourceIds)
  const open = plan.sourceIds.filter(id => !closed.includes(id))
  const sourceContents = [...(await contentsOf(db, open)).values()]
  const own = await accessToCourse(db, person, changedCourse(plan))
  const run = (await runsInto(db, [plan.targetId])).find(entry => entry.planId === id)
  const set = plan.setId ? (await queries.plansOfSet(db, plan.setId)).filter(other => other.id !== id) : []
  const { siblings, fits } = await neighbours(db, person, target.course)
  const lines = await courseLines(db, person, [...set.map(other => other.targetId), ...siblings, ...fits])
  const sisters = siblings.map(lineIn(lines))
  const isRoll = plan.mode === 'roll'
  const hasShell = target.course.origin !== 'awaited'
  const isDraft = plan.state === 'draft'
  return {
    id,
    revision: plan.revision,
    state: plan.state,
    mode: plan.mode,
    document: plan.document,
    savedAt: isoInstant(plan.updatedAt),
    savedBy: plan.updatedBy,
    source,
    more,
    found,
    target,
    closed: await whyClosed(db, closed),
    before,
    byHand: await addedByHand(db, queries.writtenCourse(plan)),
    links: await loadLinks(db, sourceContents),
    begunWith: plan.begunWith,
    zone: zoneFor(plan, [source, ...more], found, target, before),
    may: {
      edit: own.plan && isDraft,
      run: isDraft && (hasShell || !isRoll) && (await mayRunPlan(db, person, plan)),
    },
    run: run ? { id: run.id, at: isoInstant(run.finishedAt), by: run.by } : null,
    sameCourse: areOneCourse(source.course.code, target.course.code, await codeKnowledge(db)),
    set: set.map(other => ({
      id: other.id,
      course: lineIn(lines)(other.targetId),
      state: other.state,
      differences: planDifferences(plan.document, other.document),
    })),
    siblings: sisters,
    sections: isRoll && hasShell ? await sectionsToJoin(db, plan, sisters) : [],
    fits: isRoll ? fits.map(lineIn(lines)) : [],
    writing: await writerOf(db, plan),
    outcome: isDraft ? await outcomeOfRun(db, id) : null,
    undone: isDraft ? await undoneRun(db, id) : null,
  }
}
/** The courses of which a plan takes single items, with those alone. What is closed is added to `closed`. */
async function loadFound(
  db: Knex,
  person: Person,
  plan: queries.Plan,
  closed: string[],
): Promise<CourseWhole[]> {
  const found: CourseWhole[] = []
  for (const [id, access] of await foundAccess(db, plan)) {
    const whole = await loadWhole(db, person, id, { access })
    const taken = new Set(
      Object.values(plan.document.added.found).flatMap(each => (each.course === id ? each.lineage : [])),
    )
    const nodes = access.rollFrom ? whole.nodes.filter(node => taken.has(node.lineage)) : []
    if (!access.rollFrom) closed.push(id)
    const rubrics = whole.rubrics.filter(({ lineage }) => nodes.some(node => node.rubric === lineage))
    found.push({ ...namedOnly(whole), nodes, rubrics, grading: null, grace: null, groups: [], furniture: [] })
  }
  return found
}
/** The latest run of a plan that was undone. */
async function undoneRun(db: Knex, planId: string): Promise<PlanReply['undone']> {
  const run = await undoneRunOf(db, planId)
  return run && { id: run.id, at: isoInstant(run.undone_at ?? '') }
}
/** Other sections in a course's term with its code or title; and, where it only holds a place, shells that could take it. */
async function neighbours(
  db: Knex,
  person: Person,
  course: CourseLine,
): Promise<{ siblings: string[]; fits: string[] }> {
  const siblings = await siblingsOf(db, person, course.id)
  if (course.origin !== 'awaited') return { siblings, fits: [] }
  const access = await accessToCourses(db, person, siblings)
  return { siblings, fits: siblings.filter(one => access.get(one)?.plan) }
}

/** How a plan stands, for a page that has it open. */
export const planState = (db: Knex, id: string): Promise<PlanState> =>
  inSnapshot(db, async trx => {
    const plan = await queries.findPlan(trx, id)
    if (!plan) throw notFound('This plan')
    return {
      revision: plan.revision,
      state: plan.state,
      savedAt: isoInstant(plan.updatedAt),
      savedBy: plan.updatedBy,
      writing: await writerOf(trx, plan),
      outcome: plan.state === 'draft' ? await outcomeOfRun(trx, id) : null,
    }
  })

/** Saves a plan read at a revision. Another's change in between is told, never overwritten. */
export async function savePlan(
  db: Knex,
  person: Person,
  id: string,
  revision: number,
  change: { document: PlanDocument; sources?: string[] },
): Promise<PlanSaved> {
  const plan = await queries.findPlan(db, id)
  if (!plan) throw notFound('This plan')
  if (plan.state === 'run') throw refuse('plan-already-run')
  // A run that goes on holds the plan: nobody waits for that only to be told that it has changed.
  const [under] = await runsUnderWay(db, [queries.writtenCourse(plan)])
  if (under?.planId === id) throw refuse('plan-being-run', { by: under.by })
  checkDocument(change.document, compileTerm(await loadCalendar(db, plan.targetId)))
  const { made, found } = change.document.added
  if (plan.mode === 'in-place' && Object.keys({ ...made, ...found }).length > 0) throw refuse('in-place-adds')
  await checkFound(db, person, plan.document.added, change.document.added)
  const sources = change.sources && !sameSources(change.sources, plan.sourceIds) ? change.sources : undefined
  // What only changes its place stays there by the right of whoever chose it; whoever adds a source must be allowed to roll from all of them.
  const adds = sources?.some(source => !plan.sourceIds.includes(source)) ?? false
  if (sources) {
    if (plan.mode === 'in-place') throw refuse('in-place-source')
    if (sources.includes(plan.targetId)) throw refuse('into-itself')
    await checkOffered(
      db,
      sources.filter(source => !plan.sourceIds.includes(source)),
    )
    if (adds) await checkSources(db, person, sources)
    else checkOnce(sources)
  }
  const saved = await inTransaction(db, async trx => {
    const isSaved = await queries.updatePlan(trx, id, revision, {
      document: change.document,
      sourceIds: sources,
      ...(adds && { sourceBy: person.id }),
      personId: person.id,
    })
    if (isSaved && sources) await logSources(trx, person, plan, sources)
    return isSaved
  })
  if (saved) return { revision: revision + 1, savedAt: now().toISOString() }
  const theirs = await queries.findPlan(db, id)
  throw refuse('plan-changed', theirs && { by: theirs.updatedBy })
}

async function logSources(
  trx: Knex,
  person: Person,
  plan: queries.Plan,
  sources: readonly string[],
): Promise<void> {
  const names = async (ids: readonly string[]): Promise<string[]> =>
    [...(await courseLines(trx, person, ids)).values()].map(
      course => `${codeText(course)}, ${course.term.name}`,
    )
  await writeLog(trx, {
    action: 'plan.sources',
    personId: person.id,
    planId: plan.id,
    courseId: plan.targetId,
    detail: {
      added: await names(sources.filter(id => !plan.sourceIds.includes(id))),
      removed: await names(plan.sourceIds.filter(id => !sources.includes(id))),
    },
  })
}
export async function discardPlan(db: Knex, person: Person, id: string): Promise<void> {
  await inTransaction(db, async trx => {
    const plan = await queries.lockPlan(trx, id)
    if (!plan || !(await queries.deleteDraft(trx, id))) throw refuse('nothing-to-discard')
    await queries.dropHeld(trx, plan.targetId)
    // What is said of a file that is gone is said of the course that it was compared with.
    const isOfFile = await isFileAmong(trx, [plan.sourceId])
    if (isOfFile) await queries.dropHeld(trx, plan.sourceId)
    await writeLog(trx, {
      action: 'plan.discarded',
      personId: person.id,
      planId: id,
      courseId: isOfFile ? plan.targetId : plan.sourceId,
    })
  })
}

/** Plans into shells that a person has to do with, the latest first. */
export async function listPlans(db: Knex, person: Person): Promise<PlansReply> {
  const readable = await readableCourses(db, person)
  const plans = await queries.plansInto(db, readable)
  const lines = await courseLines(
    db,
    person,
    plans.flatMap(plan => [...plan.sourceIds, plan.targetId]),
  )
  const runs = new Map((await runsInto(db, readable)).map(run => [run.planId, run]))
  const drafts = plans.filter(plan => plan.state === 'draft').map(plan => plan.id)
  const undone = await undonePlans(db, drafts)
  const writing = await writingInto(
    db,
    plans.map(plan => plan.targetId),
  )
  return {
    plans: plans.map(plan => {
      const run = runs.get(plan.id)
      return {
        id: plan.id,
        state: plan.state,
        mode: plan.mode,
        sources: plan.sourceIds.map(lineIn(lines)),
        target: lineIn(lines)(plan.targetId),
        updatedAt: isoInstant(plan.updatedAt),
        updatedBy: plan.updatedBy,
        run: run ? { id: run.id, at: isoInstant(run.finishedAt), items: arriving(run.effect) } : null,
        undone: undone.has(plan.id),
        writing: writingTold(writing.get(plan.targetId)),
      }
    }),
  }
}
