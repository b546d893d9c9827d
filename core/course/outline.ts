import type { TenThousandths } from '../grading/points'
import type { ItemDates } from './dates'
import type { ItemFieldValues } from './fields'
import type { ItemKind, ItemState, MadeBy, Release } from './model'

/** A unit or item as it stands in a list of rows: its parent (unit or item) and its place among that parent's children. */
export interface PlacedRow {
  readonly lineage: string
  readonly parent: string | null
  readonly position: number
  readonly type: 'unit' | 'item'
}

/** A unit or item in course order, with how deep it lies and the nearest unit above it. */
export interface OutlineNode extends PlacedRow, Readonly<ItemDates>, Readonly<ItemFieldValues> {
  readonly depth: number
  readonly unit: string | null
  readonly title: string
  /** Null for a unit. */
  readonly kind: ItemKind | null
  readonly state: ItemState
  readonly exam: boolean
  readonly points: TenThousandths | null
  /** Lineage keys of what it is graded under, and by; and of the group it is for, where it is not for everyone. */
  readonly category: string | null
  readonly rubric: string | null
  readonly group: string | null
  readonly release: readonly Release[]
  /** The identifier it had in the file it came from. */
  readonly identifier: string | null
  /** Hash of its body, and how many bytes that is. */
  readonly body: string | null
  readonly size: number
  /** Its body is a page (HTML), of which a part can be taken. */
  readonly isHtml: boolean
  /** Hash of its settings; null where it has none. */
  readonly settings: string | null
  /** What an empty place of a template can hold; null for whatever is no empty place. */
  readonly holds: readonly ItemKind[] | null
  /** The institution's: no rollover changes it. */
  readonly fixed: boolean
  readonly madeBy: MadeBy
  /** The grading period of its term that an item is filed under, by name. */
  readonly gradingPeriod: string | null
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
