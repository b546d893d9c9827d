import { Temporal } from 'temporal-polyfill'
import type { TermCalendar } from '../core/calendar/schema'
import type { DatedItem } from '../core/dates/plan'
import { dateFields } from '../core/course/dates'

const { PlainDate, PlainDateTime } = Temporal

/** First days of the teaching weeks, found day by day. */
function teachingWeeks(calendar: TermCalendar): Temporal.PlainDate[] {
  const weeks: Temporal.PlainDate[] = []
  const end = PlainDate.from(calendar.classes.to)
  for (
    let day = PlainDate.from(calendar.classes.from);
    PlainDate.compare(day, end) <= 0;
    day = day.add({ days: 1 })
  ) {
    if (
      calendar.closures.some(
        closure => PlainDate.compare(day, closure.from) >= 0 && PlainDate.compare(day, closure.to) <= 0,
      )
    )
      continue
    const weekday = calendar.runsAs.find(entry => entry.date === day.toString())?.weekday ?? day.dayOfWeek
    if (!calendar.teachingWeekdays.includes(weekday as 1)) continue
    const first = day.subtract({ days: (day.dayOfWeek - calendar.weekStart + 7) % 7 })
    if (!weeks.at(-1)?.equals(first)) weeks.push(first)
  }
  return weeks
}

/**
 * The plainest keep-week there is, with Temporal objects: the same teaching week, the same weekday, the time kept; no steps, no
 * flags, no reasons. It stands here only to be measured against.
 */
export function plainKeepWeek(
  source: TermCalendar,
  target: TermCalendar,
  items: readonly DatedItem[],
): (string | null)[][] {
  const [from, to] = [teachingWeeks(source), teachingWeeks(target)]
  return items.map(item =>
    dateFields.map(field => {
      const text = item[field]
      if (text === null) return null
      const at = PlainDateTime.from(text)
      const date = at.toPlainDate()
      const week = from.findLastIndex(first => PlainDate.compare(first, date) <= 0)
      if (week < 0)
        return to[0]!
          .add({ days: from[0]!.until(date).days })
          .toPlainDateTime(at.toPlainTime())
          .toString({ smallestUnit: 'minute' })
      const first = to[Math.min(week, to.length - 1)]!
      const days = from[week]!.until(date).days
      return first.add({ days }).toPlainDateTime(at.toPlainTime()).toString({ smallestUnit: 'minute' })
    }),
  )
}
