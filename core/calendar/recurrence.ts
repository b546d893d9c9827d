import { civilOfDay, dayOfCivil, floorDiv, floorMod, weekdayOf, type Day, type Weekday } from './day'

/** A wall-clock moment: a day, and seconds after its midnight. */
export interface Moment {
  readonly day: Day
  readonly second: number
}
export const frequencies = ['YEARLY', 'MONTHLY', 'WEEKLY', 'DAILY', 'HOURLY', 'MINUTELY', 'SECONDLY'] as const
export type Frequency = (typeof frequencies)[number]

/** A recurrence rule of RFC 5545 §3.3.10. Lists are empty where the rule says nothing. */
export interface RecurrenceRule {
  readonly frequency: Frequency
  readonly interval: number
  readonly count: number | null
  /** The last moment that may be meant, included. */
  readonly until: Moment | null
  readonly months: readonly number[]
  readonly weeks: readonly number[]
  readonly yearDays: readonly number[]
  readonly monthDays: readonly number[]
  /** `nth`: 0 for every such weekday, else counted from the start or (below 0) from the end of the month or year. */
  readonly weekdays: readonly { readonly nth: number; readonly weekday: Weekday }[]
  readonly hours: readonly number[]
  readonly minutes: readonly number[]
  readonly seconds: readonly number[]
  /** Which of a period's occurrences are meant: 1 the first, -1 the last. */
  readonly positions: readonly number[]
  readonly weekStart: Weekday
}

/** Steps that may still be taken. A rule that finds nothing, or a storm of rules, ends when none is left. */
export interface Budget {
  left: number
}

const daySeconds = 86_400
const stepSeconds: Partial<Record<Frequency, number>> = { HOURLY: 3600, MINUTELY: 60, SECONDLY: 1 }
const before = (a: Moment, b: Moment): boolean => a.day < b.day || (a.day === b.day && a.second < b.second)
const monthLength = (year: number, month: number): number =>
  dayOfCivil(month === 12 ? year + 1 : year, month === 12 ? 1 : month + 1, 1) - dayOfCivil(year, month, 1)

/** First day of week 1 of a year: the first week with at least four days in it (RFC 5545 §3.3.10, BYWEEKNO). */
function firstWeek(year: number, weekStart: Weekday): Day {
  const start = dayOfCivil(year, 1, 1)
  const into = floorMod(weekdayOf(start) - weekStart, 7)
  return into <= 3 ? start - into : start + 7 - into
}
/** Whether a number, counted from the start or the end of `length`, is in a list. */
const inList = (list: readonly number[], at: number, length: number): boolean =>
  list.includes(at) || list.includes(at - length - 1)

/** Whether a day passes the parts of a rule that choose days. */
function dayPasses(rule: RecurrenceRule, day: Day): boolean {
  const { year, month, date } = civilOfDay(day)
  if (rule.months.length > 0 && !rule.months.includes(month)) return false
  const length = monthLength(year, month)
  if (rule.monthDays.length > 0 && !inList(rule.monthDays, date, length)) return false
  const newYear = dayOfCivil(year, 1, 1)
  const yearLength = dayOfCivil(year + 1, 1, 1) - newYear
  if (rule.yearDays.length > 0 && !inList(rule.yearDays, day - newYear + 1, yearLength)) return false
  if (rule.weeks.length > 0) {
    // The days around new year may belong to a week of the year before or after.
    const weekYear =
      day < firstWeek(year, rule.weekStart)
        ? year - 1
        : day >= firstWeek(year + 1, rule.weekStart)
          ? year + 1
          : year
    const from = firstWeek(weekYear, rule.weekStart)
    if (
      !inList(rule.weeks, floorDiv(day - from, 7) + 1, (firstWeek(weekYear + 1, rule.weekStart) - from) / 7)
    )
      return false
  }
  if (rule.weekdays.length === 0) return true
  const weekday = weekdayOf(day)
  const byMonth = rule.frequency === 'MONTHLY' || rule.months.length > 0
  const counted = rule.frequency === 'MONTHLY' || rule.frequency === 'YEARLY'
  const at = byMonth ? date - 1 : day - newYear
  const of = byMonth ? length : yearLength
  return rule.weekdays.some(
    entry =>
      entry.weekday === weekday &&
      (entry.nth === 0 ||
        !counted ||
        (entry.nth > 0 ? floorDiv(at, 7) + 1 === entry.nth : -floorDiv(of - at - 1, 7) - 1 === entry.nth)),
  )
}

