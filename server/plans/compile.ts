import { createHash } from 'node:crypto'
import type { Knex } from 'knex'
import { LRUCache } from 'lru-cache'
import type { TermCalendar } from '../../core/calendar/schema'
import { compileTerm } from '../../core/calendar/term'
import { askedOf } from '../../core/carry/base'
import { codeText } from '../../core/course/code-text'
import { planBase, type CarrySide, type PlanSide } from '../../core/plan/base'
import { compilePlan, type CompiledPlan } from '../../core/plan/compile'
import type { Effect } from '../../core/plan/effect'
import { compileInputOf, planLedger, type CompileInput, type PlanLedger } from '../../core/plan/ledger'
import { present } from '../../core/present'
import { loadCalendar, loadCalendars } from '../calendars/terms.queries'
import { zoneRules } from '../calendars/zones'
import type { CourseAccess } from '../courses/access'
import { isFileAmong, loadCourse, loadFacts, meetingFacts } from '../courses/courses.queries'
import { carriedBefore, carrySide, tallyOf } from '../courses/known'
import { contentsOf } from '../courses/sections.queries'
import { joinable, type Leaving } from '../sections/joinable'
import { inSnapshot } from '../db/transaction'
import { notFound, refuse } from '../errors/refusal'
import { checkDocument } from './faults'
import { foundAccess } from './found'
import { everySection, findPlan, writtenCourse, type Plan, type Sections } from './plans.queries'
import { courseNames, sourceAccess } from './sources'
import { addedByHand } from '../courses/student-data.queries'
import { findTraces, type TracesFound } from './traces.queries'

/** What is told of a course beside what it holds, and that. */
interface LoadedSide {
  readonly id: string
  readonly facts: Pick<PlanSide, 'meetings' | 'windows'> & { readonly calendar: TermCalendar }
  readonly holds: CarrySide
}
/** How a side is read. `isSource`: with what was deleted in it. */
interface SideAsked {
  readonly id: string
  readonly isSource?: boolean
  readonly withheld?: CourseAccess['withheld'] | undefined
  readonly tally?: string
}
async function loadSides(db: Knex, asked: readonly SideAsked[]): Promise<LoadedSide[]> {
  const ids = asked.map(({ id }) => id)
  const facts = await meetingFacts(db, ids)
  const calendars = await loadCalendars(db, ids)
  const sides: LoadedSide[] = []
  for (const { id, isSource = false, withheld, tally } of asked) {
    const { meetings, windows } = present(facts.get(id))
    const calendar = present(calendars.get(id))
    const holds = await carrySide(db, id, withheld, isSource, tally)
    sides.push({ id, facts: { meetings, windows, calendar }, holds })
  }
  return sides
}
const sideOf = ({ facts: { calendar, ...facts }, holds }: LoadedSide): PlanSide => ({
  term: compileTerm(calendar),
  ...facts,
  ...holds,
})
/** What may be rolled of each course of a plan, by the right of whoever chose it. @throws Refusal where one may not be rolled any more */
async function rightsOf(db: Knex, plan: Plan) {
  const { access, closed } = await sourceAccess(db, plan)
  const foundFrom = await foundAccess(db, plan)
  for (const [course, { rollFrom }] of foundFrom) if (!rollFrom) closed.push(course)
  if (closed.length > 0) throw refuse('source-taken-back', { courses: await courseNames(db, closed) })
  return { access, foundFrom }
}
export const checkSourcesOpen = async (db: Knex, plan: Plan): Promise<void> => void (await rightsOf(db, plan))
interface KnownInput {
  readonly from: readonly unknown[]
  readonly input: CompileInput
}
const nodesOf = ({ input: { source, more, target } }: KnownInput): number =>
  [source, ...more, target].reduce((sum, { nodes }) => sum + nodes.length, 1)
/** What the computation of plans rested on when it was read last, with what that was put together from: of about so many units and items, 2 kB each. */
const inputsKnown = new LRUCache<string, KnownInput>({ maxSize: 30_000, sizeCalculation: nodesOf })
/**
 * What the computation of a plan rests on, read within one transaction. Where all of it stands as it did, it is the very same object, and so is
 * what was computed of it. `search`: what was found of students in its texts, where that has been asked for already.
 */
export async function compileInput(db: Knex, plan: Plan, search?: TracesFound | null): Promise<CompileInput> {
  const { access, foundFrom } = await rightsOf(db, plan)
  // Which content each of them shows is asked for once, and known to whatever asks later in this transaction.
  await contentsOf(db, [...plan.sourceIds, ...foundFrom.keys(), plan.targetId])
  const tally = await tallyOf(db, plan.targetId)
  const sides = await loadSides(db, [
    ...plan.sourceIds.map(id => ({ id, isSource: true, withheld: access.get(id)?.withheld })),
    ...[...foundFrom].map(([id, { withheld }]) => ({ id, withheld })),
    { id: plan.targetId, tally },
  ])
  const sources = sides.slice(0, plan.sourceIds.length)
  const found = sides.slice(sources.length, -1)
  const target = present(sides.at(-1))
  const before = await carriedBefore(db, plan.targetId, await isFileAmong(db, plan.sourceIds), tally)
  const searched = search === undefined ? await findTraces(db, plan.id) : search
  const traces = searched && { traces: searched.found, unseen: searched.looked.unseen }
  const byHand = await addedByHand(db, writtenCourse(plan))
  const from = [
    plan.document,
    ...sides.map(({ holds }) => holds),
    before,
    JSON.stringify([plan.mode, plan.sourceIds, sides.map(({ id, facts }) => [id, facts]), traces, byHand]),
  ]
  const known = inputsKnown.get(plan.id)
  if (known && known.from.length === from.length && known.from.every((each, at) => each === from[at]))
    return known.input
  const base = planBase({
    document: plan.document,
    mode: plan.mode,
    sources: sources.map(sideOf),
    found: found.map(each => ({ id: each.id, ...sideOf(each) })),
    target: sideOf(target),
    before: askedOf(before, plan.sourceIds),
    searched: traces,
    byHand,
  })
  const input = compileInputOf(base, zoneRules)
  checkDocument(plan.document, input.target.term)
  inputsKnown.set(plan.id, { from, input })
  return input
}
/** The same, as one of the sections has it that show the shell's content: with its own calendar and meetings. */
export async function sectionInput(db: Knex, input: CompileInput, sectionId: string): Promise<CompileInput> {
  const { meetings } = await loadFacts(db, sectionId)
  const term = compileTerm(await loadCalendar(db, sectionId))
  return compileInputOf({ ...input, target: { ...input.target, term, meetings } }, zoneRules)
}

