import type { OutlineNode } from '../course/outline'
import { isBefore, type CarriedBase } from './base'

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

/** What of a shell decides what stays behind unless it is asked for. */
export interface ShellSeen {
  readonly nodes: readonly Pick<OutlineNode, 'lineage'>[]
  readonly bases: readonly CarriedBase[]
  /** Lineage keys of what somebody deleted in the shell. */
  readonly deleted: ReadonlySet<string>
  /** Lineage keys of what goes into another's place, as it is decided now. */
  readonly goesInto?: ReadonlySet<string>
}
/** Why something stays behind unless one asks for it. */
export type StaysWhy = 'announced' | 'deleted' | 'empty' | 'left-before' | 'removed-here' | 'went-into'
/**
 * What stays behind unless it is asked for, by lineage: what was announced, what had been deleted in the source, places that nobody ever
 * filled, what was left behind by an earlier run, and what was removed from the shell since.
 */
export function staysUnasked(
  nodes: readonly Pick<OutlineNode, 'lineage' | 'parent' | 'kind' | 'state' | 'holds'>[],
  { nodes: inShell, bases, deleted, goesInto }: ShellSeen,
): Map<string, StaysWhy> {
  const there = new Set(inShell.map(node => node.lineage))
  const before = new Map(bases.filter(base => base.how !== 'template').map(base => [base.source, base]))
  const stays = new Map<string, StaysWhy>()
  for (const { lineage, parent, kind, state, holds } of nodes) {
    const why = (): StaysWhy | null => {
      const base = before.get(lineage)
      if (deleted.has(lineage) && !there.has(lineage)) return 'removed-here'
      if (base && isBefore(base)) {
        if (!there.has(base.lineage)) return 'removed-here'
        // Gone from the source: what came of it stays as it is (docs/places.md, section 3).
        return state === 'deleted' ? 'deleted' : null
      }
      if (parent !== null && stays.get(parent) === 'removed-here') return 'removed-here'
      if (base?.how === 'left') return 'left-before'
      if (base?.how === 'into' && !goesInto?.has(lineage)) return 'went-into'
      if (state === 'deleted') return 'deleted'
      if (holds) return 'empty'
      return kind === 'announcement' ? 'announced' : null
    }
    const found = why()
    if (found) stays.set(lineage, found)
  }
  return stays
}
/** What is decided of what comes: what stays behind of that which comes unasked, and what was asked for of that which does not. */
export interface Chosen {
  readonly leave: readonly string[]
  readonly take: readonly string[]
}
/** The lineage keys of all that is left behind. */
export function leftBehind({ leave, take }: Chosen, stays: ReadonlyMap<string, StaysWhy>): Set<string> {
  const asked = new Set(take)
  return new Set([...leave, ...[...stays.keys()].filter(lineage => !asked.has(lineage))])
}
/** Takes things with all below them, or leaves them: what is decided from then on. */
export function choose(
  nodes: readonly Node[],
  stays: ReadonlyMap<string, StaysWhy>,
  chosen: Chosen,
  lineages: readonly string[],
  carries: boolean,
): { leave: string[]; take: string[] } {
  const left = setCarried(nodes, [...leftBehind(chosen, stays)], lineages, carries)
  const isLeft = new Set(left)
  return {
    leave: left.filter(lineage => !stays.has(lineage)),
    take: nodes
      .filter(node => stays.has(node.lineage) && !isLeft.has(node.lineage))
      .map(node => node.lineage),
  }
}
