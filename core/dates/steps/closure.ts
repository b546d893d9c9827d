import { isoOf, weekdayOf, type Day } from '../../calendar/day'
import { isUsable, weekFirst, type Closure, type Term } from '../../calendar/term'
import type { Draft } from '../draft'
import { bit } from '../flags'
import { reason } from '../reason'
import { turned, type ClosurePolicy } from '../rule-common'
import { dayOrBlank } from '../saying'
import { weekdayName } from '../words'
import { bounds } from './bounds'
import { move, type Step } from './step'

interface Closed {
  closure: string
  from: string
  to: string
}
/** `is Victoria Day`, `is in Spring closure (Fri 26 Mar to Mon 29 Mar)` */
const isClosed = ({ closure, from, to }: Closed): string =>
  from === to
    ? `is ${closure || 'closed'}`
    : `is in ${closure || 'a closure'} (${dayOrBlank(from)} to ${dayOrBlank(to)})`
const usableDayWords: Record<ClosurePolicy, string> = {
  next: 'The next usable day is',
  previous: 'The last usable day before it is',
  nearest: 'The nearest usable day is',
  keep: 'It stays on',
}
export const closureReasons = {
  'swap-day': reason<Closed & { weekday: number; day: string }>({
    short: 'changed timetable',
    sentence: ({ before, after, details }) =>
      `${dayOrBlank(before)} ${isClosed(details)}; ${dayOrBlank(after)} runs on a ${weekdayName(details.weekday)} timetable.`,
  }),
  'closure-moved': reason<Closed & { policy: ClosurePolicy }>({
    short: 'off a closure',
    sentence: ({ before, after, details }) =>
      `${dayOrBlank(before)} ${isClosed(details)}. ${usableDayWords[details.policy]} ${dayOrBlank(after)}.`,
  }),
  'on-closure': reason<Closed & { policy: ClosurePolicy }>({
    short: ({ details: { closure, from, to } }) => {
      if (!closure) return 'on a closure'
      return from === to ? `on ${closure}` : `in ${closure}`
    },
    sentence: ({ after, details }) => {
      const why = details.policy === 'keep' ? 'and it stays there by the rule' : 'and no usable day is near'
      return `${dayOrBlank(after)} ${isClosed(details)}, ${why}.`
    },
  }),
}

const horizon = 800
/** The usable day nearest to `day` on one side (direction 1 or −1), within the horizon. */
export function usableOn(term: Term, day: Day, direction: 1 | -1): Day | null {
  for (let distance = 1; distance <= horizon; distance++)
    if (isUsable(term, day + direction * distance)) return day + direction * distance
  return null
}
function usableDay(term: Term, day: Day, policy: ClosurePolicy): Day | null {
  if (policy === 'keep') return null
  const next = usableOn(term, day, 1)
  const previous = usableOn(term, day, -1)
  if (policy === 'previous') return previous ?? next
  const nearer = policy === 'nearest' && next !== null && previous !== null && day - previous < next - day
  return nearer ? previous : (next ?? previous)
}
/** The first day of its week that runs the timetable of `weekday`, if one does. */
function dayThatRuns(term: Term, day: Day, weekday: number) {
  const first = weekFirst(term.weekStart, day)
  return term.runsAs.find(
    entry =>
      entry.date >= first &&
      entry.date < first + 7 &&
      entry.weekday === weekday &&
      isUsable(term, entry.date),
  )
}

function leaveClosure(
  draft: Draft,
  closed: Closure,
  weekday: number,
  policy: ClosurePolicy,
  term: Term,
): void {
  const { field } = draft
  const names = { closure: closed.name, from: isoOf(closed.from), to: isoOf(closed.to) }
  const swap = dayThatRuns(term, draft.day, weekday)
  if (swap) {
    const days = move(draft, swap.date, 'swap-day')
    draft.reasons.push({ field, code: 'swap-day', ...days, details: { ...names, weekday, day: swap.name } })
    return
  }
  const details = { ...names, policy }
  const usable = usableDay(term, draft.day, policy)
  if (usable !== null) {
    const days = move(draft, usable, 'closure-moved')
    draft.reasons.push({ field, code: 'closure-moved', ...days, details })
    return
  }
  draft.flags |= bit['on-closure']
  const day = isoOf(draft.day)
  draft.reasons.push({ field, code: 'on-closure', before: day, after: day, details })
}

/** A date in a closure goes to the day that runs its weekday's timetable, else by its field's policy; then the bounds hold again. */
export const closure: Step = (draft, rule, crossing, method) => {
  if (!draft.movable) return
  const closed = crossing.target.closureOn(draft.day)
  if (closed) {
    const weekday = method.ownDays ? weekdayOf(draft.day) : turned(rule, draft.weekday)
    leaveClosure(draft, closed, weekday, rule.closures[draft.field], crossing.target)
  }
  bounds(draft, rule, crossing, method)
}
