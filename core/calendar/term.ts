import { dayOf, floorMod, weekdayOf, type Day, type Weekday } from './day'
import type { Meeting, TermCalendar } from './schema'

export interface Closure {
  from: Day
  to: Day
  name: string
  kind: string
}

/** A part of a term for which grades are given by themselves; both ends included. */
export interface GradingPeriod {
  readonly name: string
  readonly from: Day
  readonly to: Day
}

/** A term made ready for computing: day numbers, teaching weeks and class days in order. Made by {@link compileTerm}. */
export interface Term {
  readonly name: string
  readonly timeZone: string
  readonly weekStart: Weekday
  readonly classes: { readonly from: Day; readonly to: Day }
  readonly exams: { readonly from: Day; readonly to: Day } | null
  readonly closures: readonly Closure[]
  readonly milestones: ReadonlyMap<string, { date: Day; name: string }>
  /** Those with a name and both days, in the order of their first days. */
  readonly gradingPeriods: readonly GradingPeriod[]
  /** First days of the teaching weeks, in order: week n is `weeks[n - 1]`. */
  readonly weeks: readonly Day[]
  /** First day of teaching week 1. */
  readonly firstWeek: Day
  /** All class days, ascending; a checked term has one at least. */
  readonly classDays: readonly Day[]
  readonly firstClassDay: Day
  readonly lastClassDay: Day
  /** Changed timetables in date order. */
  readonly runsAs: readonly { date: Day; weekday: Weekday; name: string }[]
  readonly teaches: (weekday: Weekday) => boolean
  /** The closure that holds a day (the first in the calendar's order), if any. */
  readonly closureOn: (day: Day) => Closure | undefined
  /** The weekday whose timetable a date follows. */
  readonly timetableWeekday: (day: Day) => Weekday
}

/** First day of the week that holds a day. */
export const weekFirst = (weekStart: Weekday, day: Day): Day => day - floorMod(weekdayOf(day) - weekStart, 7)
/** The date of a weekday inside the week that starts on `first`. */
export const dayInWeek = (weekStart: Weekday, first: Day, weekday: Weekday): Day =>
  first + floorMod(weekday - weekStart, 7)

/** Whether a day is usable: in no closure, and its timetable weekday is taught (inside classes or not). */
export const isUsable = (term: Pick<Term, 'closureOn' | 'teaches' | 'timetableWeekday'>, day: Day): boolean =>
  term.closureOn(day) === undefined && term.teaches(term.timetableWeekday(day))

/** Index of the last of `days` (ascending) that is ≤ day, or −1. */
export function lastAtOrBefore(days: readonly Day[], day: Day): number {
  let low = 0
  let high = days.length
  while (low < high) {
    const middle = (low + high) >> 1
    if ((days[middle] ?? Infinity) <= day) low = middle + 1
    else high = middle
  }
  return low - 1
}

/** Makes a checked calendar ready for computing. */
export function compileTerm(calendar: TermCalendar): Term {
  const closures = calendar.closures.map(entry => ({
    from: dayOf(entry.from),
    to: dayOf(entry.to),
    name: entry.name,
    kind: entry.kind,
  }))
  const runsAs = calendar.runsAs
    .map(entry => ({ date: dayOf(entry.date), weekday: entry.weekday, name: entry.name }))
    .sort((a, b) => a.date - b.date)
  const changed = new Map(runsAs.map(entry => [entry.date, entry.weekday]))
  const taught = new Set<Weekday>(calendar.teachingWeekdays)
  const found = new Map<Day, Closure | undefined>()
  const closureOn = (day: Day): Closure | undefined => {
    if (found.has(day)) return found.get(day)
    const closure = closures.find(entry => day >= entry.from && day <= entry.to)
    found.set(day, closure)
    return closure
  }
  const days = {
    closureOn,
    teaches: (weekday: Weekday) => taught.has(weekday),
    timetableWeekday: (day: Day) => changed.get(day) ?? weekdayOf(day),
  }
  const classes = { from: dayOf(calendar.classes.from), to: dayOf(calendar.classes.to) }
  const weeks: Day[] = []
  const classDays: Day[] = []
  for (let day = classes.from; day <= classes.to; day++) {
    if (!isUsable(days, day)) continue
    classDays.push(day)
    const first = weekFirst(calendar.weekStart, day)
    if (weeks.at(-1) !== first) weeks.push(first)
  }
  const milestones = calendar.milestones.map(
    ({ key, date, name }) => [key, { date: dayOf(date), name: name || key }] as const,
  )
  return {
    ...days,
    name: calendar.name || calendar.id,
    timeZone: calendar.timeZone,
    weekStart: calendar.weekStart,
    classes,
    exams: calendar.exams && { from: dayOf(calendar.exams.from), to: dayOf(calendar.exams.to) },
    closures,
    runsAs,
    milestones: new Map(milestones),
    gradingPeriods: gradingPeriodsOf(calendar),
    weeks,
    firstWeek: weeks[0] ?? weekFirst(calendar.weekStart, classes.from),
    classDays,
    firstClassDay: classDays[0] ?? classes.from,
    lastClassDay: classDays.at(-1) ?? classes.to,
  }
}

const gradingPeriodsOf = ({ gradingPeriods }: TermCalendar): GradingPeriod[] =>
  gradingPeriods
    .flatMap(({ name, from, to }) => (name && from && to ? [{ name, from: dayOf(from), to: dayOf(to) }] : []))
    .sort((a, b) => a.from - b.from)

/** A term of which only the first and the last day are known: no closures, no exams, the same weekdays. */
export const termOver = (term: Term, classes: { readonly from: string; readonly to: string }): Term =>
  compileTerm({
    id: '',
    name: term.name,
    timeZone: term.timeZone,
    classes,
    exams: null,
    teachingWeekdays: weekdays.filter(day => term.teaches(day)),
    weekStart: term.weekStart,
    closures: [],
    runsAs: [],
    milestones: [],
    gradingPeriods: [],
  })
const weekdays: readonly Weekday[] = [1, 2, 3, 4, 5, 6, 7]

/** The meeting days of a section: class days whose timetable weekday is in its pattern, each once, ascending. */
export function meetingDays(term: Term, pattern: readonly Meeting[]): Day[] {
  const weekdays = new Set(pattern.map(entry => entry.weekday))
  return term.classDays.filter(day => weekdays.has(term.timetableWeekday(day)))
}

/**
 * Teaching week of a day: `week` is n, `after` how many weeks without a class day lie between (0: the day is in week n).
 * Days before week 1 count back from it: `after` is negative.
 */
export function teachingWeek(term: Term, day: Day): { week: number; after: number } {
  const first = weekFirst(term.weekStart, day)
  const at = Math.max(0, lastAtOrBefore(term.weeks, first))
  return { week: at + 1, after: (first - (term.weeks[at] ?? term.firstWeek)) / 7 }
}
