import type { ZoneRules } from '../calendar/zone'
import type { Roster } from '../formats/oneroster/read'
import { lineItemSayings } from './from-files'
import type { SheetSaid } from './from-sheet'
import type { GatheredItem, Saying } from './saying'

/** Line items of a bundle, with the classes that have any. */
export interface LineItemTables extends Pick<Roster, 'lineItems' | 'categories' | 'academicSessions'> {
  readonly classes: readonly { readonly key: string; readonly title: string }[]
}
/** What one file has to say of a course: kept with what was found in it, so that files are put together without reading them again. */
export type Contribution =
  | { readonly as: 'package'; readonly items: readonly GatheredItem[] }
  | { readonly as: 'line-items'; readonly tables: LineItemTables }
  | { readonly as: 'course-json'; readonly classKey: string; readonly sayings: readonly Saying[] }
  | ({ readonly as: 'sheet' } & SheetSaid)

/** The line items that are asked for, with what they name; null where no class has any. */
export function lineItemTables({
  lineItems,
  categories,
  academicSessions,
  classes,
}: Roster): LineItemTables | null {
  const named = new Set(lineItems.map(row => row.classSourcedId))
  if (named.size === 0) return null
  return {
    lineItems,
    categories,
    academicSessions,
    classes: classes
      .filter(({ sourcedId }) => named.has(sourcedId))
      .map(({ sourcedId, title }) => ({ key: sourcedId, title })),
  }
}
/** The class of a bundle that is meant: the wanted one, where it is there; of none in particular, the one whose line items name most of the items. */
export function classOf(
  { lineItems, classes }: LineItemTables,
  items: readonly GatheredItem[],
  wanted: string | null = null,
): string | null {
  if (wanted !== null) return classes.some(({ key }) => key === wanted) ? wanted : null
  const known = new Set(items.flatMap(({ identifier, resource, title }) => [identifier, resource, title]))
  const counts = new Map<string, number>()
  for (const { classSourcedId, sourcedId, title } of lineItems)
    if (known.has(sourcedId) || known.has(title))
      counts.set(classSourcedId, (counts.get(classSourcedId) ?? 0) + 1)
  const best = [...counts].sort(([, a], [, b]) => b - a)[0]
  return best?.[0] ?? (classes.length === 1 ? (classes[0]?.key ?? null) : null)
}
export interface SayingsAsked {
  readonly items: readonly GatheredItem[]
  readonly zone: ZoneRules
  /** The class that the course is, where it is known. */
  readonly classKey?: string | null
  /** Of a table that can be read with the day or with the month first: in the order that is not the likelier. */
  readonly isOtherOrder?: boolean
}
/** What a file says of the items of a course. */
export function sayingsOf(
  file: string,
  contribution: Contribution,
  { items, zone, classKey, isOtherOrder = false }: SayingsAsked,
): readonly Saying[] {
  switch (contribution.as) {
    case 'package':
      return []
    case 'course-json':
      return contribution.sayings
    case 'sheet':
      return ((isOtherOrder && contribution.other) || contribution).sayings
    case 'line-items': {
      const key = classOf(contribution.tables, items, classKey)
      return key === null ? [] : lineItemSayings(file, contribution.tables, key, zone)
    }
  }
}
