import { isoOf } from '../../calendar/day'
import { dayInWeek, teachingWeek } from '../../calendar/term'
import { bit, turned, type NameValue, type Prepare } from '../draft'
import type { Rule } from '../rule'
import { placeOutsideClasses } from '../zones'

/** Same teaching week, same weekday (by the rule's table). Weeks without classes count from the teaching week before them. */
export const keepWeek: Prepare<Rule> = (rule, crossing) => {
  const { source, target } = crossing
  const names = new Map<string, Record<string, NameValue>>()
  return draft => {
    if (placeOutsideClasses(crossing, draft)) return
    const { week, after } = teachingWeek(source, draft.from)!
    const weekday = turned(rule, draft.weekday)
    const last = target.weeks.length
    const landing = Math.min(week, last)
    const first = target.weeks[landing - 1]! + 7 * after
    draft.day = dayInWeek(target.weekStart, first, weekday)
    if (after > 0) draft.flags |= bit['break-week']
    else if (week > last) draft.flags |= bit['past-end']
    const key = `${week} ${after} ${draft.weekday}`
    let shared = names.get(key)
    if (!shared)
      names.set(
        key,
        (shared = { week, landing, breakWeek: after, weekStarts: isoOf(first), weekday, was: draft.weekday }),
      )
    draft.reasons.push({
      slot: draft.slot,
      code: 'keep-week',
      before: isoOf(draft.from),
      after: isoOf(draft.day),
      names: shared,
    })
  }
}
