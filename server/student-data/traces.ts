import { createHash } from 'node:crypto'
import type { Knex } from 'knex'
import type { CarrySide } from '../../core/plan/base'
import type { CompileInput } from '../../core/plan/ledger'
import { foldedWords } from '../../core/student-data/traces/fold'
import type { Trace } from '../../core/student-data/traces/trace'
import type { TracesReply } from '../../shared/api/traces'
import { accessToCourses } from '../courses/access'
import { contentsOf } from '../courses/sections.queries'
import { inSnapshot } from '../db/transaction'
import { notFound, refuse } from '../errors/refusal'
import { withTemplateSources } from '../sharing/templates.queries'
import { logSeldom } from '../http/logger'
import { startThread } from '../jobs/in-thread'
import { compileInput } from '../plans/compile'
import type { Person } from '../people/people.queries'
import { findPlan, sidesOfPlan, type Plan } from '../plans/plans.queries'
import { lookThrough, type SearchedSide } from './look-through'
import { phoneKeyOf } from './phones'
import { peopleIn, tracedItems } from './traces.queries'
import { findTraces, keepTraces, searchVersion, type TracesFound } from '../plans/traces.queries'
import type { SearchedPeople } from '../../core/student-data/traces/find'

const staffRoles = ['instructor', 'assistant'] as const
/** Whom a plan's texts are searched for: the students of all that it brings from, and of what its templates were made from. Who of them is in its shell, or teaches, is told apart. */
export async function peopleOfPlan(db: Knex, plan: Plan): Promise<SearchedPeople> {
  const sources = sidesOfPlan(plan)
  const students = await peopleIn(db, await withTemplateSources(db, sources), ['student'])
  const staff = await peopleIn(db, [...sources, plan.targetId], staffRoles)
  const here = plan.mode === 'in-place' ? [] : await peopleIn(db, [plan.targetId], ['student'])
  // Whoever is called as somebody is who is here now may be meant as well.
  const nameOf = ({ given, family }: { given: string; family: string }): string =>
    foldedWords(`${given} ${family}`).join(' ')
  const ids = new Set([...staff, ...here].map(({ id }) => id))
  const names = new Set([...staff, ...here].map(nameOf))
  const alsoHere = new Set(
    students.filter(person => ids.has(person.id) || names.has(nameOf(person))).map(({ id }) => id),
  )
  return { students, staff, alsoHere, keyOf: phoneKeyOf() }
}
/** Stands for all that a search looks through, and for whom: where it is the same, so is what was found. */
function basisOf(input: CompileInput, { students, alsoHere, staff }: SearchedPeople): string {
  const texts = input.brought.sides.map(({ nodes, categories, grading, rubrics, groups, furniture }) => [
    textsHash(nodes),
    categories.map(({ lineage, title, identifier }) => [lineage, title, identifier]),
    grading?.scale,
    rubrics,
    groups,
    furniture,
  ])
  const hash = hashOf([texts, students, [...alsoHere].sort(), staff])
  return searchVersion + hash.slice(searchVersion.length)
}
const hashOf = (facts: unknown): string => createHash('sha256').update(JSON.stringify(facts)).digest('hex')
/** Hashes of the texts of units and items: large, the same object as long as a course is the same, and asked for by each look at an effect. */
const textsKnown = new WeakMap<CarrySide['nodes'], string>()
function textsHash(nodes: CarrySide['nodes']): string {
  const hash =
    textsKnown.get(nodes) ??
    hashOf(
      nodes.map(({ lineage, title, identifier, body, settings }) => [
        lineage,
        title,
        identifier,
        body,
        settings,
      ]),
    )
  textsKnown.set(nodes, hash)
  return hash
}
/** The basis of a plan's search as all stands now: what Run asks for once more in its own transaction. */
export async function tracesBasis(
  db: Knex,
  plan: Plan,
  input: CompileInput,
): Promise<{ basis: string; people: SearchedPeople }> {
  const people = await peopleOfPlan(db, plan)
  return { basis: basisOf(input, people), people }
}

/** Whether a plan's texts have been searched as they stand now. */
export async function areTracesKnown(db: Knex, plan: Plan, input: CompileInput): Promise<boolean> {
  const known = await findTraces(db, plan.id)
  return known !== null && known.basis === (await tracesBasis(db, plan, input)).basis
}

