import { present } from '../../present'
import { dayOf, isDate } from '../../calendar/day'
import type { Weekday } from '../../calendar/day'
import { frequencies, type Frequency, type Moment, type RecurrenceRule } from '../../calendar/recurrence'

/** A date, or a wall-clock or UTC date-time, of an iCalendar value. Null where the text is none. */
export interface Stamp {
  readonly moment: Moment
  readonly kind: 'date' | 'wall' | 'utc'
}
export function stampOfValue(text: unknown): Stamp | null {
  if (typeof text !== 'string' || !isDate(text.slice(0, 10))) return null
  const day = dayOf(text)
  if (text.length === 10 || text.slice(10) === 'T::') return { moment: { day, second: 0 }, kind: 'date' }
  const time = /^T([01]\d|2[0-3]):([0-5]\d):([0-5]\d|60)(Z?)$/.exec(text.slice(10))
  return (
    time && {
      moment: { day, second: Number(time[1]) * 3600 + Number(time[2]) * 60 + Math.min(Number(time[3]), 59) },
      kind: time[4] ? 'utc' : 'wall',
    }
  )
}

const weekdays: Record<string, Weekday> = { MO: 1, TU: 2, WE: 3, TH: 4, FR: 5, SA: 6, SU: 7 }
/** The parser counts weekdays from Sunday, 1. */
const weekStartOf = (value: unknown): Weekday =>
  typeof value === 'number' && value >= 1 && value <= 7 ? ((((value + 5) % 7) + 1) as Weekday) : 1
const list = (value: unknown): unknown[] =>
  value === undefined ? [] : Array.isArray(value) ? value : [value]
function numbers(value: unknown, name: string, least: number, most: number): number[] {
  return list(value).map(entry => {
    const number = Number(entry)
    if (!Number.isInteger(number) || number < least || number > most || (least < 0 && number === 0))
      throw new Error(`${name} has the value ${String(entry).slice(0, 20)}`)
    return number
  })
}

/** A rule as the parser gives it (RFC 7265 §3.6.10), its values checked. `until` is given in the wall clock of the event. @throws Error naming the part. */
export function ruleOf(value: Record<string, unknown>, until: (stamp: Stamp) => Moment): RecurrenceRule {
  if (!frequencies.includes(value.freq as Frequency))
    throw new Error(
      value.freq === undefined
        ? 'a rule has no FREQ'
        : `FREQ has the value ${String(value.freq).slice(0, 20)}`,
    )
  const interval = value.interval === undefined ? 1 : Number(value.interval)
  if (!Number.isInteger(interval) || interval < 1 || interval > 1_000_000)
    throw new Error(`INTERVAL has the value ${String(value.interval).slice(0, 20)}`)
  const count = value.count === undefined ? null : Number(value.count)
  if (count !== null && (!Number.isInteger(count) || count < 1))
    throw new Error(`COUNT has the value ${String(value.count).slice(0, 20)}`)
  const last = value.until === undefined ? null : stampOfValue(value.until)
  if (value.until !== undefined && !last)
    throw new Error(`UNTIL has the value ${String(value.until).slice(0, 30)}`)
  return {
    frequency: value.freq as Frequency,
    interval,
    count,
    until: last && until(last),
    months: numbers(value.bymonth, 'BYMONTH', 1, 12),
    weeks: numbers(value.byweekno, 'BYWEEKNO', -53, 53),
    yearDays: numbers(value.byyearday, 'BYYEARDAY', -366, 366),
    monthDays: numbers(value.bymonthday, 'BYMONTHDAY', -31, 31),
    weekdays: list(value.byday).map(entry => {
      const match = /^([+-]?\d{1,2})?(MO|TU|WE|TH|FR|SA|SU)$/.exec(String(entry))
      if (!match || Number(match[1] ?? 1) === 0)
        throw new Error(`BYDAY has the value ${String(entry).slice(0, 20)}`)
      return { nth: Number(match[1] ?? 0), weekday: present(weekdays[present(match[2])]) }
    }),
    hours: numbers(value.byhour, 'BYHOUR', 0, 23),
    minutes: numbers(value.byminute, 'BYMINUTE', 0, 59),
    seconds: numbers(value.bysecond, 'BYSECOND', 0, 60),
    positions: numbers(value.bysetpos, 'BYSETPOS', -366, 366),
    weekStart: weekStartOf(value.wkst),
  }
}
