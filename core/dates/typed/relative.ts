import { weekdayOf, type Day } from '../../calendar/day'
import { weekFirst } from '../../calendar/term'
import {
  onOrAfter,
  onOrBefore,
  weekdayOfWord,
  weekdayPattern,
  type DayReader,
  type TypedContext,
} from './typed'

const signed = /^([+-])\s*(\d{1,3})\s*(d|days?|w|wks?|weeks?)?$/
/** `+2d`, `-1w`, `+3` */
const counted: DayReader = (text, { was }) => {
  const found = signed.exec(text)
  if (!found) return null
  if (!was) return { why: { code: 'nothing-to-count-from' } }
  const days = Number(found[2]) * (found[3]?.startsWith('w') ? 7 : 1)
  return { day: was.day + (found[1] === '-' ? -days : days) }
}

const namedDays: Record<string, number> = { yesterday: -1, today: 0, tomorrow: 1 }
const aroundToday: DayReader = (text, { today }) => {
  const days = Object.hasOwn(namedDays, text) ? namedDays[text] : undefined
  return days === undefined ? null : { day: today + days }
}

const weekdayAlone = new RegExp(`^(?:(next|last|this)\\s+)?${weekdayPattern}$`)
/** The week in which a weekday alone is meant starts on Monday where no term says otherwise. */
const weekOf = ({ term }: TypedContext, day: Day): Day => weekFirst(term?.weekStart ?? 1, day)
/** `fri` is the Friday of the week in which the date stands; `next fri` the one after the date, `last fri` the one before. */
const aroundDate: DayReader = (text, context) => {
  const found = weekdayAlone.exec(text)
  if (!found?.[2]) return null
  const weekday = weekdayOfWord(found[2])
  const from = context.was?.day ?? context.today
  if (found[1] === 'next') return { day: onOrAfter(from + 1, weekday) }
  if (found[1] === 'last') return { day: onOrBefore(from - 1, weekday) }
  if (!context.was && found[1] === undefined) return { day: onOrAfter(from, weekday) }
  const first = weekOf(context, from)
  return { day: first + ((weekday - weekdayOf(first) + 7) % 7) }
}

export const relativeReaders: readonly DayReader[] = [counted, aroundToday, aroundDate]
