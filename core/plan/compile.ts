import type { Meeting } from '../calendar/schema'
import type { Term } from '../calendar/term'
import type { ZoneRules } from '../calendar/zone'
import { carriedOf } from '../carry/select'
import type { OutlineNode } from '../course/outline'
import { itemKinds, type ItemKind } from '../course/model'
import { planDates, summarise, type PlanInput, type PlannedItem, type Summary } from '../dates/plan'
import type { PlanDocument } from './document'
import { mergeSources, type MergedSources } from './sources'

export interface Category {
  readonly lineage: string
  readonly title: string
}
export interface PlanSource {
  term: Term
  meetings: readonly Meeting[]
  nodes: readonly OutlineNode[]
  categories: readonly Category[]
}
export interface CompileInput {
  document: PlanDocument
  source: PlanSource
  /** Further sources, in their order; what an earlier one holds already does not come from a later one. */
  more?: readonly PlanSource[]
  target: {
    term: Term
    meetings: readonly Meeting[]
    nodes: readonly OutlineNode[]
    categories: readonly Category[]
  }
  zone: ZoneRules
}
/** One thing a run does in the shell. It only adds so far; replacing and clearing come with Carry and Clear. */
export interface Placement {
  action: 'added' | 'replaced' | 'cleared'
  entity: 'unit' | 'item' | 'category'
  lineage: string
  parent: string | null
  position: number
  dates: PlannedItem | null
  /** Which source it comes from, by its place among them. */ from: number
}
/** What a run would do, in numbers. Slots and items are counted; `byKind` counts added items. */
export interface Effect {
  added: { units: number; items: number; categories: number; byKind: Partial<Record<ItemKind, number>> }
  replaced: number
  cleared: number
  /** Items of the plan that the shell has already (from an earlier run): left as they are there. */
  already: number
  leftBehind: number
  /** Items and units that are in the shell and stay untouched. */
  kept: { units: number; items: number }
  dates: Summary
}
export interface CompiledPlan {
  placements: Placement[]
  effect: Effect
}

const sourcesOf = ({ source, more }: CompileInput): readonly PlanSource[] => [source, ...(more ?? [])]
/** All sources of a plan as one outline. */
export const sourceOutline = (input: CompileInput): MergedSources => mergeSources(sourcesOf(input))

/** A plan's carried items with its rules, as the date engine takes them: once for each source, since each has a calendar of its own. */
export function ledgerInputs(input: CompileInput, merged: MergedSources = sourceOutline(input)): PlanInput[] {
  const { document, target, zone } = input
  const carried = carriedOf(merged.nodes, new Set(document.carry.leave))
  return sourcesOf(input).map((source, at) => ({
    source: source.term,
    target: target.term,
    sourceMeetings: source.meetings,
    targetMeetings: target.meetings,
    zone,
    rules: document.dates,
    items: merged.nodes
      .filter(
        node => node.type === 'item' && carried.has(node.lineage) && merged.from.get(node.lineage) === at,
      )
      .map(node => ({
        id: node.lineage,
        kind: node.kind!,
        unit: node.unit,
        opens: node.opens,
        due: node.due,
        closes: node.closes,
      })),
  }))
}
/** The dates of a plan's carried items. The page shows these while one plans; Run computes them again. */
export function planLedger(
  input: CompileInput,
  merged: MergedSources = sourceOutline(input),
): ReturnType<typeof planDates> {
  const ledgers = ledgerInputs(input, merged).map(planDates)
  if (ledgers.length === 1) return ledgers[0]!
  const items = ledgers.flatMap(ledger => ledger.items)
  return { ...ledgers[0]!, items, summary: summarise(items) }
}

/**
 * Turns a plan's decisions into what is to be written: each new unit, item and grade category with its place in the shell and
 * its dates. New things go below what a place holds already; what the shell has already under the same lineage is not written.
 */
export function compilePlan(input: CompileInput): CompiledPlan {
  const { document, target } = input
  const source = sourceOutline(input)
  const carried = carriedOf(source.nodes, new Set(document.carry.leave))
  const there = new Set([...target.nodes, ...target.categories].map(entry => entry.lineage))
  const ledger = planLedger(input, source)
  const dates = new Map(ledger.items.map(item => [item.id, item]))

  const next = new Map<string | null, number>()
  for (const node of target.nodes)
    next.set(node.parent, Math.max(next.get(node.parent) ?? 0, node.position + 1))
  const place = (parent: string | null): number => {
    const position = next.get(parent) ?? 0
    next.set(parent, position + 1)
    return position
  }
  const wanted = source.nodes.filter(node => carried.has(node.lineage))
  const fresh = wanted.filter(node => !there.has(node.lineage))
  const used = new Set(fresh.map(node => node.category))
  const categories = source.categories.filter(
    category =>
      !there.has(category.lineage) && (document.carry.leave.length === 0 || used.has(category.lineage)),
  )
  const placements: Placement[] = [
    ...categories.map((category, at): Placement => ({
      action: 'added',
      entity: 'category',
      lineage: category.lineage,
      parent: null,
      position: target.categories.length + at,
      dates: null,
      from: source.from.get(category.lineage)!,
    })),
    ...fresh.map((node): Placement => ({
      action: 'added',
      entity: node.type,
      lineage: node.lineage,
      parent: node.parent,
      position: place(node.parent),
      dates: dates.get(node.lineage) ?? null,
      from: source.from.get(node.lineage)!,
    })),
  ]
  const items = fresh.filter(node => node.type === 'item')
  const byKind: Partial<Record<ItemKind, number>> = {}
  for (const kind of itemKinds) {
    const count = items.filter(node => node.kind === kind).length
    if (count > 0) byKind[kind] = count
  }
  const count = (nodes: readonly OutlineNode[], type: 'unit' | 'item') =>
    nodes.filter(node => node.type === type).length
  return {
    placements,
    effect: {
      added: {
        units: fresh.length - items.length,
        items: items.length,
        categories: categories.length,
        byKind,
      },
      replaced: placements.filter(entry => entry.action === 'replaced').length,
      cleared: placements.filter(entry => entry.action === 'cleared').length,
      already: count(wanted, 'item') - items.length,
      leftBehind: count(source.nodes, 'item') - count(wanted, 'item'),
      kept: { units: count(target.nodes, 'unit'), items: count(target.nodes, 'item') },
      // Only the dates that will be written: those of items the shell does not have yet.
      dates: summarise(items.flatMap(node => dates.get(node.lineage) ?? [])),
    },
  }
}