/** What a rule leaves out is taken from its start (RFC 5545 §3.3.10, last paragraphs). */
function completed(rule: RecurrenceRule, start: Moment): RecurrenceRule {
  const { month, date } = civilOfDay(start.day)
  const chooses = rule.weekdays.length + rule.monthDays.length + rule.yearDays.length > 0
  const sub = stepSeconds[rule.frequency] !== undefined
  const second = start.second % 60
  const minute = floorDiv(start.second, 60) % 60
  const hour = floorDiv(start.second, 3600)
  return {
    ...rule,
    months:
      rule.frequency === 'YEARLY' && !chooses && rule.weeks.length === 0 && rule.months.length === 0
        ? [month]
        : rule.months,
    monthDays:
      (rule.frequency === 'MONTHLY' || (rule.frequency === 'YEARLY' && rule.weeks.length === 0)) && !chooses
        ? [date]
        : rule.monthDays,
    weekdays:
      !chooses && (rule.frequency === 'WEEKLY' || (rule.frequency === 'YEARLY' && rule.weeks.length > 0))
        ? [{ nth: 0, weekday: weekdayOf(start.day) }]
        : rule.weekdays,
    hours: rule.hours.length > 0 || sub ? rule.hours : [hour],
    minutes:
      rule.minutes.length > 0 || rule.frequency === 'MINUTELY' || rule.frequency === 'SECONDLY'
        ? rule.minutes
        : [minute],
    seconds: rule.seconds.length > 0 || rule.frequency === 'SECONDLY' ? rule.seconds : [second],
  }
}

/** First day and length in days of the k-th period after the one the start lies in. */
function periodOf(rule: RecurrenceRule, start: Day, k: number): { from: Day; days: number } {
  const { year, month } = civilOfDay(start)
  if (rule.frequency === 'YEARLY') {
    const at = year + k * rule.interval
    return { from: dayOfCivil(at, 1, 1), days: dayOfCivil(at + 1, 1, 1) - dayOfCivil(at, 1, 1) }
  }
  if (rule.frequency === 'MONTHLY') {
    const index = year * 12 + month - 1 + k * rule.interval
    const at = { year: floorDiv(index, 12), month: floorMod(index, 12) + 1 }
    return { from: dayOfCivil(at.year, at.month, 1), days: monthLength(at.year, at.month) }
  }
  if (rule.frequency === 'WEEKLY')
    return { from: start - floorMod(weekdayOf(start) - rule.weekStart, 7) + 7 * k * rule.interval, days: 7 }
  return { from: start + k * rule.interval, days: 1 }
}
/** A period has at most so many days: for skipping ahead. */
const shortest: Partial<Record<Frequency, number>> = { YEARLY: 366, MONTHLY: 31, WEEKLY: 7, DAILY: 1 }

/**
 * The occurrences of a rule from its start to the day `last`, in order. `first`: where the caller begins to care; a rule
 * without a count skips what comes before. Bounded whatever the rule says: every step is paid from the budget.
 * The general packages for this iterate to the year 9999 or for ever on rules that never hold; they are its oracles in tests.
 */
