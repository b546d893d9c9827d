import { dayOf, isoOf, minuteOf, type Day } from '~~/core/calendar/day'
import type { DateField } from '~~/core/course/dates'
import { outOfOrder } from '~~/core/dates/crowding'
import type { Outcome } from '~~/core/dates/flags'
import type { Years } from '~~/core/calendar/zone'
import { counted, dayText, momentText } from '~~/core/dates/words'
import { markOf, unitMark, type Mark } from '~/composables/marks'
import { left, sourceY, targetY, type Axis } from './crossing-axes'
import type { LedgerItem } from './ledger'

/** Items that were and land at the same places, drawn once. */
export interface Thread {
  lineage: string
  from: number
  /** Null: the date is taken away. */
  to: number | null
  outcome: Outcome
  bent: boolean
  /** An end of it lies outside the picture. */
  outside: boolean
  /** It goes back where most others go forward. */
  crosses: boolean
  /** When it is open in the new term, in pixels; null where it has no such window. */
  window: { from: number; to: number } | null
  chosen: boolean
  mark: Mark
  path: string
  field: DateField
  items: LedgerItem[]
}
const at = (wall: string): number => dayOf(wall) + minuteOf(wall) / 1440
/** A place on an axis. What lies outside the picture is drawn at its margin, so that no thread runs over the names. */
function placeOn({ x }: Axis, wall: string): { at: number; outside: boolean } {
  const [from = 0, to = 0] = x.range()
  const place = x(at(wall))
  const within = Math.min(Math.max(place, from - 6), to)
  return { at: half(within), outside: place !== within }
}
/** Half pixels: what lies closer together is not told apart. */
const half = (x: number): number => Math.round(x * 2) / 2
function pathOf(from: number, to: number | null, bent: boolean): string {
  if (to === null) return ''
  const [start, end] = [sourceY + 8, targetY - 8]
  const middle = (sourceY + targetY) / 2
  return bent
    ? `M${from} ${start}C${from} ${middle} ${to} ${middle} ${to} ${end}`
    : `M${from} ${start}L${to} ${end}`
}
/** From opening to closing (else to the due date) on the lower line. */
function windowOf({ planned }: LedgerItem, target: Axis): Thread['window'] {
  const end = planned.closes ?? planned.due
  return planned.opens && end && planned.opens < end
    ? { from: half(target.x(at(planned.opens))), to: half(target.x(at(end))) }
    : null
}
function threadOf(item: LedgerItem, source: Axis, target: Axis, selected: string | null): Thread | null {
  const { node, planned, outcomes } = item
  const field = hangsBy(item)
  const was = field && node[field]
  if (!field || !was) return null
  const is = planned[field]
  const start = placeOn(source, was)
  const end = is === null ? null : placeOn(target, is)
  const [from, to] = [start.at, end?.at ?? null]
  const outcome = outcomes[field]
  const bent = outcome === 'settle' || outcome === 'moved'
  return {
    lineage: item.lineage,
    from,
    to,
    outcome,
    bent,
    outside: start.outside || (end?.outside ?? false),
    crosses: false,
    window: windowOf(item, target),
    chosen: item.lineage === selected,
    mark: node.kind ? markOf(node.kind, node.exam) : unitMark,
    path: pathOf(from, to, bent),
    field,
    items: [item],
  }
}
/** The date by which an item hangs in the picture. */
export const hangsBy = ({ node }: LedgerItem): DateField | null =>
  (['due', 'opens'] as const).find(field => node[field] !== null) ?? null
/** Items that go back where most others go forward. */
export function crossingItems(items: readonly LedgerItem[]): Set<LedgerItem> {
  const pairs = items.flatMap(item => {
    const field = hangsBy(item)
    const [before, after] = field ? [item.node[field], item.planned[field]] : [null, null]
    return before && after ? [{ before, after, item }] : []
  })
  return new Set([...outOfOrder(pairs)].map(({ item }) => item))
}
/**
 * A thread for every item in sight; those that would be drawn exactly over one another share one, only the selected item always
 * has its own.
 */
