import type { Meeting } from '../calendar/schema'
import type { Term } from '../calendar/term'
import type { ZoneRules } from '../calendar/zone'
import { carriedOf } from '../carry/select'
import type { OutlineNode } from '../course/outline'
import { itemKinds, type ItemKind } from '../course/model'
import { planDates, summarise, type PlanInput, type PlannedItem, type Summary } from '../dates/plan'
import type { PlanDocument } from './document'

export interface Category { readonly lineage: string, readonly title: string }
export interface CompileInput {
  document: PlanDocument
  source: { term: Term, meetings: readonly Meeting[], nodes: readonly OutlineNode[], categories: readonly Category[] }
  target: { term: Term, meetings: readonly Meeting[], nodes: readonly OutlineNode[], categories: readonly Category[] }
  zone: ZoneRules
}
/** One thing a run does in the shell. It only adds so far; replacing and clearing come with Carry and Clear. */
export interface Placement { action: 'added' | 'replaced' | 'cleared', entity: 'unit' | 'item' | 'category', lineage: string, parent: string | null, position: number, dates: PlannedItem | null }
/** What a run would do, in numbers. Slots and items are counted; `byKind` counts added items. */
export interface Effect {
  added: { units: number, items: number, categories: number, byKind: Partial<Record<ItemKind, number>> }
  replaced: number
  cleared: number
  /** Items of the plan that the shell has already (from an earlier run): left as they are there. */
  already: number
  leftBehind: number
  /** Items and units that are in the shell and stay untouched. */
  kept: { units: number, items: number }
  dates: Summary
}
export interface CompiledPlan { placements: Placement[], effect: Effect }

/** A plan's carried items with its rules, as the date engine takes them. */
export function ledgerInput({ document, source, target, zone }: CompileInput): PlanInput {
  const carried = carriedOf(source.nodes, new Set(document.carry.leave))
  return {
    source: source.term,
    target: target.term,
    sourceMeetings: source.meetings,
    targetMeetings: target.meetings,
    zone,
    rules: document.dates,
    items: source.nodes.filter(node => node.type === 'item' && carried.has(node.lineage)).map(node =>
      ({ id: node.lineage, kind: node.kind!, unit: node.unit, opens: node.opens, due: node.due, closes: node.closes })),
  }
}
/** The dates of a plan's carried items. The page shows these while one plans; Run computes them again. */
export const planLedger = (input: CompileInput): ReturnType<typeof planDates> => planDates(ledgerInput(input))

/**
 * Turns a plan's decisions into what is to be written: each new unit, item and grade category with its place in the shell and
 * its dates. New things go below what a place holds already; what the shell has already under the same lineage is not written.
 */
export function compilePlan(input: CompileInput): CompiledPlan {
  const { document, source, target } = input
  const carried = carriedOf(source.nodes, new Set(document.carry.leave))
  const there = new Set([...target.nodes, ...target.categories].map(entry => entry.lineage))
  const ledger = planLedger(input)
  const dates = new Map(ledger.items.map(item => [item.id, item]))

  const next = new Map<string | null, number>()
  for (const node of target.nodes) next.set(node.parent, Math.max(next.get(node.parent) ?? 0, node.position + 1))
  const place = (parent: string | null): number => {
    const position = next.get(parent) ?? 0
    next.set(parent, position + 1)
    return position
  }
  const wanted = source.nodes.filter(node => carried.has(node.lineage))
  const fresh = wanted.filter(node => !there.has(node.lineage))
  const used = new Set(fresh.map(node => node.category))
  const categories = source.categories.filter(category => !there.has(category.lineage) && (document.carry.leave.length === 0 || used.has(category.lineage)))
  const placements: Placement[] = [
    ...categories.map((category, at): Placement => ({ action: 'added', entity: 'category', lineage: category.lineage, parent: null, position: target.categories.length + at, dates: null })),
    ...fresh.map((node): Placement => ({ action: 'added', entity: node.type, lineage: node.lineage, parent: node.parent, position: place(node.parent), dates: dates.get(node.lineage) ?? null })),
  ]
  const items = fresh.filter(node => node.type === 'item')
  const byKind: Partial<Record<ItemKind, number>> = {}
  for (const kind of itemKinds) {
    const count = items.filter(node => node.kind === kind).length
    if (count > 0) byKind[kind] = count
  }
  const count = (nodes: readonly OutlineNode[], type: 'unit' | 'item') => nodes.filter(node => node.type === type).length
  return {
    placements,
    effect: {
      added: { units: fresh.length - items.length, items: items.length, categories: categories.length, byKind },
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
