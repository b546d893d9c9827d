import { inCourseOrder, type OutlineNode } from '../course/outline'

export interface SourceContent {
  readonly nodes: readonly OutlineNode[]
  readonly categories: readonly { readonly lineage: string; readonly title: string }[]
}
export interface MergedSources {
  readonly nodes: readonly OutlineNode[]
  readonly categories: readonly { readonly lineage: string; readonly title: string }[]
  /** Which source a thing comes from, by its place in the list. */
  readonly from: ReadonlyMap<string, number>
}

/**
 * Several sources as one outline, in their order: a master first, then one's own extras. What two of them hold under the same lineage comes
 * once, from the first; what a later one has in a unit of an earlier goes below what that unit holds.
 */
export function mergeSources(sources: readonly SourceContent[]): MergedSources {
  const from = new Map<string, number>()
  const [only] = sources
  if (only && sources.length === 1) {
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