/** Plans that are compiled already: what they rest on is immutable. */
const compiledKnown = new WeakMap<CompileInput, CompiledPlan>()
/** What a plan writes. */
export function compiledFor(input: CompileInput): CompiledPlan {
  const compiled = compiledKnown.get(input) ?? compiledNow(input)
  compiledKnown.set(input, compiled)
  return compiled
}
/** In place nothing is added: all of it is there, and gets its new dates. */
function compiledNow(input: CompileInput): CompiledPlan {
  const compiled = compilePlan(input)
  if (!input.inPlace) return compiled
  const { added, ...effect } = compiled.effect
  const kept = { units: added.units, items: added.items }
  return {
    ...compiled,
    effect: { ...effect, kept, added: { units: 0, items: 0, categories: 0, byKind: {} } },
  }
}

/** A section that shows the shell's content, and where the plan's items land in it. */
export interface SectionPlan {
  id: string
  ledger: PlanLedger
  name: string
  /** What goes from it, where it held something itself. */
  leaves: readonly Leaving[]
}
/** The effect on the shell and on sections that are to show its content. */
export function effectBeside(effect: Effect, sections: readonly SectionPlan[]): Effect {
  const emptied = sections.filter(({ leaves }) => leaves.length > 0)
  if (emptied.length === 0) return effect
  const things = emptied.reduce((sum, { leaves }) => sum + leaves.length, 0)
  return { ...effect, beside: { things, sections: emptied.map(({ name }) => name) } }
}
/** The sections that show the shell's content, chosen now or joined before, each with the dates of its own meetings. */
export async function sectionPlans(
  db: Knex,
  plan: Pick<Plan, 'targetId' | 'sourceIds'>,
  input: CompileInput,
  beside: Sections,
): Promise<SectionPlan[]> {
  const ids = everySection(beside)
  const found = await joinable(db, plan.targetId, ids, { sources: plan.sourceIds })
  return Promise.all(
    ids.map(async id => ({
      id,
      name: codeText(await loadCourse(db, id)),
      ledger: planLedger(await sectionInput(db, input, id)),
      leaves: found.get(id)?.leaves ?? [],
    })),
  )
}

/** Stands for exactly what a run would write, from what it found: any change in plan, sources, shell or sections changes it. */
export function fingerprintOf(
  plan: Plan,
  input: CompileInput,
  compiled: CompiledPlan,
  { sections, clearing }: { sections: readonly SectionPlan[]; clearing: unknown },
): string {
  const { document, traces, unseen, before, source, more, found, target } = input
  const facts = [
    clearing,
    sections.map(({ id, ledger, leaves }) => [
      id,
      leaves,
      ledger.items.map(({ opens, due, closes }) => [opens, due, closes]),
    ]),
    plan.sourceIds,
    plan.targetId,
    document,
    traces,
    unseen,
    // All that is written follows from what the courses hold, from the decisions, and from where the dates land; a calendar that changes
    // without moving any of them is no matter.
    [source, ...more, ...found, target].map(
      ({ nodes, categories, grading, grace, rubrics, groups, furniture }) =>
        [nodes, categories, grading, grace, rubrics, groups, furniture].map(partHash),
    ),
    partHash(before.bases),
    before.deleted,
    compiled.placements.map(({ dates, arrives }) => [
      dates && [dates.opens, dates.due, dates.closes],
      arrives?.gradingPeriod ?? null,
    ]),
    compiled.effect,
  ]
  return hashOf(facts)
}
const hashOf = (facts: unknown): string => createHash('sha256').update(JSON.stringify(facts)).digest('hex')
/** Hashes of what courses hold, which is large, and the same object as long as it is the same. */
const partHashes = new WeakMap<object, string>()
function partHash(part: object | null): string {
  if (part === null) return ''
  const hash = partHashes.get(part) ?? hashOf(part)
  partHashes.set(part, hash)
  return hash
}

/** The dates of a plan with old and new side by side, in course order. */
export interface PlannedDates {
  plan: Plan
  input: CompileInput
  ledger: PlanLedger
}
export async function loadPlannedDates(db: Knex, id: string): Promise<PlannedDates> {
  return inSnapshot(db, async trx => {
    const plan = await findPlan(trx, id)
    if (!plan) throw notFound('This plan')
    const input = await compileInput(trx, plan)
    return { plan, input, ledger: planLedger(input) }
  })
}
