import { dayOf, type Day } from '../calendar/day'
import type { Meeting } from '../calendar/schema'
import type { Term } from '../calendar/term'
import { yearsOfAll, type Years, type ZoneRules } from '../calendar/zone'
import { carriedOf } from '../carry/select'
import { planDates, summarise, type DatedItem, type PlanInput } from '../dates/plan'
import { yearsReached } from '../dates/years'
import type { Windows } from '../pairing/windows'
import type { OutlineNode } from '../course/outline'
import { mapParts, type PlanDocument } from './document'
import { count, type Effect, type Placement, type Placements } from './effect'
import { mergeSources, type MergedSources } from './sources'

export type { Effect, Placement }
export interface Category {
  readonly lineage: string
  readonly title: string
}
/** A course as a plan computes with it. */
export interface PlanSide {
  term: Term
  meetings: readonly Meeting[]
  nodes: readonly OutlineNode[]
  categories: readonly Category[]
  /** When students may enrol and enter, as it stands in the course. */
  windows: Windows
}
/** What a plan is computed from, but for the zone data of its target. */
export interface PlanBase {
  document: PlanDocument
  source: PlanSide
  /** Further sources, in their order; what an earlier one holds already does not come from a later one. */
  more: readonly PlanSide[]
  target: PlanSide
}
export interface CompileInput extends PlanBase {
  zone: ZoneRules
}
/** What a run is computed from. */
export interface RunInput extends CompileInput {
  /** What somebody deleted in the shell, by lineage: it stays away, with all that is below it in the source. */
  deletedThere: ReadonlySet<string>
}
export interface CompiledPlan {
  placements: Placement[]
  effect: Effect
}

const sourcesOf = ({ source, more }: PlanBase): readonly PlanSide[] => [source, ...more]
/** All sources of a plan as one outline. */
export const sourceOutline = (input: PlanBase): MergedSources => mergeSources(sourcesOf(input))

const datedItem = ({ lineage, kind, unit, opens, due, closes }: OutlineNode): DatedItem => ({
  id: lineage,
  kind: kind ?? '',
  unit,
  opens,
  due,
  closes,
})
/** When students may enrol and enter once the plan is run. */
export const windowsOf = ({ document, target }: PlanBase): Windows => document.windows ?? target.windows
/** The days on which students may enter the new course, where both are set. */
function targetWindow(base: PlanBase): { from: Day; to: Day } | null {
  const { openFrom, openTo } = windowsOf(base)
  return openFrom !== null && openTo !== null ? { from: dayOf(openFrom), to: dayOf(openTo) } : null
}
/** A plan's carried items with its rules, as the date engine takes them: once for each source, since each has a calendar of its own. */
function sourceInputs(base: PlanBase, merged: MergedSources): Omit<PlanInput, 'zone'>[] {
  const { document, target } = base
  const carried = carriedOf(merged.nodes, new Set(document.carry.leave))
  const items = merged.nodes.filter(node => node.type === 'item' && carried.has(node.lineage))
  return sourcesOf(base).map((source, at) => ({
    source: source.term,
    target: target.term,
    sourceMeetings: source.meetings,
    targetMeetings: target.meetings,
    targetWindow: targetWindow(base),
    rules: document.dates,
    items: items.filter(node => merged.from.get(node.lineage) === at).map(datedItem),
  }))
}
export const ledgerInputs = (
  input: CompileInput,
  merged: MergedSources = sourceOutline(input),
): PlanInput[] => sourceInputs(input, merged).map(each => ({ ...each, zone: input.zone }))
/** The years for which a plan needs to know its target's zone. */
export const zoneYearsOf = (base: PlanBase, merged: MergedSources = sourceOutline(base)): Years =>
  yearsOfAll(sourceInputs(base, merged).map(yearsReached))

/** The dates of a plan's carried items. The page shows these while one plans; Run computes them again. */
export function planLedger(
  input: CompileInput,
  merged: MergedSources = sourceOutline(input),
): ReturnType<typeof planDates> {
  const items = ledgerInputs(input, merged).flatMap(each => planDates(each).items)
  return { items, summary: summarise(items) }
}

/** Gives out positions below what each place of the shell holds already. */
function placer(nodes: readonly OutlineNode[]): (parent: string | null) => number {
  const next = new Map<string | null, number>()
  for (const node of nodes) next.set(node.parent, Math.max(next.get(node.parent) ?? 0, node.position + 1))
  return parent => {
    const position = next.get(parent) ?? 0
    next.set(parent, position + 1)
    return position
  }
}

/** Those of some nodes, in course order, that are among some lineages or stand below one of them. */
function belowAny(nodes: readonly OutlineNode[], lineages: ReadonlySet<string>): Set<string> {
  const below = new Set<string>()
  for (const { lineage, parent } of nodes)
    if (lineages.has(lineage) || (parent !== null && below.has(parent))) below.add(lineage)
  return below
}

/**
 * Turns a plan's decisions into what is to be written: each new unit, item and grade category with its place in the shell and
 * its dates. New things go below what a place holds already; what the shell has already under the same lineage is not written, and what
 * was deleted there stays away.
 */
export function compilePlan(input: RunInput): CompiledPlan {
  const { document, target } = input
  const source = sourceOutline(input)
  const carried = carriedOf(source.nodes, new Set(document.carry.leave))
  const there = new Set([...target.nodes, ...target.categories].map(entry => entry.lineage))
  const dates = new Map(planLedger(input, source).items.map(item => [item.id, item]))
  const sourceOf = (lineage: string): number => source.from.get(lineage) ?? 0

  const wanted = source.nodes.filter(node => carried.has(node.lineage))
  const deleted = belowAny(wanted, input.deletedThere)
  const fresh = wanted.filter(node => !there.has(node.lineage) && !deleted.has(node.lineage))
  const used = new Set(fresh.map(node => node.category))
  const takesAll = document.carry.leave.length === 0
  const categories = source.categories.filter(
    category => !there.has(category.lineage) && (takesAll || used.has(category.lineage)),
  )
  const place = placer(target.nodes)
  const placements: Placement[] = [
    ...categories.map(({ lineage }, at): Placement => ({
      action: 'added',
      entity: 'category',
      lineage,
      parent: null,
      position: target.categories.length + at,
      dates: null,
      from: sourceOf(lineage),
    })),
    ...fresh.map(({ type, lineage, parent }): Placement => ({
      action: 'added',
      entity: type,
      lineage,
      parent,
      position: place(parent),
      dates: dates.get(lineage) ?? null,
      from: sourceOf(lineage),
    })),
  ]
  const counted: Placements = {
    source: source.nodes,
    target: target.nodes,
    wanted,
    fresh,
    deleted: wanted.filter(node => deleted.has(node.lineage)),
    categories,
    placements,
    dates,
    count,
  }
  const effects = Object.values(mapParts(part => part.effect?.(counted) ?? {}))
  return { placements, effect: Object.assign({}, ...effects) as Effect }
}
