import { itemKinds, type ItemKind } from '../course/model'
import type { OutlineNode } from '../course/outline'
import type { PlannedItem, Summary } from '../dates/plan'

/** One thing a run does in the shell. It only adds so far; replacing and clearing come with Carry and Clear. */
export interface Placement {
  action: 'added' | 'replaced' | 'cleared'
  entity: 'unit' | 'item' | 'category'
  lineage: string
  parent: string | null
  position: number
  dates: PlannedItem | null
  /** Which source it comes from, by its place among them. */
  from: number
}

/** What a run would do, in numbers. Dates and items are counted; `byKind` counts added items. */
export interface Effect {
  added: { units: number; items: number; categories: number; byKind: Partial<Record<ItemKind, number>> }
  replaced: number
  cleared: number
  /** Items of the plan that the shell has already (from an earlier run): left as they are there. */
  already: number
  /** Items of the plan that somebody deleted in the shell: they stay away. */
  deletedThere: number
  leftBehind: number
  /** Items and units that are in the shell and stay untouched. */
  kept: { units: number; items: number }
  dates: Summary
}
/** What the parts of a plan count their effect from. */
export interface Placements {
  readonly source: readonly OutlineNode[]
  readonly target: readonly OutlineNode[]
  /** Units and items of the sources that the plan carries, and those of them that the shell does not have yet. */
  readonly wanted: readonly OutlineNode[]
  readonly fresh: readonly OutlineNode[]
  /** Those of them that stay away because the shell's was deleted. */
  readonly deleted: readonly OutlineNode[]
  readonly categories: readonly unknown[]
  readonly placements: readonly Placement[]
  /** Where each carried item's dates land, by lineage. */
  readonly dates: ReadonlyMap<string, PlannedItem>
  readonly count: typeof count
}

function byKind(nodes: readonly OutlineNode[]): Partial<Record<ItemKind, number>> {
  const counts = itemKinds.map(kind => [kind, nodes.filter(node => node.kind === kind).length] as const)
  return Object.fromEntries(counts.filter(([, n]) => n > 0))
}
const ofType = (nodes: readonly OutlineNode[], type: 'unit' | 'item'): number =>
  nodes.filter(node => node.type === type).length
/** How many units or items some nodes are; of items, by kind. */
export const count = Object.assign(ofType, { byKind })
