import { datesOf, type DateField, type ItemDates } from '../course/dates'
import type { OutlineNode } from '../course/outline'
import type { PlannedItem } from '../dates/plan'
import { sentence } from '../dates/reasons'
import type { Deadline } from '../formats/icalendar/write'
import { heldWords } from '../formats/sheet/plan-dates'
import { pointsText } from '../grading/points'

export interface TitledItem extends ItemDates {
  lineage: string
  title: string
  kind: string
  unitTitle: string
  points: string
}

/** Whether a table of dates has a row for it: every item, and each unit that opens on a date, or did. */
export const isInDateTable = (
  { type, opens }: Pick<OutlineNode, 'type' | 'opens'>,
  planned: Readonly<ItemDates> | null = null,
): boolean => type === 'item' || opens !== null || (planned?.opens ?? null) !== null

/** What students may see, now or once it opens: not what is hidden, nor what stands in a unit that is. `stateOf`: how a thing stands, or arrives. */
export function seenByStudents(
  nodes: readonly OutlineNode[],
  stateOf: (node: OutlineNode) => OutlineNode['state'] = node => node.state,
): OutlineNode[] {
  const hidden = new Set<string>()
  for (const node of nodes)
    if (stateOf(node) === 'hidden' || (node.parent !== null && hidden.has(node.parent)))
      hidden.add(node.lineage)
  return nodes.filter(node => !hidden.has(node.lineage))
}
/** The items of an outline, and the units that open on a date, each with its unit's title. */
export function itemsWithDates(
  nodes: readonly OutlineNode[],
  planned: ReadonlyMap<string, PlannedItem> = new Map(),
): TitledItem[] {
  const titles = new Map(nodes.map(node => [node.lineage, node.title]))
  return nodes
    .filter(node => isInDateTable(node, planned.get(node.lineage)))
    .map(node => ({
      lineage: node.lineage,
      title: node.title,
      kind: node.kind ?? 'unit',
      unitTitle: node.unit === null ? '' : (titles.get(node.unit) ?? ''),
      points: node.points === null ? '' : pointsText(node.points),
      ...datesOf(node),
    }))
}

/** The date of an item that tells most of it: when it is due, else when it opens. */
const tellingField = (is: Readonly<ItemDates>, was: Readonly<ItemDates>): DateField =>
  (['due', 'opens'] as const).find(field => is[field] !== null || was[field] !== null) ?? 'closes'

const cell = (wall: string | null): string => (wall === null ? '' : wall.replace('T', ' '))

export interface DateTable {
  header: string[]
  rows: string[][]
}
/**
 * Dates as a table in course order: with a plan's result, old and new side by side with why; without one, as they stand. `plan`: its id, by which
 * its sheet is known again (`core/formats/sheet/plan-dates.ts`); `timeZone`: whose clock tells them.
 */
export function dateTable(
  nodes: readonly OutlineNode[],
  planned: readonly PlannedItem[] | null,
  { plan = '', timeZone = '' }: { plan?: string; timeZone?: string } = {},
): DateTable {
  const byId = new Map(planned?.map(item => [item.id, item]) ?? [])
  const items = itemsWithDates(nodes, byId)
  const first = ['Unit', 'Item', 'Kind', 'Points']
  const start = (item: TitledItem) => [item.unitTitle, item.title, item.kind, item.points]
  if (!planned)
    return {
      header: [...first, 'Opens', 'Due', 'Closes', 'Time zone', 'Key'],
      rows: items.map(item => [
        ...start(item),
        cell(item.opens),
        cell(item.due),
        cell(item.closes),
        timeZone,
        item.lineage,
      ]),
    }
  return {
    header: [
      ...first,
      'Opened',
      'Was due',
      'Closed',
      'Opens',
      'Due',
      'Closes',
      'Time zone',
      'Held',
      'Flags',
      'Why',
      'Key',
      'Plan',
    ],
    rows: items
      .filter(item => byId.has(item.lineage))
      .map(item => {
        const is = byId.get(item.lineage)!
        const field = tellingField(is, item)
        const why = is.crossed[field].reasons.map(sentence).join(' ')
        return [
          ...start(item),
          cell(item.opens),
          cell(item.due),
          cell(item.closes),
          cell(is.opens),
          cell(is.due),
          cell(is.closes),
          timeZone,
          heldWords[is.flags.includes('set-by-hand') ? 0 : 1],
          is.flags.join(' '),
          why,
          item.lineage,
          plan,
        ]
      }),
  }
}

/** What is due, as deadlines for a calendar. */
export const deadlinesOf = (courseId: string, courseName: string, items: readonly TitledItem[]): Deadline[] =>
  items
    .filter(item => item.due !== null)
    .map(item => ({
      uid: `${item.lineage}.${courseId}@northtide`,
      title: `${item.title} due`,
      at: item.due!,
      description: [courseName, item.unitTitle, item.points && `${item.points} points`]
        .filter(Boolean)
        .join('\n'),
      categories: [item.kind],
    }))
