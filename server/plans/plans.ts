import { createHash } from 'node:crypto'
import type { Knex } from 'knex'
import { compileTerm } from '../../core/calendar/term'
import { codeKey } from '../../core/pairing/codes'
import { joinFaults } from '../../core/pairing/sections'
import { defaultWindows } from '../../core/pairing/windows'
import { compilePlan, planLedger, type CompiledPlan, type CompileInput } from '../../core/plan/compile'
import { asBefore, recommendedPlan, type PlanDocument } from '../../core/plan/document'
import type {
  EffectReply,
  NewAwaitedPlan,
  NewPlan,
  PlanReply,
  PlanSaved,
  PlansReply,
  PlanState,
} from '../../shared/api/plans'
import { accessToCourse, accessToCourses, coursesOf, readableCourses } from '../courses/access.queries'
import { loadCalendar, loadCategories, loadCourses, loadOutline } from '../courses/courses.queries'
import { replaceMeetings } from '../exchange/import.queries'
import { writeLog } from '../log/log.queries'
import { findPerson, type Person } from '../people/people.queries'
import * as queries from './plans.queries'
import { runsInto } from '../runs/runs.queries'
import {
  contentOf,
  planSections,
  rosterOverlap,
  sectionsOf,
  setPlanSections,
} from '../courses/sections.queries'
import { dropAwaited } from '../runs/snapshots.queries'
import { writingInto } from '../shells/shells.queries'
import { orgOfCourse } from '../sharing/shares.queries'
import { insertCourse, listTerms } from '../exchange/uploads.queries'
import { inTransaction } from '../db/connection'
import { newId } from '../db/rows'
import { notFound, Problem } from '../http/problem'
import { codeKnowledge } from '../courses/codes'
import { courseLines, loadWhole } from '../courses/lines'
import { instantText, now } from '../clock'
import { zoneRules } from '../calendars/zones'

/** Zone data for planning into a term: the years its dates may reach. */
export function zoneFor(calendar: {
  timeZone: string
  classes: { from: string; to: string }
}): ReturnType<typeof zoneRules> {
  return zoneRules(
    calendar.timeZone,
    Number(calendar.classes.from.slice(0, 4)) - 3,
    Number(calendar.classes.to.slice(0, 4)) + 4,
  )
}

async function checkSources(db: Knex, person: Person, sources: readonly string[]): Promise<void> {
  const access = await accessToCourses(db, person, sources)
  if (sources.some(source => !access.get(source)?.take)) throw notFound('The course to roll from')
  if (new Set(sources).size < sources.length)
    throw new Problem(400, 'A course stands twice among the sources', undefined, [
      { field: 'sources', message: 'Each course comes once; take the second away.' },
    ])
}
async function checkPair(
  db: Knex,
  person: Person,
  sources: readonly string[],
  target: string,
): Promise<void> {
  if (sources.includes(target))
    throw new Problem(
      400,
      'A course cannot be rolled into itself here',
      'To use the same course again, roll it in place.',
      [{ field: 'sources', message: 'Choose another course to roll from.' }],
    )
  await checkSources(db, person, sources)
  await checkShell(db, person, target)
}
async function checkShell(db: Knex, person: Person, target: string): Promise<void> {
  const into = await accessToCourse(db, person, target)
  if (!into.read || into.role === 'shared') throw notFound('The shell to roll into')
  if ((await loadCourses(db, [target])).get(target)!.origin === 'snapshot')
    throw new Problem(
      409,
      'A snapshot is kept as it was',
      'Nothing is written into it. Roll from it into a shell instead.',
    )
  if ((await contentOf(db, target)) !== target)
    throw new Problem(
      409,
      'This section shows the content of another',
      'Plan for the shell whose content it is; the dates of this section are written with it.',
    )
  if (!into.plan)
    throw new Problem(
      403,
      'You may see this shell, not plan for it',
      'Its instructors, its assistants and the academic office may.',
    )
}

