import { scaleLinear, type ScaleLinear } from 'd3-scale'
import { isoOf, type Day } from '~~/core/calendar/day'
import type { Term } from '~~/core/calendar/term'
import { dayText } from '~~/core/dates/words'

/** Where the two terms are drawn, in pixels from the top, and how far from the left. */
export const sourceY = 46
export const targetY = 150
export const left = 108
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
  /** From days to pixels. */
  x: ScaleLinear<number, number>
  y: number
  weekY: number
  closureY: number
  name: string
  line: string
  spans: Span[]
  /** First days of weeks in sight. */
  weeks: { number: number; x: number }[]
  weekNames: { number: number; middle: number }[]
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
/** Spans in sight, with their names where these do not run into each other. */
function spansOf(days: readonly Days[], x: Axis['x'], width: number): Span[] {
  let free = -Infinity
  return days.flatMap(({ from, to, name, exams }) => {
    const [start, end] = [Math.max(x(from), left - 6), Math.min(x(to + 1), width)]
    if (end <= start) return []
    const half = name.length * halfLetter
    const middle = Math.min((start + end) / 2, width - half - 4)
    const named = middle - half > free
    if (named) free = middle + half + 6
    const title = `${name}: ${dayText(isoOf(from))} to ${dayText(isoOf(to))}`
    return [{ key: `${from} ${name}`, x: start, width: end - start, middle, named, name, exams, title }]
  })
}
/** Which part of the picture is looked at, as shares of its whole length, and whether both terms are drawn at one scale. */
export interface CrossingView {
  readonly from: number
  readonly to: number
  readonly oneScale: boolean
}
export const wholePicture: CrossingView = { from: 0, to: 1, oneScale: false }
/** The view narrowed or widened around a place (`focus`, a share of what is seen now), at most fifty times. */
export function zoomed(view: CrossingView, factor: number, focus = 0.5): CrossingView {
  const width = Math.min(1, Math.max(0.02, (view.to - view.from) * factor))
  const middle = view.from + (view.to - view.from) * focus
  const from = Math.min(Math.max(0, middle - width * focus), 1 - width)
  return { ...view, from, to: from + width }
}
/** The view moved along by a share of what is seen, within the picture. */
export function panned(view: CrossingView, share: number): CrossingView {
  const width = view.to - view.from
  const from = Math.min(Math.max(0, view.from + share * width), 1 - width)
  return { ...view, from, to: from + width }
}
const endOf = (term: Term): Day => (term.exams?.to ?? term.classes.to) + 2
/** How many days of a term are drawn. */
export const daysDrawn = (term: Term): number => endOf(term) - term.firstWeek + 1
/** Where and how a term is drawn. `below`: its names stand below the line; `share`: how much of the picture's length it takes. */
export interface AxisPlace {
  readonly y: number
  readonly below: boolean
  readonly share: number
}
/** A term as a line of its weeks, as far as the view shows it. */
export function axisOf(
  term: Term,
  { y, below, share }: AxisPlace,
  width: number,
  view: CrossingView = wholePicture,
): Axis {
  const end = endOf(term)
  const length = Math.max(100, width - 4 - left)
  const whole = length / (view.to - view.from)
  const start = left - view.from * whole
  const x = scaleLinear()
    .domain([term.firstWeek - 1, end])
    .range([start, start + whole * share])
  const { from, to } = term.classes
  const isSeen = (place: number): boolean => place >= left - 6 && place <= width
  const [first, last] = [Math.max(x(from), left - 6), Math.min(x(to + 1), width)]
  const weeks = term.weeks.map((day, at) => ({ number: at + 1, x: x(day), middle: x(day + 3.5) }))
  return {
    x,
    y,
    weekY: below ? y + 21 : y - 15,
    closureY: below ? y + 36 : y - 29,
    name: term.name,
    line: last > first ? `M${first} ${y}H${last}` : '',
    spans: spansOf(daysShaded(term, end), x, width),
    weeks: weeks.filter(week => isSeen(week.x)),
    weekNames: weeks.filter(week => isSeen(week.middle) && week.middle < width - 4),
    title: `${term.name}: classes ${dayText(isoOf(from))} to ${dayText(isoOf(to))}`,
  }
}
