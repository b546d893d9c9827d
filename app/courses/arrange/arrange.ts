import type { OutlineNode } from '~~/core/course/outline'

/** What stands in a unit, in its order; null: outside the units. */
export function childrenIn(nodes: readonly OutlineNode[], parent: string | null): OutlineNode[] {
  const known = new Set(nodes.map(node => node.lineage))
  return nodes.filter(
    node => (node.parent !== null && known.has(node.parent) ? node.parent : null) === parent,
  )
}
/** Where something stands once it is a place further up or down in its unit; null where there is no such place. */
export function moveAmong(
  nodes: readonly OutlineNode[],
  node: OutlineNode,
  step: -1 | 1,
): { parent: string | null; after: string | null } | null {
  const siblings = childrenIn(nodes, node.parent)
  const at = siblings.findIndex(each => each.lineage === node.lineage)
  const passed = siblings[at + step]
  if (at < 0 || !passed) return null
  const after = step > 0 ? passed : siblings[at - 2]
  return { parent: node.parent, after: after?.lineage ?? null }
}