/** The decisions a plan begins with: windows from the shell's term where it has none, rules as before where they are asked for. */
async function firstDecisions(
  db: Knex,
  sources: readonly string[],
  target: string,
  decisions: NewPlan['decisions'],
): Promise<PlanDocument> {
  const before = decisions === 'as-before' ? (await runsInto(db, [sources[0]!]))[0] : undefined
  const document = before ? asBefore(before.document) : recommendedPlan()
  const shell = (await loadCourses(db, [target])).get(target)!
  const free = Object.values(shell.windows).every(value => value === null)
  return { ...document, windows: free ? defaultWindows(await loadCalendar(db, target)) : null }
}

/** Begins a plan. A draft for the same pair is taken up again instead. */
export async function startPlan(
  db: Knex,
  person: Person,
  wish: Pick<NewPlan, 'sources' | 'target'> & { decisions?: NewPlan['decisions'] },
): Promise<string> {
  await checkPair(db, person, wish.sources, wish.target)
  return inTransaction(db, async trx => {
    const there = (await queries.plansInto(trx, [wish.target])).find(
      plan => plan.state === 'draft' && plan.sourceIds.join() === wish.sources.join(),
    )
    if (there) return there.id
    const document = await firstDecisions(trx, wish.sources, wish.target, wish.decisions ?? 'recommended')
    const id = await queries.insertPlan(trx, {
      sourceIds: wish.sources,
      targetId: wish.target,
      personId: person.id,
      document,
    })
    await writeLog(trx, {
      action: 'plan.started',
      personId: person.id,
      courseId: wish.target,
      planId: id,
      detail: { sources: wish.sources.length },
    })
    return id
  })
}

/**
 * Begins a plan against a term, before there is a shell; or to use a course again in place. Until the shell comes its place is held by a course
 * of its own, which has the first source's name and meetings and is no shell: nothing can be run into it.
 */
export async function startAwaited(db: Knex, person: Person, wish: NewAwaitedPlan): Promise<string> {
  await checkSources(db, person, wish.sources)
  const source = wish.sources[0]!
  if (wish.mode === 'in-place') {
    if (wish.sources.length > 1)
      throw new Problem(400, 'Only one course can be rolled in place', undefined, [
        { field: 'sources', message: 'Choose the course that is used again.' },
      ])
    if ((await contentOf(db, source)) !== source || (await sectionsOf(db, source)).length > 0)
      throw new Problem(
        409,
        'This course shares its content with other sections',
        'It cannot be rolled in place by itself. Roll into new shells instead.',
      )
    if (!(await accessToCourse(db, person, source)).run)
      throw new Problem(403, 'Only its instructors may roll a course in place', 'Nothing was changed.')
  }
  return inTransaction(db, async trx => {
    const term = (await listTerms(trx)).find(entry => entry.code === wish.term)
    if (!term)
      throw new Problem(400, 'There is no such term', undefined, [
        { field: 'term', message: `${wish.term} is not a term here.` },
      ])
    const from = (await loadCourses(trx, [source])).get(source)!
    if (wish.mode === 'in-place' && from.term.classesFrom >= term.classesFrom)
      throw new Problem(400, 'This term is not a later one', undefined, [
        { field: 'term', message: `${from.code} is in ${from.term.name} now; choose a term after it.` },
      ])
    const there = (
      await queries.plansInto(
        trx,
        (await trx('courses').where({ origin: 'awaited', term_id: term.id }).select('id')).map(row => row.id),
      )
    ).find(
      plan =>
        plan.state === 'draft' &&
        plan.mode === wish.mode &&
        plan.sourceIds.join() === wish.sources.join() &&
        plan.sourceBy === person.id,
    )
    if (there) return there.id
    const target = await insertCourse(trx, {
      sourceId: `awaited:${newId()}`,
      termId: term.id,
      orgId: (await orgOfCourse(trx, source))!,
      code: from.code,
      section: from.section,
      title: from.title,
      language: null,
      personId: person.id,
      origin: 'awaited',
    })
    await replaceMeetings(
      trx,
      target,
      from.meetings.map(({ room, ...meeting }) => ({ ...meeting, ...(room && { room }) })),
    )
    const id = await queries.insertPlan(trx, {
      sourceIds: wish.sources,
      targetId: target,
      personId: person.id,
      document: await firstDecisions(trx, wish.sources, target, 'as-before'),
      mode: wish.mode,
    })
    await writeLog(trx, {
      action: wish.mode === 'in-place' ? 'plan.started-in-place' : 'plan.started-for-term',
      personId: person.id,
      planId: id,
      courseId: source,
      detail: { term: term.code },
    })
    return id
  })
}
/** Gives a plan that waited its shell. */
export async function attachShell(db: Knex, person: Person, id: string, shell: string): Promise<void> {
  await inTransaction(db, async trx => {
    const plan = await queries.lockPlan(trx, id)
    if (!plan) throw notFound('This plan')
    const held = (await loadCourses(trx, [plan.targetId])).get(plan.targetId)!
    if (held.origin !== 'awaited' || plan.mode === 'in-place' || plan.state === 'run')
      throw new Problem(409, 'This plan waits for no shell', 'Nothing was changed.')
    await checkPair(trx, person, plan.sourceIds, shell)
    const course = (await loadCourses(trx, [shell])).get(shell)!
    if (course.term.code !== held.term.code)
      throw new Problem(400, 'This shell is in another term', undefined, [
        { field: 'shell', message: `The plan is for ${held.term.name}, the shell in ${course.term.name}.` },
      ])
    await queries.repairPlan(trx, id, { targetId: shell, personId: person.id })
    await dropAwaited(trx, plan.targetId)
    await writeLog(trx, { action: 'plan.attached', personId: person.id, planId: id, courseId: shell })
  })
}

