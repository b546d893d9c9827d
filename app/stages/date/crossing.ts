import { scaleLinear, type ScaleLinear } from 'd3-scale'
import { dayOf, isoOf, minuteOf, type Day } from '~~/core/calendar/day'
import type { Term } from '~~/core/calendar/term'
import type { DateField } from '~~/core/course/dates'
import type { Outcome } from '~~/core/dates/flags'
import { dayText, momentText } from '~~/core/dates/words'
import { markOf, type Mark } from '~/composables/marks'
import type { LedgerItem } from './ledger'

/** Where the two terms are drawn, in pixels from the top, and how far from the left. */
export const sourceY = 46
export const targetY = 150
const left = 108
/** Roughly half the width of a letter of a closure's name. */
const halfLetter = 3.1

/** A stretch of days that is drawn shaded. */
export interface Span {
  key: string
  x: number
  width: number
  middle: number
  /** Whether its name has room. */
  named: boolean
  name: string
  exams: boolean
  title: string
}
export interface Axis {
  x: ScaleLinear<number, number>
  y: number
  weekY: number
  closureY: number
  name: string
  line: string
  spans: Span[]
  weeks: { number: number; x: number; middle: number }[]
  title: string
}
interface Days {
  from: Day
  to: Day
  name: string
  exams: boolean
}
const daysShaded = (term: Term, end: Day): Days[] => [
  ...term.closures
    .filter(closure => closure.to >= term.firstWeek && closure.from <= end)
    .sort((a, b) => a.from - b.from)
    .map(({ from, to, name }) => ({ from, to, name, exams: false })),
  ...(term.exams ? [{ ...term.exams, name: 'exams', exams: true }] : []),
]
/** Spans with their names where these do not run into each other. */
function spansOf(days: readonly Days[], x: Axis['x'], width: number): Span[] {
  let free = -Infinity
  return days.map(({ from, to, name, exams }) => {
    const [start, end] = [x(from), x(to + 1)]
    const half = name.length * halfLetter
    const middle = Math.min((start + end) / 2, width - half - 4)
    const named = middle - half > free
    if (named) free = middle + half + 6
    const title = `${name}: ${dayText(isoOf(from))} to ${dayText(isoOf(to))}`
    return { key: `${from} ${name}`, x: start, width: end - start, middle, named, name, exams, title }
  })
}
/** A term as a line of its weeks. `below`: its names stand below the line. */
export function axisOf(term: Term, place: { y: number; below: boolean }, width: number): Axis {
  const { y, below } = place
  const end = (term.exams?.to ?? term.classes.to) + 2
  const x = scaleLinear()
    .domain([term.firstWeek - 1, end])
    .range([left, Math.max(left + 100, width - 4)])
  const { from, to } = term.classes
  return {
    x,
    y,
    weekY: below ? y + 21 : y - 15,
    closureY: below ? y + 36 : y - 29,
    name: term.name,
    line: `M${x(from)} ${y}H${x(to + 1)}`,
    spans: spansOf(daysShaded(term, end), x, width),
    weeks: term.weeks.map((first, at) => ({ number: at + 1, x: x(first), middle: x(first + 3.5) })),
    title: `${term.name}: classes ${dayText(isoOf(from))} to ${dayText(isoOf(to))}`,
  }
}

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
function threadOf(item: LedgerItem, source: Axis, target: Axis, selected: string | null): Thread | null {
  const { node, planned, outcomes } = item
  const field = (['due', 'opens'] as const).find(each => node[each] !== null)
  const was = field && node[field]
  if (!field || !was || !node.kind) return null
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
    chosen: item.lineage === selected,
    mark: markOf(node.kind, node.exam),
    path: pathOf(from, to, bent),
    field,
    items: [item],
  }
}
/** A thread for every item; those that would be drawn exactly over one another share one, only the selected item always has its own. */
export function threadsOf(
  items: readonly LedgerItem[],
  source: Axis,
  target: Axis,
  selected: string | null,
): Thread[] {
  const drawn = new Map<string, Thread>()
  for (const item of items) {
    const thread = threadOf(item, source, target, selected)
    if (!thread) continue
    const { from, to, mark, outcome, chosen } = thread
    const key = chosen ? 'chosen' : `${from} ${to} ${mark.path} ${outcome}`
    const same = drawn.get(key)
    if (same) same.items.push(item)
    else drawn.set(key, thread)
  }
  return [...drawn.values()].sort((a, b) => Number(a.chosen) - Number(b.chosen))
}

const toldAtMost = 6
/** What a thread stands for, item by item. */
export function threadTitle({ items, field }: Thread): string {
  const lines = items.slice(0, toldAtMost).map(({ node, planned }) => {
    const [was, is] = [node[field], planned[field]]
    return `${node.title}: ${field} ${was ? momentText(was) : ''} → ${is ? momentText(is) : 'no date'}`
  })
  const more = items.length - toldAtMost
  return [...lines, ...(more > 0 ? [`and ${more} more`] : [])].join('\n')
}
