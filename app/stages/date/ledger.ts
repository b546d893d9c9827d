import type { OutlineNode } from '~~/core/course/outline'
import type { Outcome, PlannedItem } from '~~/core/dates/plan'
import { slotNames, type SlotName } from '~~/core/dates/rule'
import { usePlan } from '../plan'

export interface LedgerItem {
  type: 'item'
  node: OutlineNode
  planned: PlannedItem
  outcomes: Record<SlotName, Outcome>
  settle: boolean
  held: boolean
}
export interface LedgerUnit {
  type: 'unit'
  lineage: string
  title: string
  number: number
  dated: number
  undated: number
}
export type LedgerRow = LedgerItem | LedgerUnit

/** The ledger's rows in course order: a head for each unit, then its carried items with old and new dates. */
export function useLedger(withUndated: Ref<boolean>) {
  const store = usePlan()
  const items = computed((): LedgerItem[] =>
    store.nodes.flatMap(node => {
      const planned = store.planned.get(node.lineage)
      if (!planned) return []
      const outcomes = Object.fromEntries(
        slotNames.map(slot => [slot, planned.slots[slot].outcome]),
      ) as Record<SlotName, Outcome>
      return [
        {
          type: 'item',
          node,
          planned,
          outcomes,
          settle: slotNames.some(slot => outcomes[slot] === 'settle'),
          held: planned.flags.includes('set-by-hand'),
        },
      ]
    }),
  )
  const isDated = (item: LedgerItem): boolean => slotNames.some(slot => item.outcomes[slot] !== 'empty')
  const rows = computed((): LedgerRow[] => {
    const heads = new Map(
      store.nodes
        .filter(node => node.type === 'unit')
        .map((node, at) => [node.lineage, { title: node.title, number: at + 1 }]),
    )
    const byUnit = new Map<string, LedgerItem[]>()
    for (const item of items.value) {
      const key = item.node.unit ?? ''
      const list = byUnit.get(key)
      if (list) list.push(item)
      else byUnit.set(key, [item])
    }
    return [...byUnit].flatMap(([unit, list]): LedgerRow[] => {
      const dated = list.filter(isDated)
      const shown = withUndated.value ? list : dated
      if (!shown.length) return []
      const head = heads.get(unit)
      return [
        {
          type: 'unit',
          lineage: unit || 'outside',
          title: head?.title ?? 'Outside the units',
          number: head?.number ?? 0,
          dated: dated.length,
          undated: list.length - dated.length,
        },
        ...shown,
      ]
    })
  })
  return { items, rows }
}
