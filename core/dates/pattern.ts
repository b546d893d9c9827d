import { isoOf, minuteOf, wallOf, type Weekday } from '../calendar/day'
import type { Meeting } from '../calendar/schema'
import { dayInWeek, type Term } from '../calendar/term'
import type { ZoneRules } from '../calendar/zone'
import type { DateField } from '../course/dates'
import { crossingOf, newDraft, type Draft } from './draft'
import { bit } from './flags'
import { finishDate, finishItem, type PlannedItem } from './plan'
import { defaultRule, type Rule } from './rule'
import { dateSteps, timeSteps } from './steps'

/** When a date falls, seen from the teaching week of its unit: `weeksOn` teaching weeks later (0: the same), on a weekday, at a time. */
export interface PatternDate {
  readonly weeksOn: number
  readonly weekday: Weekday
  readonly time: string
}
/**
 * A pattern for work that never had dates: unit k is teaching week `firstWeek + (k − 1)·weeksPerUnit`. A date left out stays
 * without a date. Usual (common practice, no source): opens Monday 08:00, due the Monday after at 23:59.
 */
export interface Pattern {
  readonly firstWeek: number
  readonly weeksPerUnit: number
  readonly dates: Readonly<Partial<Record<DateField, PatternDate>>>
}
export const usualPattern: Pattern = {
  firstWeek: 1,
  weeksPerUnit: 1,
  dates: { opens: { weeksOn: 0, weekday: 1, time: '08:00' }, due: { weeksOn: 1, weekday: 1, time: '23:59' } },
}

export interface PatternInput {
  target: Term
  meetings: readonly Meeting[]
  zone: ZoneRules
  pattern: Pattern
  /** Unit keys in course order: the k-th is unit k. */
  units: readonly string[]
  /** Items to be dated, in course order; one outside the units gets no date. */
  items: readonly { readonly id: string; readonly unit: string | null }[]
  /** Closure policy, as in a rule; the default rule's where absent. */
  closures?: Rule['closures']
}

/**
 * Dates by a pattern, in course order, with reasons. After placing, the steps of `docs/dates.md` §5 follow as for dates that
 * cross (closures and changed timetables, bounds, order, daylight saving). A unit past the last teaching week goes to that
 * week, flag `past-end`.
 */
export function patternDates({
  target,
  meetings,
  zone,
  pattern,
  units,
  items,
  closures,
}: PatternInput): PlannedItem[] {
  // The term onto itself: the placed day is what the steps look at, as if it had stood there before.
  const crossing = crossingOf({
    source: target,
    target,
    sourceMeetings: meetings,
    targetMeetings: meetings,
    zone,
  })
  const rule: Rule = { ...defaultRule, closures: closures ?? defaultRule.closures }
  const numbers = new Map(units.map((unit, at) => [unit, at + 1]))
  return items.map(({ id, unit }): PlannedItem => {
    const number = unit === null ? undefined : numbers.get(unit)
    const draftOf = (field: DateField): Draft | null => {
      const wanted = pattern.dates[field]
      if (!wanted || number === undefined) return null
      const draft = draftInUnit(target, pattern, number, field, wanted)
      for (const step of [...dateSteps, ...timeSteps]) step(draft, rule, crossing, {})
      return draft
    }
    const drafts = { opens: draftOf('opens'), due: draftOf('due'), closes: draftOf('closes') }
    return finishItem(id, drafts, draft => finishDate(draft, rule, crossing, {}))
  })
}

/** A date of the k-th unit where the pattern puts it. */
function draftInUnit(
  target: Term,
  pattern: Pattern,
  unit: number,
  field: DateField,
  { weeksOn, weekday, time }: PatternDate,
): Draft {
  const wanted = pattern.firstWeek + (unit - 1) * pattern.weeksPerUnit + weeksOn
  const week = Math.min(Math.max(wanted, 1), target.weeks.length)
  const first = target.weeks[week - 1] ?? target.firstWeek
  const draft = newDraft(field, dayInWeek(target.weekStart, first, weekday), minuteOf(time, 0))
  if (week !== wanted) draft.flags |= bit['past-end']
  draft.reasons.push({
    field,
    code: 'pattern',
    before: null,
    after: wallOf(draft.day, draft.minute),
    details: { unit, week, wanted, weekday, weekStarts: isoOf(first), time },
  })
  return draft
}