export function threadsOf(
  items: readonly LedgerItem[],
  axes: { source: Axis; target: Axis },
  {
    width,
    selected,
    crossing,
  }: { width: number; selected: string | null; crossing: ReadonlySet<LedgerItem> },
): Thread[] {
  const isSeen = (place: number | null): boolean => place !== null && place >= left - 7 && place <= width
  const drawn = new Map<string, Thread>()
  for (const item of items) {
    const thread = threadOf(item, axes.source, axes.target, selected)
    if (!thread || !(isSeen(thread.from) || isSeen(thread.to))) continue
    thread.crosses = crossing.has(item)
    const { from, to, mark, outcome, chosen, crosses } = thread
    const key = chosen ? 'chosen' : `${from} ${to} ${mark.path} ${outcome} ${crosses}`
    const same = drawn.get(key)
    if (same) same.items.push(item)
    else drawn.set(key, thread)
  }
  return [...drawn.values()].sort((a, b) => Number(a.chosen) - Number(b.chosen))
}

/** More threads than these are drawn as density: how many dates a day holds, and where they go. */
export const threadsAtMost = 260
export interface DayBar {
  key: string
  x: number
  width: number
  y: number
  height: number
  count: number
  settle: boolean
}
/** What thousands of threads come to: a bar for each day on both lines, and the strings in one stroke for each outcome. */
export interface Density {
  bars: DayBar[]
  strings: { outcome: Outcome; path: string }[]
}
const barHeight = 30
function barsOf(
  axis: Axis,
  days: ReadonlyMap<Day, { count: number; settle: boolean }>,
  most: number,
): DayBar[] {
  const width = Math.max(1.5, axis.x(1) - axis.x(0) - 1)
  return [...days].map(([day, { count, settle }]) => {
    const height = Math.max(2, (barHeight * count) / most)
    return {
      key: `${axis.y} ${day}`,
      x: axis.x(day),
      width,
      y: axis.y - height,
      height,
      count,
      settle,
    }
  })
}
export function densityOf(
  items: readonly LedgerItem[],
  threads: readonly Thread[],
  axes: { source: Axis; target: Axis },
): Density {
  const was = new Map<Day, { count: number; settle: boolean }>()
  const is = new Map<Day, { count: number; settle: boolean }>()
  const add = (days: typeof was, wall: string, settle: boolean): void => {
    const found = days.get(dayOf(wall))
    days.set(dayOf(wall), { count: (found?.count ?? 0) + 1, settle: settle || (found?.settle ?? false) })
  }
  for (const item of items) {
    const field = hangsBy(item)
    const [before, after] = field ? [item.node[field], item.planned[field]] : [null, null]
    if (before) add(was, before, false)
    if (after) add(is, after, item.settle)
  }
  const most = Math.max(1, ...[...was.values(), ...is.values()].map(day => day.count))
  const paths = new Map<Outcome, string[]>()
  for (const { outcome, path } of threads) {
    const list = paths.get(outcome) ?? []
    list.push(path)
    paths.set(outcome, list)
  }
  return {
    bars: [...barsOf(axes.source, was, most), ...barsOf(axes.target, is, most)],
    strings: [...paths].map(([outcome, list]) => ({ outcome, path: list.join('') })),
  }
}

/** What one sees at a glance, said: threads that go back, and days that hold too much (null: nobody looked). */
export function crossingText(
  crossing: number,
  crowded: readonly { first: Day; ids: readonly unknown[] }[] | null,
): string {
  const [most] = [...(crowded ?? [])].sort((a, b) => b.ids.length - a.ids.length)
  const days = most
    ? `${counted(crowded?.length ?? 0, 'day holds', 'days hold')} too much, ${dayText(isoOf(most.first))} most: ${most.ids.length} due`
    : 'no day holds too much'
  const back =
    crossing === 0
      ? 'No item changes its order'
      : `${counted(crossing, 'item comes', 'items come')} in another order`
  return crowded ? `${back}; ${days}.` : `${back}.`
}

const toldAtMost = 6
/** What a thread stands for, item by item. */
export function threadTitle({ items, field }: Thread, years: { source: Years; target: Years }): string {
  const lines = items.slice(0, toldAtMost).map(({ node, planned }) => {
    const [was, is] = [node[field], planned[field]]
    return `${node.title}: ${field} ${was ? momentText(was, years.source) : ''} → ${is ? momentText(is, years.target) : 'no date'}`
  })
  const more = items.length - toldAtMost
  return [...lines, ...(more > 0 ? [`and ${more} more`] : [])].join('\n')
}
