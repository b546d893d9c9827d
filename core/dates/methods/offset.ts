import { z } from 'zod'
import { isoOf, roundDiv } from '../../calendar/day'
import { dayInWeek, weekFirst } from '../../calendar/term'
import type { DateMethod } from '../method'
import { reason } from '../reason'
import { turned, yesOrNo } from '../rule-common'
import { dayOrBlank, turnedText } from '../saying'
import { counted } from '../words'

const farthest = 84_006
const parameters = {
  /** Days to move by, at most some 230 years either way: the span in which dates may lie. Null: the distance between the first days of classes. */
  days: z
    .int({ error: 'must be a whole number of days' })
    .min(-farthest, `must be at least -${farthest} days`)
    .max(farthest, `must be at most ${farthest} days`)
    .nullish()
    .transform(value => value ?? null),
  /** That distance rounded to whole weeks; ignored beside `days`. */
  wholeWeeks: yesOrNo,
}
const distances = {
  given: 'the distance that was asked for',
  'whole-weeks': 'the distance between the first days of classes, in whole weeks',
  'first-day': 'the distance between the first days of classes',
}
const reasons = {
  offset: reason<{ days: number; how: keyof typeof distances }>({
    short: 'same distance',
    sentence: ({ before, after, details: { days, how } }) =>
      `Was ${dayOrBlank(before)}. ${counted(Math.abs(days), 'day')} ${days < 0 ? 'earlier' : 'later'}, ${distances[how]}, is ${dayOrBlank(after)}.`,
  }),
  'weekday-table': reason<{ was: number; weekday: number }>({
    sentence: ({ after, details }) =>
      `${turnedText(details.was, details.weekday)}: ${dayOrBlank(after)} of that week.`,
  }),
}

/** The same number of days for everything; without `days`, the distance between the first days of classes. */
export const offset: DateMethod<'offset', typeof parameters, typeof reasons> = {
  name: 'offset',
  title: 'Same distance from the first day',
  line: 'counts days',
  parameters,
  reasons,
  asks: [
    { as: 'check', name: 'wholeWeeks', words: 'in whole weeks', unless: 'days' },
    { as: 'number', name: 'days', words: 'or days' },
  ],
  compared: { with: { wholeWeeks: true }, rank: { same: 2, other: 4 } },
  prepare(rule, { source, target }) {
    const distance = target.classes.from - source.classes.from
    const whole = rule.wholeWeeks ? 7 * roundDiv(distance, 7) : distance
    const days = rule.days ?? whole
    const unasked = rule.wholeWeeks ? 'whole-weeks' : 'first-day'
    const details = { days, how: rule.days === null ? unasked : 'given' } as const
    return draft => {
      const { field } = draft
      draft.day = draft.from + days
      draft.reasons.push({
        field,
        code: 'offset',
        before: isoOf(draft.from),
        after: isoOf(draft.day),
        details,
      })
      const weekday = turned(rule, draft.weekday)
      if (weekday === draft.weekday) return
      const before = isoOf(draft.day)
      draft.day = dayInWeek(target.weekStart, weekFirst(target.weekStart, draft.day), weekday)
      draft.reasons.push({
        field,
        code: 'weekday-table',
        before,
        after: isoOf(draft.day),
        details: { was: draft.weekday, weekday },
      })
    }
  },
}
