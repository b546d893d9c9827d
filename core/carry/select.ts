import type { OutlineNode } from '../course/outline'

type Node = Pick<OutlineNode, 'lineage' | 'parent' | 'type' | 'depth'>

/**
 * What comes across, given the lineage keys that are left behind. An item is left with the item it is nested in; a unit comes
 * if anything in it comes, or if it holds no items and is not left itself. `nodes` are in course order.
 */
export function carriedOf(nodes: readonly Node[], leave: ReadonlySet<string>): Set<string> {
  const carried = new Set<string>()
  const byLineage = new Map(nodes.map(node => [node.lineage, node]))
  const holdsItems = new Set<string>()
  const above = function* (node: Node): Generator<Node> {
    for (
      let at = node.parent === null ? undefined : byLineage.get(node.parent);
      at;
      at = at.parent === null ? undefined : byLineage.get(at.parent)
    )
      yield at
  }
  for (const node of nodes) {
    if (node.type !== 'item') continue
    const over = [...above(node)]
    for (const each of over) holdsItems.add(each.lineage)
    if (leave.has(node.lineage) || over.some(each => each.type === 'item' && leave.has(each.lineage)))
      continue
    for (const each of [node, ...over]) carried.add(each.lineage)
  }
  for (const node of nodes) {
    if (node.type !== 'unit' || holdsItems.has(node.lineage) || leave.has(node.lineage)) continue
    for (const each of [node, ...above(node)]) carried.add(each.lineage)
  }
  return carried
}

/** Takes a node with all below it, or leaves it; returns the new list of what is left. */
export function setCarried(
  nodes: readonly Node[],
  leave: readonly string[],
  lineages: readonly string[],
  carries: boolean,
): string[] {
  const left = new Set(leave)
  for (const lineage of lineages) {
    if (carries) left.delete(lineage)
    else left.add(lineage)
  }
  if (carries) {
    // An item comes only with the items it is nested in.
    const byLineage = new Map(nodes.map(node => [node.lineage, node]))
    for (const lineage of lineages)
      for (
        let at = byLineage.get(lineage);
        at;
        at = at.parent === null ? undefined : byLineage.get(at.parent)
      )
        if (at.type === 'item') left.delete(at.lineage)
  }
  return nodes.filter(node => left.has(node.lineage)).map(node => node.lineage)
}
