import type { TenThousandths } from '../grading/points'
import type { SlotName } from '../dates/rule'

/** What an item can be. In a cartridge an assessment is a quiz, a topic a discussion, an LTI link a tool. */
export const itemKinds = ['assignment', 'quiz', 'discussion', 'page', 'file', 'weblink', 'tool', 'announcement', 'event', 'poll', 'survey', 'attendance', 'recording', 'heading'] as const
export type ItemKind = typeof itemKinds[number]
/** Listed: date and points are seen, the content is not yet. */
export const itemStates = ['visible', 'hidden', 'listed', 'deleted'] as const
export type ItemState = typeof itemStates[number]

/** The immutable content of an item. */
export interface Body { readonly mediaType: string, readonly bytes: Uint8Array }

export interface UnitNode {
  readonly type: 'unit'
  readonly lineage: string
  /** The identifier it has in the file it came from. */
  readonly identifier: string
  readonly title: string
  readonly children: readonly CourseNode[]
}
export interface ItemNode {
  readonly type: 'item'
  readonly lineage: string
  readonly identifier: string
  /** Identifier of the resource behind it, where it has one. */
  readonly resource: string | null
  readonly kind: ItemKind
  readonly title: string
  readonly body: Body | null
  readonly points: TenThousandths | null
  readonly state: ItemState
  readonly exam: boolean
  /** Lineage key of its grade category. */
  readonly category: string | null
  /** Settings that come across exactly (the address of a web link, attempts, formats …). */
  readonly settings: Readonly<Record<string, unknown>>
  readonly slots: Readonly<Partial<Record<SlotName, string>>>
  readonly children: readonly ItemNode[]
}
export type CourseNode = UnitNode | ItemNode

export interface GradeCategory { readonly lineage: string, readonly identifier: string, readonly title: string, readonly weight: TenThousandths | null }

/** A course's content in its own order: a tree of units and items. Nothing in it is about students. */
export interface CourseContent {
  readonly title: string
  readonly nodes: readonly CourseNode[]
  readonly categories: readonly GradeCategory[]
}

/** All items of a tree in course order, each with the nearest unit above it. */
export function* itemsInOrder(nodes: readonly CourseNode[], unit: UnitNode | null = null): Generator<{ item: ItemNode, unit: UnitNode | null }> {
  for (const node of nodes) {
    if (node.type === 'unit') yield* itemsInOrder(node.children, node)
    else {
      yield { item: node, unit }
      yield* itemsInOrder(node.children, unit)
    }
  }
}

/** The same tree with every item changed by `change`. */
export function mapItems(nodes: readonly CourseNode[], change: (item: ItemNode) => ItemNode): CourseNode[] {
  const changed = (item: ItemNode): ItemNode => {
    const next = change(item)
    return { ...next, children: next.children.map(changed) }
  }
  return nodes.map(node => node.type === 'unit' ? { ...node, children: mapItems(node.children, change) } : changed(node))
}