/** Makes plans with the same sources and decisions for other shells: each has the dates of its own meetings, and is run by itself. */
export async function alsoInto(
  db: Knex,
  person: Person,
  id: string,
  shells: readonly string[],
): Promise<{ made: number; there: number }> {
  return inTransaction(db, async trx => {
    const plan = await queries.lockPlan(trx, id)
    if (!plan) throw notFound('This plan')
    if (plan.mode === 'in-place')
      throw new Problem(409, 'A course rolled in place has no further shells', 'Nothing was changed.')
    const setId = plan.setId ?? newId()
    let [made, there] = [0, 0]
    for (const shell of new Set(shells)) {
      await checkPair(trx, person, plan.sourceIds, shell)
      if (
        (await queries.plansInto(trx, [shell])).some(
          other => other.state === 'draft' && other.sourceIds.join() === plan.sourceIds.join(),
        )
      ) {
        there++
        continue
      }
      const own = await firstDecisions(trx, plan.sourceIds, shell, 'recommended')
      const made1 = await queries.insertPlan(trx, {
        sourceIds: plan.sourceIds,
        targetId: shell,
        personId: person.id,
        setId,
        document: { ...plan.document, names: own.names, windows: own.windows },
      })
      await writeLog(trx, {
        action: 'plan.started',
        personId: person.id,
        courseId: shell,
        planId: made1,
        detail: { with: id },
      })
      made++
    }
    if (made > 0 && plan.setId === null) await queries.repairPlan(trx, id, { setId, personId: person.id })
    return { made, there }
  })
}
/** Sections that could share a shell's content, with what stands against each. */
export async function joinable(
  db: Knex,
  contentId: string,
  sectionIds: readonly string[],
): Promise<Map<string, { faults: string[]; joined: boolean }>> {
  const courses = await loadCourses(db, [contentId, ...sectionIds])
  const { patterns } = await codeKnowledge(db)
  const facts = (id: string) => {
    const course = courses.get(id)!
    return {
      codeKey: codeKey(course.code, patterns),
      term: course.term.code,
      instructors: course.instructors.map(person => person.id),
      items: course.items,
    }
  }
  const there = new Set(await sectionsOf(db, contentId))
  const result = new Map<string, { faults: string[]; joined: boolean }>()
  for (const id of sectionIds)
    result.set(
      id,
      there.has(id)
        ? { faults: [], joined: true }
        : {
            faults: joinFaults(facts(contentId), facts(id), await rosterOverlap(db, contentId, id)),
            joined: false,
          },
    )
  return result
}
/** Chooses the sections that the run joins to its shell: they show its content, each with the dates of its own meetings. */
export async function chooseSections(
  db: Knex,
  person: Person,
  id: string,
  sections: readonly string[],
): Promise<void> {
  await inTransaction(db, async trx => {
    const plan = await queries.lockPlan(trx, id)
    if (!plan) throw notFound('This plan')
    if (plan.state === 'run' || plan.mode === 'in-place')
      throw new Problem(409, 'This plan joins no sections', 'Nothing was changed.')
    for (const section of sections) await checkShell(trx, person, section)
    for (const [section, { faults }] of await joinable(trx, plan.targetId, sections))
      if (faults.length > 0 || section === plan.targetId)
        throw new Problem(
          409,
          'A section cannot share this content',
          `Of one of them ${faults.join(', ')}. Nothing was changed.`,
        )
    await setPlanSections(trx, id, [...new Set(sections)])
    await queries.repairPlan(trx, id, { personId: person.id })
    await writeLog(trx, {
      action: 'plan.sections',
      personId: person.id,
      planId: id,
      courseId: plan.targetId,
      detail: { sections: sections.length },
    })
  })
}

