import type { DateField } from '../course/dates'
import type { WallTime } from '../calendar/day'
import { methodOf, type ClosurePolicy, type Rule, type TimePolicy } from './rule'
import { momentText, weekdayName } from './words'

const fields: Record<DateField, string> = { opens: 'opens', due: 'due', closes: 'closes' }
const policies: Record<ClosurePolicy, string> = {
  next: 'the next usable day',
  previous: 'the usable day before',
  nearest: 'the nearest usable day',
  keep: 'stays',
}
const timeText = (time: TimePolicy): string =>
  ({ keep: 'at the same time', 'class-start': 'at the start of class', 'class-end': 'at the end of class' })[
    time
  ] ?? `at ${time}`
/** `opens Mon 1 Feb 08:00`, `no due date` of a date that was set by hand, with its year where it is asked for. */
const handText = (field: DateField, at: WallTime | null, withYear: boolean): string => {
  if (at === null) return { opens: 'no opening', due: 'no due date', closes: 'no closing' }[field]
  const text = momentText(at)
  return `${fields[field]} ${withYear ? `${text.slice(0, -6)} ${at.slice(0, 4)}${text.slice(-6)}` : text}`
}
/** What a rule decides, one line for each thing, by a key that two rules have in common. */
function decisions(rule: Rule, withYear: boolean): Map<string, string> {
  const { method, times, closures, weekdays, ...own } = rule
  const said = new Map<string, string>([['method', methodOf(rule).title]])
  for (const field of Object.keys(fields) as DateField[]) {
    if (rule.method === 'set') {
      said.set(field, handText(field, rule[field], withYear))
      continue
    }
    said.set(`times.${field}`, `${fields[field]} ${timeText(times[field])}`)
    said.set(`closures.${field}`, `${fields[field]} on a closure: ${policies[closures[field]]}`)
  }
  if (method === 'set') return said
  for (const weekday of [1, 2, 3, 4, 5, 6, 7] as const) {
    const becomes = weekdays[`${weekday}`] ?? weekday
    const text =
      becomes === weekday
        ? `${weekdayName(weekday)} stays ${weekdayName(weekday)}`
        : `${weekdayName(weekday)} becomes ${weekdayName(becomes)}`
    said.set(`weekdays.${weekday}`, text)
  }
  const given: Readonly<Record<string, unknown>> = own
  // A parameter that another one stands in for says nothing.
  const idle = (methodOf(rule).asks ?? []).flatMap(ask =>
    ask.as === 'check' && ask.unless && given[ask.unless] !== null ? ask.name : [],
  )
  for (const [key, value] of Object.entries(given))
    if (!idle.includes(key)) said.set(key, parameterText(key, value))
  return said
}
const parameterWords: Record<string, (value: unknown) => string> = {
  days: value => (value === null ? 'by the first days of classes' : `by ${String(value)} days`),
  wholeWeeks: value => (value === true ? 'in whole weeks' : 'to the day'),
  keepWeekday: value => (value === true ? 'weekday kept' : 'weekday free'),
  basis: value =>
    `through the ${{ classes: 'classes', course: 'course', teaching: 'class days' }[String(value)] ?? 'calendar days'}`,
  milestone: value => `from the milestone ${String(value)}`,
}
const parameterText = (key: string, value: unknown): string =>
  parameterWords[key]?.(value) ?? `${key}: ${String(value)}`

const yearsOf = (rule: Rule | undefined): string[] =>
  rule?.method === 'set' ? [rule.opens, rule.due, rule.closes].flatMap(at => at?.slice(0, 4) ?? []) : []

/** What one of two rules says that the other does not, in words: `due Fri 5 Feb 23:59`. Undefined: there is no such rule. */
export function ruleDifferenceText(rule: Rule | undefined, other: Rule | undefined): string {
  if (!rule) return 'no rule of its own'
  const withYear = new Set([...yearsOf(rule), ...yearsOf(other)]).size > 1
  const mine = decisions(rule, withYear)
  const theirs = other?.method === rule.method ? decisions(other, withYear) : new Map<string, string>()
  const different = [...mine].filter(([key, text]) => text !== theirs.get(key))
  if (other?.method === rule.method) return different.map(([, text]) => text).join(', ')
  // Of another method altogether: its name says it, and of one that was set by hand its dates.
  return rule.method === 'set'
    ? different.flatMap(([key, text]) => (key === 'method' ? [] : [text])).join(', ')
    : methodOf(rule).title
}
