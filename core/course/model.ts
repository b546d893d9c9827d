import type { ItemFieldValues } from './fields'
import type { WallTime } from '../calendar/schema'
import type { Grace } from '../grading/grace'
import type { TenThousandths } from '../grading/points'
import type { CategoryRules, GradeRules } from '../grading/rules'
import type { Furnishing, Rubric, WorkGroup } from './furniture'
import type { ItemDates } from './dates'
import { itemKindDefinitions } from './kinds'

export type ItemKind = keyof typeof itemKindDefinitions
/** Every kind of item, in the order shown. */
export const itemKinds = Object.keys(itemKindDefinitions) as ItemKind[]
/** What a kind is called, for one and for many. */
export const kindWords = (kind: ItemKind): readonly [one: string, many: string] =>
  itemKindDefinitions[kind].words

/** Listed: date and points are seen, the content is not yet. */
export const itemStates = ['visible', 'hidden', 'listed', 'deleted'] as const
export type ItemState = (typeof itemStates)[number]

/** Who put something where it is: a person, the department's template, or a run. */
export const makers = ['person', 'template', 'run'] as const
export type MadeBy = (typeof makers)[number]

/** What must be so before an item opens: another was seen or handed in, or has so many points (text, `7.5`) at least. */
export const releaseNeeds = ['seen', 'handed-in', 'points'] as const
export interface Release {
  /** Lineage key of the other item. */
  readonly after: string
  readonly needs: (typeof releaseNeeds)[number]
  readonly least: string | null
}

/** The immutable content of an item. Its bytes are read from where they lie when they are asked for, as often as they are, always the same. */
export interface Body {
  readonly mediaType: string
  readonly chunks: () => AsyncIterable<Uint8Array>
}
export async function bytesOf(body: Body): Promise<Uint8Array> {
  const parts: Uint8Array[] = []
  for await (const part of body.chunks()) parts.push(part)
  const [only] = parts
  if (only && parts.length === 1) return only
  const whole = new Uint8Array(parts.reduce((sum, part) => sum + part.length, 0))
  let at = 0
  for (const part of parts) {
    whole.set(part, at)
    at += part.length
  }
  return whole
}

export interface UnitNode {
  readonly type: 'unit'
  readonly lineage: string
  /** The identifier it has in the file it came from. */
  readonly identifier: string
  readonly title: string
  readonly opens?: WallTime | null
  readonly fixed?: boolean
  readonly children: readonly CourseNode[]
}
export interface ItemNode extends Readonly<Partial<ItemFieldValues>> {
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
  /** Lineage keys of the rubric it is marked by, and of the group it is for; left out: none, everyone. */
  readonly rubric?: string | null
  readonly group?: string | null
  readonly release?: readonly Release[]
  /** An empty place, and what it can hold. */
  readonly holds?: readonly ItemKind[] | null
  readonly fixed?: boolean
  /** Settings that come across exactly (the address of a web link, attempts, formats …). */
  readonly settings: Readonly<Record<string, unknown>>
  readonly dates: Readonly<ItemDates>
  /** The grading period of its term that it is filed under, by name. */
  readonly gradingPeriod?: string | null
  readonly children: readonly CourseNode[]
}
export type CourseNode = UnitNode | ItemNode

export interface GradeCategory {
  readonly lineage: string
  readonly identifier: string
  readonly title: string
  readonly weight: TenThousandths | null
  readonly rules?: CategoryRules
  readonly fixed?: boolean
}

/** A course's content in its own order: a tree of units and items. Nothing in it is about students. */
export interface CourseContent {
  readonly title: string
  /** Whether a template's department made it, and not yet a person. */
  readonly madeBy?: MadeBy
  /** Language of the content (BCP 47), where the source says it. */
  readonly language?: string | null
  readonly nodes: readonly CourseNode[]
  readonly categories: readonly GradeCategory[]
  readonly grading?: GradeRules | null
  readonly grace?: Grace | null
  readonly rubrics?: readonly Rubric[]
  readonly groups?: readonly WorkGroup[]
  readonly furniture?: readonly Furnishing[]
}

/** All items of a tree in course order, each with the nearest unit above it. */
export function* itemsInOrder(
  nodes: readonly CourseNode[],
  unit: UnitNode | null = null,
): Generator<{ item: ItemNode; unit: UnitNode | null }> {
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
  return nodes.map(node => {
    const next = node.type === 'unit' ? node : change(node)
    return { ...next, children: mapItems(next.children, change) }
  })
}
/** The same tree with every unit changed by `change`. */
export function mapUnits(nodes: readonly CourseNode[], change: (unit: UnitNode) => UnitNode): CourseNode[] {
  return nodes.map(node => {
    const next = node.type === 'unit' ? change(node) : node
    return { ...next, children: mapUnits(next.children, change) }
  })
}
