import { inCourseOrder, type OutlineNode } from '../course/outline'
import type { CategoryLine } from '../grading/rules'

export interface SourceContent {
  readonly nodes: readonly OutlineNode[]
  readonly categories: readonly CategoryLine[]
}
export interface MergedSources {
  readonly nodes: readonly OutlineNode[]
  readonly categories: readonly CategoryLine[]
  /** Which source a thing comes from, by its place in the list. */
  readonly from: ReadonlyMap<string, number>
}

const wordsOf = ({ kind, title }: OutlineNode): string =>
  `${kind} ${title.toLowerCase().replace(/\s+/g, ' ').trim()}`
/** So much of the smaller of two sources must stand in the other, under keys of its own, to be called the same content. */
const enough = { share: 0.7, items: 5 }

/**
 * Sources that hold what an earlier one holds already, although it does not come once: a course beside its own package, whose items
 * have other lineage keys. `items`: how many have an item of the same kind and title there.
 */
export function sameContent(
  sources: readonly Pick<SourceContent, 'nodes'>[],
): { at: number; as: number; items: number; of: number }[] {
  const itemsOf = sources.map(({ nodes }) => nodes.filter(node => node.type === 'item'))
  return itemsOf.flatMap((items, at) => {
    const doubles = itemsOf.slice(0, at).map((earlier, as) => {
      const lineages = new Set(earlier.map(node => node.lineage))
      const words = new Set(earlier.map(wordsOf))
      const own = items.filter(node => !lineages.has(node.lineage))
      const found = own.filter(node => words.has(wordsOf(node))).length
      return { at, as, items: found, of: own.length, smaller: Math.min(own.length, earlier.length) }
    })
    const double = doubles.find(
      ({ items: found, smaller }) => found >= enough.items && found >= enough.share * smaller,
    )
    return double ? [{ at, as: double.as, items: double.items, of: double.of }] : []
  })
}

/**
 * Several sources as one outline, in their order: a master first, then one's own extras. What two of them hold under the same lineage comes
 * once, from the first; what a later one has in a unit of an earlier goes below what that unit holds.
 */
export function mergeSources(sources: readonly SourceContent[]): MergedSources {
  const from = new Map<string, number>()
  const [only, ...others] = sources
  if (only && others.every(({ nodes, categories }) => nodes.length + categories.length === 0)) {
    for (const entry of [...only.nodes, ...only.categories]) from.set(entry.lineage, 0)
    return { nodes: only.nodes, categories: only.categories, from }
  }
  const rows: OutlineNode[] = []
  const categories: SourceContent['categories'][number][] = []
  const next = new Map<string | null, number>()
  sources.forEach((source, at) => {
    const known = new Set(rows.map(row => row.lineage))
    for (const node of source.nodes) {
      if (known.has(node.lineage)) continue
      const position = next.get(node.parent) ?? 0
      next.set(node.parent, position + 1)
      from.set(node.lineage, at)
      rows.push({ ...node, position })
    }
    for (const category of source.categories) {
      if (from.has(category.lineage)) continue
      from.set(category.lineage, at)
      categories.push(category)
    }
  })
  return { nodes: inCourseOrder(rows), categories, from }
}