interface Wanted {
  plan: Plan
  input: CompileInput
  people: SearchedPeople
  basis: string
  /** What is known already and holds still. */
  current: TracesFound | null
}
async function wantedFor(db: Knex, planId: string): Promise<Wanted> {
  return inSnapshot(db, async trx => {
    const plan = await findPlan(trx, planId)
    if (!plan) throw notFound('This plan')
    const input = await compileInput(trx, plan)
    const people = await peopleOfPlan(trx, plan)
    const basis = basisOf(input, people)
    const known = await findTraces(trx, planId)
    return { plan, input, people, basis, current: known?.basis === basis ? known : null }
  })
}
async function sidesToSearch(db: Knex, plan: Plan, input: CompileInput): Promise<SearchedSide[]> {
  const courses = sidesOfPlan(plan)
  const contents = await contentsOf(db, courses)
  const { found } = plan.document.added
  const keyIn = (lineage: string): string => found[lineage]?.lineage ?? lineage
  const sides: SearchedSide[] = []
  for (const [at, side] of input.brought.sides.entries()) {
    const course = courses[at]
    // What is made in the plan was never last term's.
    if (course !== undefined)
      sides.push({ side, items: await tracedItems(db, contents.get(course) ?? course), keyIn })
  }
  return sides
}
/** Searches a plan's texts, and keeps what was found. Takes seconds where there is much: within a thread of its own. */
export async function searchTraces(db: Knex, planId: string): Promise<void> {
  const { plan, input, people, basis, current } = await wantedFor(db, planId)
  if (current) return
  const { found, looked } = await lookThrough(db, await sidesToSearch(db, plan, input), people)
  await keepTraces(db, planId, { basis, found, looked })
}

/** Searches under way, by plan: whoever asks for the same waits for the same. */
const underWay = new Map<string, Promise<void>>()
/** One after another: each takes a core. */
let last: Promise<unknown> = Promise.resolve()
const secondsAtMost = 120

/** Sees that the traces in a plan's texts are known as all stands now. @throws Refusal where the search fails. */
export async function ensureTraces(db: Knex, planId: string): Promise<void> {
  const { current, input } = await wantedFor(db, planId)
  if (current) return
  const waiting = underWay.get(planId)
  if (waiting) return waiting
  const search = last.then(() => (isLong(input) ? inThread(planId) : searchTraces(db, planId)))
  last = search.catch(() => {})
  underWay.set(planId, search)
  try {
    await search
  } catch (error) {
    logSeldom('a search for traces failed', error)
    throw refuse('traces-not-searched')
  } finally {
    underWay.delete(planId)
  }
}
/** So much text is looked through here, in a fraction of a second; more in a thread of its own, so that nobody else waits. */
const hereAtMost = { bytes: 1024 * 1024, items: 2000 }
function isLong(input: CompileInput): boolean {
  const nodes = input.brought.sides.flatMap(side => side.nodes)
  return nodes.length > hereAtMost.items || nodes.reduce((sum, { size }) => sum + size, 0) > hereAtMost.bytes
}
const inThread = (planId: string): Promise<void> =>
  startThread<{ problem?: string }, { problem?: string }>({
    data: { traces: { planId } },
    megabytes: 512,
    seconds: secondsAtMost,
    hear: (message, end) => end(message),
  }).ended.then(({ problem }) => {
    if (problem !== undefined) throw new Error(problem)
  })

/** Whoever may not read a source is told where in it traces stand, and not what is written there. */
async function toldTo(db: Knex, person: Person, plan: Plan, found: readonly Trace[]): Promise<Trace[]> {
  const sides = sidesOfPlan(plan)
  const access = await accessToCourses(db, person, sides)
  return found.map(trace => {
    if (access.get(sides[trace.side] ?? '')?.read) return trace
    return { ...trace, before: '', text: 'a name', after: '' }
  })
}
/** Traces in a plan's texts, as far as they are known; where they are not, the search begins. */
export async function readTraces(db: Knex, person: Person, planId: string): Promise<TracesReply> {
  const { plan, current } = await wantedFor(db, planId)
  if (current) {
    const found = await toldTo(db, person, plan, current.found)
    return { state: 'done', found, looked: current.looked }
  }
  if (plan.state === 'run') return { state: 'none', found: [], looked: null }
  // Whoever asks is told that it is under way, and asks again; a failure is told by the next one that waits for it.
  ensureTraces(db, planId).catch(() => {})
  return { state: 'searching', found: [], looked: null }
}