export function* occurrences(
  given: RecurrenceRule,
  start: Moment,
  first: Day,
  last: Day,
  budget: Budget,
): Generator<Moment> {
  const rule = completed(given, start)
  const end = rule.until !== null && rule.until.day < last ? rule.until.day : last
  let left = rule.count ?? Infinity
  const step = stepSeconds[rule.frequency]
  const skip = rule.count === null ? Math.max(0, first - start.day) : 0
  let period =
    step === undefined
      ? byDays(rule, start, skip, end, budget)
      : byTimes(rule, start, step * rule.interval, skip, end, budget)
  if (rule.positions.length > 0) {
    const most = mostOf(rule)
    if (rule.positions.every(position => Math.abs(position) > most)) return
    period = positioned(period, rule.positions)
  }
  for (const group of period)
    for (const moment of group) {
      if (before(moment, start)) continue
      if (moment.day > end || (rule.until !== null && before(rule.until, moment)) || left-- <= 0) return
      yield moment
      if (left <= 0) return
    }
}

/** No period has more occurrences than this: a position beyond it is never met. */
function mostOf({ frequency, hours, minutes, seconds }: RecurrenceRule): number {
  if (frequency === 'SECONDLY') return 1
  if (frequency === 'MINUTELY') return seconds.length
  if (frequency === 'HOURLY') return minutes.length * seconds.length
  return shortest[frequency]! * hours.length * minutes.length * seconds.length
}

function* positioned(groups: Iterable<Moment[]>, positions: readonly number[]): Generator<Moment[]> {
  for (const group of groups) {
    const places = positions
      .map(position => (position > 0 ? position - 1 : group.length + position))
      .filter(at => at >= 0 && at < group.length)
    yield [...new Set(places)].sort((a, b) => a - b).map(at => group[at]!)
  }
}

function* byDays(
  rule: RecurrenceRule,
  start: Moment,
  skip: number,
  end: Day,
  budget: Budget,
): Generator<Moment[]> {
  const ascending = (list: readonly number[]): number[] => [...new Set(list)].sort((a, b) => a - b)
  const times = ascending(
    rule.hours.flatMap(hour =>
      rule.minutes.flatMap(minute =>
        rule.seconds.map(second => hour * 3600 + minute * 60 + Math.min(second, 59)),
      ),
    ),
  )
  for (let k = Math.max(0, floorDiv(skip, shortest[rule.frequency]! * rule.interval) - 1); ; k++) {
    const { from, days } = periodOf(rule, start.day, k)
    if (from > end) return
    const group: Moment[] = []
    for (let day = from; day < from + days; day++) {
      if (budget.left-- <= 0) return
      if (!dayPasses(rule, day)) continue
      budget.left -= times.length - 1
      for (const second of times) group.push({ day, second })
    }
    yield group
  }
}

function* byTimes(
  rule: RecurrenceRule,
  start: Moment,
  step: number,
  skip: number,
  end: Day,
  budget: Budget,
): Generator<Moment[]> {
  const passes = (list: readonly number[], value: number): boolean =>
    list.length === 0 || list.includes(value)
  let at = Math.max(0, floorDiv(skip * daySeconds, step) - 1) * step
  let passed: Day | null = null
  for (;;) {
    if (budget.left-- <= 0) return
    const seconds = start.second + at
    const day = start.day + floorDiv(seconds, daySeconds)
    if (day > end) return
    const second = floorMod(seconds, daySeconds)
    if (day !== passed && !dayPasses(rule, day)) {
      // On to the first step of the next day.
      at += Math.max(1, Math.ceil((daySeconds - second) / step)) * step
      continue
    }
    passed = day
    at += step
    if (!passes(rule.hours, floorDiv(second, 3600))) continue
    const minute = floorDiv(second, 60) % 60
    if (rule.frequency === 'HOURLY') {
      const base = second - (second % 3600)
      const group: Moment[] = []
      for (const m of [...rule.minutes].sort((a, b) => a - b))
        for (const s of [...rule.seconds].sort((a, b) => a - b))
          group.push({ day, second: base + m * 60 + Math.min(s, 59) })
      budget.left -= group.length
      yield group
    } else if (!passes(rule.minutes, minute)) continue
    else if (rule.frequency === 'MINUTELY')
      yield [...rule.seconds]
        .sort((a, b) => a - b)
        .map(s => ({ day, second: second - (second % 60) + Math.min(s, 59) }))
    else if (passes(rule.seconds, second % 60)) yield [{ day, second }]
  }
}
