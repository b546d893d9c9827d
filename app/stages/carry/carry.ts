import { computed, type Ref } from 'vue'
import { itemKinds } from '~~/core/course/model'
import { subtree, type OutlineNode } from '~~/core/course/outline'

/** How many items there are, and how many of them come across. */
export interface CarryCount {
  items: number
  carried: number
}
/** Nodes whose title or kind holds every word, with the units they stand in. */
export function nodesWithWords(nodes: readonly OutlineNode[], text: string): readonly OutlineNode[] {
  const words = text.toLowerCase().split(/\s+/).filter(Boolean)
  if (words.length === 0) return nodes
  const hits = new Set<string | null>()
  for (const { title, kind, lineage, unit } of nodes) {
    const searched = `${title} ${kind ?? ''}`.toLowerCase()
    if (!words.every(word => searched.includes(word))) continue
    hits.add(lineage)
    hits.add(unit)
  }
  return nodes.filter(node => hits.has(node.lineage))
}
const countOf = (nodes: readonly OutlineNode[], carried: ReadonlySet<string>): CarryCount => {
  const items = nodes.filter(node => node.type === 'item')
  return { items: items.length, carried: items.filter(node => carried.has(node.lineage)).length }
}
/** Counts for every unit, of all that lies below it. */
export function countsBelow(
  nodes: readonly OutlineNode[],
  carried: ReadonlySet<string>,
): Map<string, CarryCount> {
  const byLineage = new Map(nodes.map(node => [node.lineage, node]))
  const units = nodes.filter(node => node.type === 'unit')
  return new Map(
    units.map(unit => {
      const below = subtree(nodes, unit.lineage).flatMap(lineage => byLineage.get(lineage) ?? [])
      return [unit.lineage, countOf(below, carried)]
    }),
  )
}
/** Counts for every kind that there is. */
export const countsByKind = (nodes: readonly OutlineNode[], carried: ReadonlySet<string>) =>
  itemKinds
    .map(kind => {
      const ofKind = nodes.filter(node => node.kind === kind)
      return { kind, ...countOf(ofKind, carried) }
    })
    .filter(({ items }) => items > 0)

/** Some, and not all of them, come across. */
export const isPartly = (count: CarryCount | undefined): boolean =>
  count !== undefined && count.carried > 0 && count.carried < count.items
/** Whether taking the box should carry: where not everything below comes yet, everything should. */
export const shouldCarry = (count: CarryCount | undefined, wanted: boolean): boolean =>
  count && count.carried < count.items ? true : wanted

/** A row of the Carry stage. */
export interface CarryRow {
  node: OutlineNode
  carried: boolean
  below: CarryCount | undefined
  already: boolean
  /** Of several sources: which one it comes from, where it is not the first. */
  from: string | null
}
interface Rows {
  nodes: Ref<readonly OutlineNode[]>
  text: Ref<string>
  carried: Ref<ReadonlySet<string>>
  already: Ref<ReadonlySet<string>>
  from: (lineage: string) => string | null
}
export function useCarryRows({ nodes, text, carried, already, from }: Rows) {
  const below = computed(() => countsBelow(nodes.value, carried.value))
  return computed(() =>
    nodesWithWords(nodes.value, text.value).map((node): CarryRow => ({
      node,
      carried: carried.value.has(node.lineage),
      below: below.value.get(node.lineage),
      already: already.value.has(node.lineage),
      from: from(node.lineage),
    })),
  )
}
