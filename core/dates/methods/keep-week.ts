import { isoOf, type Day } from '../../calendar/day'
import { dayInWeek, teachingWeek } from '../../calendar/term'
import type { Crossing } from '../draft'
import { bit } from '../flags'
import type { DateMethod, NoParameters, Place } from '../method'
import { placeOutsideClasses } from '../phases'
import { reason } from '../reason'
import { turned, type RuleCommon } from '../rule-common'
import { dayOrBlank, turnedText } from '../saying'
import { counted, weekdayName } from '../words'

interface Details {
  /** Teaching week it was in (or after), and the one it lands in (or after). */
  week: number
  landing: number
  /** How many weeks without a class day after it; 0: in the week itself. */
  breakWeek: number
  weekStarts: string
  was: number
  weekday: number
}
const startsText = ({ landing, week, weekStarts }: Details): string => {
  if (landing === week) return `Teaching week ${week} starts ${dayOrBlank(weekStarts)}`
  return `The new term has ${counted(landing, 'teaching week')}; the last starts ${dayOrBlank(weekStarts)}`
}
const reasons = {
  'keep-week': reason<Details>({
    short: ({ details: { landing, week } }) => (landing === week ? 'week and weekday' : 'past the last week'),
    sentence: ({ before, after, details }) => {
      const { breakWeek, landing, week, was, weekday, weekStarts } = details
      const turned = weekday === was ? '' : ` ${turnedText(was, weekday)}.`
      if (breakWeek > 0)
        return `Was ${dayOrBlank(before)}, in a week without classes after teaching week ${week}.${turned} This term the week after teaching week ${landing} starts ${dayOrBlank(weekStarts)}, so it lands on ${dayOrBlank(after)}.`
      return `Was ${dayOrBlank(before)}, the ${weekdayName(was)} of teaching week ${week}.${turned} ${startsText(details)}, so it lands on ${dayOrBlank(after)}.`
    },
  }),
}

/** The placing of keep-week, for methods that fall back on it. */
export function byWeek(rule: Pick<RuleCommon, 'weekdays'>, crossing: Crossing): Place {
  const { source, target } = crossing
  const last = target.weeks.length
  // Items of one week and weekday share their details: a plan has thousands of dates and some eighty of these.
  const shared = new Map<string, Details>()
  return draft => {
    if (placeOutsideClasses(crossing, draft)) return
    const { week, after } = teachingWeek(source, draft.from)
    const weekday = turned(rule, draft.weekday)
    const landing = Math.min(week, last)
    const first = weekAt(target.weeks, landing) + 7 * after
    draft.day = dayInWeek(target.weekStart, first, weekday)
    if (after > 0) draft.flags |= bit['break-week']
    else if (week > last) draft.flags |= bit['past-end']
    const key = `${week} ${after} ${draft.weekday}`
    let details = shared.get(key)
    if (!details) {
      details = { week, landing, breakWeek: after, weekStarts: isoOf(first), weekday, was: draft.weekday }
      shared.set(key, details)
    }
    draft.reasons.push({
      field: draft.field,
      code: 'keep-week',
      before: isoOf(draft.from),
      after: isoOf(draft.day),
      details,
    })
  }
}
/** First day of the n-th teaching week. A checked term has one at least. */
const weekAt = (weeks: readonly Day[], n: number): Day => weeks[n - 1] ?? 0

/** Same teaching week, same weekday (by the rule's table). Weeks without classes count from the teaching week before them. */
export const keepWeek: DateMethod<'keep-week', NoParameters, typeof reasons> = {
  name: 'keep-week',
  title: 'Same week and weekday',
  line: 'counts weeks',
  parameters: {},
  reasons,
  compared: { with: {}, rank: { same: 1, other: 3 } },
  prepare: byWeek,
}