/** Gives the decisions of one plan to the other drafts of its set: what comes and how dates cross, not the names and windows of a shell. */
export async function shareDecisions(
  db: Knex,
  person: Person,
  id: string,
): Promise<{ made: number; there: number }> {
  return inTransaction(db, async trx => {
    const plan = await queries.lockPlan(trx, id)
    if (!plan?.setId) throw new Problem(409, 'This plan is for one shell', 'Nothing was changed.')
    const others = (await queries.plansOfSet(trx, plan.setId)).filter(
      other => other.id !== id && other.state === 'draft',
    )
    for (const other of others) {
      await checkShell(trx, person, other.targetId)
      await queries.repairPlan(trx, other.id, {
        document: { ...other.document, carry: plan.document.carry, dates: plan.document.dates },
        personId: person.id,
      })
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

/** What of each source a plan may take: by the right of whoever chose them, which may have ended. Null where one may not be taken from any more. */
export async function takenFrom(
  db: Knex,
  plan: queries.PlanRow,
): Promise<Map<string, Awaited<ReturnType<typeof accessToCourse>>> | null> {
  const chooser = await findPerson(db, plan.sourceBy)
  if (!chooser) return null
  const access = await accessToCourses(db, chooser, plan.sourceIds)
  return plan.sourceIds.every(source => access.get(source)?.take) ? access : null
}

/** A plan with all its courses, as one page needs it. */
export async function readPlan(db: Knex, person: Person, id: string): Promise<PlanReply> {
  const plan = await queries.findPlan(db, id)
  if (!plan) throw notFound('This plan')
  const access = await takenFrom(db, plan)
  if (!access)
    throw new Problem(
      403,
      'A course of this plan is not open to it any more',
      'Whoever shared it has taken that back. The plan is kept: discard it on the page Rollovers, or begin one from another course.',
    )
  const [source, ...more] = await Promise.all(
    plan.sourceIds.map(one => loadWhole(db, person, one, access.get(one)!)),
  )
  const target = await loadWhole(db, person, plan.targetId)
  const own = await accessToCourse(db, person, plan.targetId)
  const run = (await runsInto(db, [plan.targetId])).find(entry => entry.planId === id)
  const set = plan.setId ? (await queries.plansOfSet(db, plan.setId)).filter(other => other.id !== id) : []
  const [siblings, fits] = await neighbours(db, person, target.course)
  const lines = await courseLines(db, person, [...set.map(other => other.targetId), ...siblings, ...fits])
  const held = (await writingInto(db, [queries.writtenCourse(plan)])).get(queries.writtenCourse(plan))
  const chosen = new Set(await planSections(db, id))
  const could =
    plan.mode === 'roll' && target.course.origin !== 'awaited'
      ? await joinable(
          db,
          plan.targetId,
          siblings.filter(one => ['instructor', 'assistant', 'office'].includes(lines.get(one)!.role ?? '')),
        )
      : new Map<string, { faults: string[]; joined: boolean }>()
  return {
    id,
    revision: plan.revision,
    state: plan.state,
    mode: plan.mode,
    document: plan.document,
    savedAt: instantText(plan.updatedAt),
    savedBy: plan.updatedBy,
    source: source!,
    more,
    target,
    zone: zoneFor(target.calendar) as PlanReply['zone'],
    may: {
      edit: own.plan && plan.state === 'draft',
      run:
        own.run && plan.state === 'draft' && (target.course.origin !== 'awaited' || plan.mode === 'in-place'),
    },
    run: run ? { id: run.id, at: instantText(run.finishedAt), by: run.by } : null,
    set: set.map(other => ({ id: other.id, course: lines.get(other.targetId)!, state: other.state })),
    siblings: siblings.map(one => lines.get(one)!),
    sections: [...could].map(([one, { faults, joined }]) => ({
      course: lines.get(one)!,
      chosen: chosen.has(one),
      joined,
      faults,
    })),
    fits: plan.mode === 'roll' ? fits.map(one => lines.get(one)!) : [],
    writing: held ? { by: held.by, since: instantText(held.since) } : null,
  }
}
/** Other sections in a course's term with its code or title; and, where it only holds a place, shells that could take it. */
async function neighbours(
  db: Knex,
  person: Person,
  course: PlanReply['target']['course'],
): Promise<[string[], string[]]> {
  const { patterns } = await codeKnowledge(db)
  const key = codeKey(course.code, patterns)
  const rows: { id: string; code: string; title: string; origin: string }[] = await (
    await coursesOf(db, person)
  )()
    .join('terms', 'terms.id', 'courses.term_id')
    .where({ 'terms.code': course.term.code })
    .whereIn('origin', ['registrar', 'hand'])
    .whereNot({ 'courses.id': course.id })
    .select('courses.id', 'courses.code', 'title', 'origin')
  const alike = rows
    .filter(row => codeKey(row.code, patterns) === key || row.title === course.title)
    .map(row => row.id)
    .slice(0, 40)
  const access = await accessToCourses(db, person, alike)
  return [alike, course.origin === 'awaited' ? alike.filter(one => access.get(one)?.plan) : []]
}

/** How a plan stands, for a page that has it open. */
export async function planState(db: Knex, id: string): Promise<PlanState> {
  const plan = await queries.findPlan(db, id)
  if (!plan) throw notFound('This plan')
  const held = (await writingInto(db, [queries.writtenCourse(plan)])).get(queries.writtenCourse(plan))
  return {
    revision: plan.revision,
    state: plan.state,
    savedAt: instantText(plan.updatedAt),
    savedBy: plan.updatedBy,
    writing: held ? { by: held.by, since: instantText(held.since) } : null,
  }
}

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
  if (plan.state === 'run')
    throw new Problem(
      409,
      'This plan has been run',
      'Its decisions are kept as they were. Begin a new plan to roll again.',
    )
  const sources =
    change.sources && change.sources.join() !== plan.sourceIds.join() ? change.sources : undefined
  if (sources && plan.mode === 'in-place')
    throw new Problem(409, 'A course rolled in place is its own source', 'Nothing was changed.')
  // What only changes its place stays there by the right of whoever chose it; whoever adds a source must be allowed to take from all of them.
  const adds = sources?.some(source => !plan.sourceIds.includes(source)) ?? false
  if (sources) {
    if (sources.includes(plan.targetId))
      throw new Problem(400, 'A course cannot be rolled into itself here', undefined, [
        { field: 'sources', message: 'Choose another course to roll from.' },
      ])
    if (adds) await checkSources(db, person, sources)
    else if (new Set(sources).size < sources.length)
      throw new Problem(400, 'A course stands twice among the sources', undefined, [
        { field: 'sources', message: 'Each course comes once; take the second away.' },
      ])
  }
  const saved = await inTransaction(db, trx =>
    queries.savePlan(trx, id, revision, {
      document: change.document,
      sourceIds: sources,
      ...(adds && { sourceBy: person.id }),
      personId: person.id,
    }),
  )
  if (!saved) {
    const theirs = await queries.findPlan(db, id)
    throw new Problem(
      412,
      'This plan was changed elsewhere',
      theirs
        ? `${theirs.updatedBy} saved it at ${instantText(theirs.updatedAt)}. Your change is not saved yet.`
        : undefined,
    )
  }
  return { revision: revision + 1, savedAt: now().toISOString() }
}

export async function discardPlan(db: Knex, person: Person, id: string): Promise<void> {
  await inTransaction(db, async trx => {
    const plan = await queries.lockPlan(trx, id)
    if (!plan || !(await queries.deleteDraft(trx, id)))
      throw new Problem(409, 'This plan has been run', 'What was run is kept.')
    await dropAwaited(trx, plan.targetId)
    await writeLog(trx, {
      action: 'plan.discarded',
      personId: person.id,
      planId: id,
      courseId: plan.sourceId,
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
  const runs = await runsInto(db, readable)
  const writing = await writingInto(
    db,
    plans.map(plan => plan.targetId),
  )
  return {
    plans: plans.map(plan => {
      const run = runs.find(entry => entry.planId === plan.id)
      const held = writing.get(plan.targetId)
      return {
        id: plan.id,
        state: plan.state,
        mode: plan.mode,
        sources: plan.sourceIds.map(source => lines.get(source)!),
        target: lines.get(plan.targetId)!,
        updatedAt: instantText(plan.updatedAt),
        updatedBy: plan.updatedBy,
        run: run ? { id: run.id, at: instantText(run.finishedAt), items: run.effect.added.items } : null,
        writing: held ? { by: held.by, since: instantText(held.since) } : null,
      }
    }),
  }
}

/** What the computation of a plan rests on, read within one transaction. */
export async function compileInput(db: Knex, plan: queries.PlanRow): Promise<CompileInput> {
  const access = await takenFrom(db, plan)
  if (!access)
    throw new Problem(
      403,
      'A course of this plan is not open to it any more',
      'Whoever shared it has taken that back. Nothing was written.',
    )
  const courses = await loadCourses(db, [...plan.sourceIds, plan.targetId])
  const side = async (id: string) => {
    const calendar = await loadCalendar(db, id)
    return {
      calendar,
      term: compileTerm(calendar),
      meetings: courses.get(id)!.meetings,
      nodes: await loadOutline(db, id, access.get(id)?.leaves),
      categories: await loadCategories(db, id),
    }
  }
  const [source, ...more] = await Promise.all(plan.sourceIds.map(side))
  const target = await side(plan.targetId)
  return { document: plan.document, source: source!, more, target, zone: zoneFor(target.calendar) }
}
/** The same, as one of the sections has it that show the shell's content: with its own calendar and meetings. */
export async function sectionInput(db: Knex, input: CompileInput, sectionId: string): Promise<CompileInput> {
  const course = (await loadCourses(db, [sectionId])).get(sectionId)!
  const calendar = await loadCalendar(db, sectionId)
  return {
    ...input,
    target: { ...input.target, term: compileTerm(calendar), meetings: course.meetings },
    zone: zoneFor(calendar),
  }
}
/** A mark of exactly what a run would write, from what it found: any change in plan, sources or shell changes it. */
export function fingerprintOf(
  plan: queries.PlanRow,
  input: CompileInput,
  compiled: CompiledPlan,
  sections: readonly string[],
): string {
  const facts = [
    sections,
    plan.sourceIds,
    plan.targetId,
    plan.document,
    compiled.placements,
    input.source.nodes,
    input.more?.map(source => source.nodes),
    input.target.nodes,
  ]
  return createHash('sha256').update(JSON.stringify(facts)).digest('hex')
}

/** What Run would do now, in numbers. */
export async function effectOf(db: Knex, id: string): Promise<EffectReply> {
  return inTransaction(db, async trx => {
    const plan = await queries.findPlan(trx, id)
    if (!plan) throw notFound('This plan')
    const input = await compileInput(trx, plan)
    const compiled = compilePlan(input)
    return {
      effect: compiled.effect as EffectReply['effect'],
      fingerprint: fingerprintOf(plan, input, compiled, await planSections(trx, id)),
    }
  })
}

/** The dates of a plan with old and new side by side, in course order. */
export async function datesOf(
  db: Knex,
  id: string,
): Promise<{ input: CompileInput; ledger: ReturnType<typeof planLedger>; plan: queries.PlanRow }> {
  const plan = await queries.findPlan(db, id)
  if (!plan) throw notFound('This plan')
  const input = await compileInput(db, plan)
  return { plan, input, ledger: planLedger(input) }
}
