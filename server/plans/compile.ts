import { createHash } from 'node:crypto'
import type { Knex } from 'knex'
import { compileTerm } from '../../core/calendar/term'
import {
  compilePlan,
  planLedger,
  zoneYearsOf,
  type CompiledPlan,
  type CompileInput,
  type PlanBase,
  type PlanSide,
} from '../../core/plan/compile'
import { loadCalendar } from '../calendars/terms.queries'
import { zoneRules } from '../calendars/zones'
import type { CourseAccess } from '../courses/access'
import { loadBases } from '../courses/carried.queries'
import { loadCarrySide } from '../courses/carry-side'
import { deletedIn } from '../courses/content.queries'
import { loadFacts } from '../courses/courses.queries'
import { sectionsOf } from '../courses/sections.queries'
import { notFound, refuse } from '../errors/refusal'
import { checkDocument } from './faults'
import { foundAccess } from './found'
import { findPlan, planSections, type Plan } from './plans.queries'
import { courseNames, sourceAccess } from './sources'
import { findTraces } from '../student-data/traces.queries'

async function loadSide(
  db: Knex,
  id: string,
  isSource: boolean,
  withheld?: CourseAccess['withheld'],
): Promise<PlanSide> {
  const { meetings, windows } = await loadFacts(db, id)
  return {
    term: compileTerm(await loadCalendar(db, id)),
    meetings,
    windows,
    ...(await loadCarrySide(db, id, withheld, isSource)),
  }
}
const withZone = (base: PlanBase): CompileInput => ({
  ...base,
  zone: zoneRules(base.target.term.timeZone, zoneYearsOf(base)),
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
/** What the computation of a plan rests on, read within one transaction. */
export async function compileInput(db: Knex, plan: Plan): Promise<CompileInput> {
  const { access, foundFrom } = await rightsOf(db, plan)
  const side = (id: string) => loadSide(db, id, true, access.get(id)?.withheld)
  const target = await loadSide(db, plan.targetId, false)
  checkDocument(plan.document, target.term)
  const more: PlanSide[] = []
  for (const id of plan.sourceIds.slice(1)) more.push(await side(id))
  const found: CompileInput['found'][number][] = []
  for (const [id, { withheld }] of foundFrom) found.push({ id, ...(await loadSide(db, id, false, withheld)) })
  return withZone({
    document: plan.document,
    source: await side(plan.sourceId),
    more,
    found,
    target,
    before: await loadBefore(db, plan.targetId),
    traces: (await findTraces(db, plan.id))?.found ?? [],
    inPlace: plan.mode === 'in-place',
  })
}
/** What was carried into a shell before, and what somebody deleted there. */
export const loadBefore = async (db: Knex, shellId: string): Promise<PlanBase['before']> => ({
  bases: await loadBases(db, shellId),
  deleted: await deletedIn(db, shellId),
})
/** The same, as one of the sections has it that show the shell's content: with its own calendar and meetings. */
export async function sectionInput(db: Knex, input: CompileInput, sectionId: string): Promise<CompileInput> {
  const { meetings } = await loadFacts(db, sectionId)
  const term = compileTerm(await loadCalendar(db, sectionId))
  return withZone({ ...input, target: { ...input.target, term, meetings } })
}

/** What a plan writes. In place nothing is added: all of it is there, and gets its new dates. */
export function compileFor(plan: Plan, input: CompileInput): CompiledPlan {
  const compiled = compilePlan(input)
  if (plan.mode !== 'in-place') return compiled
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
  ledger: ReturnType<typeof planLedger>
}
/** The sections that show the shell's content, chosen now or joined before, each with the dates of its own meetings. */
export async function sectionPlans(db: Knex, plan: Plan, input: CompileInput): Promise<SectionPlan[]> {
  const joined = await sectionsOf(db, plan.targetId)
  const ids = [...new Set([...joined, ...(await planSections(db, plan.id))])]
  return Promise.all(ids.map(async id => ({ id, ledger: planLedger(await sectionInput(db, input, id)) })))
}

/** Stands for exactly what a run would write, from what it found: any change in plan, sources, shell or sections changes it. */
export function fingerprintOf(
  plan: Plan,
  input: CompileInput,
  compiled: CompiledPlan,
  { sections, clearing }: { sections: readonly SectionPlan[]; clearing: unknown },
): string {
  const facts = [
    clearing,
    sections.map(({ id, ledger }) => [
      id,
      ledger.items.map(({ opens, due, closes }) => [opens, due, closes]),
    ]),
    plan.sourceIds,
    plan.targetId,
    plan.document,
    // Of the dates what is written: the reasons follow from what is told of the courses and the rules.
    compiled.placements.map(({ dates, ...rest }) => [rest, dates && [dates.opens, dates.due, dates.closes]]),
    input.traces,
    [input.source, ...input.more, ...input.found, input.target].map(({ nodes, categories, grading }) => [
      nodes,
      categories,
      grading,
    ]),
  ]
  return createHash('sha256').update(JSON.stringify(facts)).digest('hex')
}

/** The dates of a plan with old and new side by side, in course order. */
export interface PlannedDates {
  plan: Plan
  input: CompileInput
  ledger: ReturnType<typeof planLedger>
}
export async function loadPlannedDates(db: Knex, id: string): Promise<PlannedDates> {
  const plan = await findPlan(db, id)
  if (!plan) throw notFound('This plan')
  const input = await compileInput(db, plan)
  return { plan, input, ledger: planLedger(input) }
}
