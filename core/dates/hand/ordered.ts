import { dayOf, minuteOf, wallOf, weekdayOf } from '../../calendar/day'
import { dateFields, type DateField, type ItemDates } from '../../course/dates'
import type { Draft } from '../draft'
import { order } from '../steps/order'

/**
 * The dates of an item put in order by the engine's own step (`docs/dates.md` §5): opening and closing give way to the due date, and keep
 * the distance from it that they had before. `was`: the dates from which they were moved.
 */
export function orderedDates(was: Readonly<ItemDates>, is: Readonly<ItemDates>): ItemDates {
  const drafts = new Map<DateField, Draft>()
  const isAfter = (one: DateField, other: DateField): boolean => (was[one] ?? '') > (was[other] ?? '9')
  const isInverted = isAfter('opens', 'due') || isAfter('due', 'closes') || isAfter('opens', 'closes')
  const isWhole = dateFields.every(field => is[field] === null || was[field] !== null)
  // What was the wrong way round before, or was not there, has no distance to keep: it takes the other's day.
  const before = isInverted || !isWhole ? null : was
  const anchor = is.due ?? is.opens
  for (const field of dateFields) {
    const at = is[field]
    if (at === null) continue
    const from = before?.[field] ?? anchor ?? at
    drafts.set(field, {
      field,
      from: dayOf(from),
      fromMinute: minuteOf(from),
      weekday: weekdayOf(dayOf(from)),
      day: dayOf(at),
      minute: minuteOf(at),
      flags: 0,
      reasons: [],
      dated: true,
      movable: true,
    })
  }
  const draft = (field: DateField): Draft | null => drafts.get(field) ?? null
  order(draft('opens'), draft('due'), draft('closes'))
  const at = (field: DateField): ItemDates[DateField] => {
    const found = draft(field)
    return found && wallOf(found.day, found.minute)
  }
  return { opens: at('opens'), due: at('due'), closes: at('closes') }
}
