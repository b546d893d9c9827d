import { isoOf, roundDiv } from '../../calendar/day'
import { dayInWeek, weekFirst } from '../../calendar/term'
import { turned, type Prepare } from '../draft'
import type { RuleOf } from '../rule'

/** The same number of days for everything; without `days`, the distance between the first days of classes. */
export const offset: Prepare<RuleOf<'offset'>> = (rule, { source, target }) => {
  const distance = target.classes.from - source.classes.from
  const days = rule.days ?? (rule.wholeWeeks ? 7 * roundDiv(distance, 7) : distance)
  const names = { days, how: rule.days !== null ? 'given' : rule.wholeWeeks ? 'whole-weeks' : 'first-day' }
  return draft => {
    draft.day = draft.from + days
    draft.reasons.push({
      slot: draft.slot,
      code: 'offset',
      before: isoOf(draft.from),
      after: isoOf(draft.day),
      names,
    })
    const weekday = turned(rule, draft.weekday)
    if (weekday === draft.weekday) return
    const before = isoOf(draft.day)
    draft.day = dayInWeek(target.weekStart, weekFirst(target.weekStart, draft.day), weekday)
    draft.reasons.push({
      slot: draft.slot,
      code: 'weekday-table',
      before,
      after: isoOf(draft.day),
      names: { was: draft.weekday, weekday },
    })
  }
}
