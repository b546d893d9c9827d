import type { TenThousandths } from '../grading/points'
import type { ItemDates } from './dates'
import type { ItemKind, ItemState } from './model'

/** A unit or item as it stands in a list of rows: its parent (unit or item) and its place among that parent's children. */
export interface PlacedRow {
  readonly lineage: string
  readonly parent: string | null
  readonly position: number
  readonly type: 'unit' | 'item'
}

/** A unit or item in course order, with how deep it lies and the nearest unit above it. */
export interface OutlineNode extends PlacedRow, Readonly<ItemDates> {
  readonly depth: number
  readonly unit: string | null
  readonly title: string
  /** Null for a unit. */
  readonly kind: ItemKind | null
  readonly state: ItemState
  readonly exam: boolean
  readonly points: TenThousandths | null
  readonly category: string | null
}

/** Puts rows into course order, depth first. A row whose parent is not there stands at the top. */
export function inCourseOrder<R extends PlacedRow>(
  rows: readonly R[],
): (R & { depth: number; unit: string | null })[] {
  const known = new Set(rows.map(row => row.lineage))
  const children = new Map<string | null, R[]>()
  for (const row of rows) {
    const parent = row.parent !== null && known.has(row.parent) ? row.parent : null
    const list = children.get(parent)
    if (list) list.push(row)
    else children.set(parent, [row])
  }
  for (const list of children.values()) list.sort((a, b) => a.position - b.position)
  const ordered: (R & { depth: number; unit: string | null })[] = []
  const walk = (parent: string | null, depth: number, unit: string | null): void => {
    for (const row of children.get(parent) ?? []) {
      ordered.push({ ...row, depth, unit })
      walk(row.lineage, depth + 1, row.type === 'unit' ? row.lineage : unit)
    }
  }
  walk(null, 0, null)
  return ordered
}

/** Lineage keys of a node and everything below it. `nodes` are in course order. */
export function subtree(nodes: readonly Pick<OutlineNode, 'lineage' | 'depth'>[], lineage: string): string[] {
  const at = nodes.findIndex(node => node.lineage === lineage)
  const node = nodes[at]
  if (!node) return []
  const next = nodes.findIndex((other, index) => index > at && other.depth <= node.depth)
  return nodes.slice(at, next < 0 ? undefined : next).map(each => each.lineage)
}
