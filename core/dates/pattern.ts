import { isoOf, minuteOf, wallOf, type Weekday } from '../calendar/day'
import type { Meeting } from '../calendar/schema'
import { dayInWeek, type Term } from '../calendar/term'
import type { ZoneRules } from '../calendar/zone'
import { bit, newDraft, type Draft } from './draft'
import { crossingOf, finishItem, type PlannedItem } from './plan'
import { defaultRule, type Rule, type SlotName } from './rule'
import { dateSteps, timeSteps } from './steps'

/** When a slot falls, seen from the teaching week of its unit: `weeksOn` teaching weeks later (0: the same), on a weekday, at a time. */
export interface PatternSlot {
  readonly weeksOn: number
  readonly weekday: Weekday
  readonly time: string
}
/**
 * A pattern for work that never had dates: unit k is teaching week `firstWeek + (k − 1)·weeksPerUnit`. A slot left out stays
 * without a date. Usual (common practice, no source): opens Monday 08:00, due the Monday after at 23:59.
 */
export interface Pattern {
  readonly firstWeek: number
  readonly weeksPerUnit: number
  readonly slots: Readonly<Partial<Record<SlotName, PatternSlot>>>
}
export const usualPattern: Pattern = {
  firstWeek: 1,
  weeksPerUnit: 1,
  slots: { opens: { weeksOn: 0, weekday: 1, time: '08:00' }, due: { weeksOn: 1, weekday: 1, time: '23:59' } },
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
    const start = (slot: SlotName): Draft | null => {
      const wanted = pattern.slots[slot]
      if (!wanted || number === undefined) return null
      const week = pattern.firstWeek + (number - 1) * pattern.weeksPerUnit + wanted.weeksOn
      const landing = Math.min(Math.max(week, 1), target.weeks.length)
      const first = target.weeks[landing - 1]!
      const draft = newDraft(
        slot,
        dayInWeek(target.weekStart, first, wanted.weekday),
        minuteOf(wanted.time, 0),
      )
      if (landing !== week) draft.flags |= bit['past-end']
      draft.reasons.push({
        slot,
        code: 'pattern',
        before: null,
        after: wallOf(draft.day, draft.minute),
        names: {
          unit: number,
          week: landing,
          wanted: week,
          weekday: wanted.weekday,
          weekStarts: isoOf(first),
          time: wanted.time,
        },
      })
      for (const step of [...dateSteps, ...timeSteps]) step(draft, rule, crossing)
      return draft
    }
    return finishItem(id, start('opens'), start('due'), start('closes'), rule, crossing)
  })
}
