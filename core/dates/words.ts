import { civilOfDay, dayOf, weekdayOf } from '../calendar/day'
import type { Term } from '../calendar/term'
import type { Years } from '../calendar/zone'

const weekdays = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday']
const months = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec']

const longMonths = [
  'January',
  'February',
  'March',
  'April',
  'May',
  'June',
  'July',
  'August',
  'September',
  'October',
  'November',
  'December',
]

const numbers = new Intl.NumberFormat('en')
/** `1,200` */
export const numberText = (n: number): string => numbers.format(n)
/** `1 item`, `3 items` */
export const counted = (n: number, one: string, many = `${one}s`): string =>
  `${numberText(n)} ${n === 1 ? one : many}`

/** January … December of a month from 1 to 12. */
export const monthName = (month: number): string => longMonths[month - 1] ?? ''
/** Monday … Sunday of an ISO weekday. */
export const weekdayName = (weekday: number): string => weekdays[weekday - 1]!
/** Mon … Sun of an ISO weekday. */
export const weekdayShort = (weekday: number): string => weekdayName(weekday).slice(0, 3)
/** The years of a term from the first day of classes to the last day, of exams where it has some. */
export const yearsOf = ({ classes, exams }: Pick<Term, 'classes' | 'exams'>): Years => ({
  from: civilOfDay(classes.from).year,
  to: civilOfDay((exams ?? classes).to).year,
})
/** The same of a term of which only its class days are known, `YYYY-MM-DD`. */
export const yearsOfClasses = (term: {
  readonly classesFrom: string
  readonly classesTo: string
}): Years => ({
  from: Number(term.classesFrom.slice(0, 4)),
  to: Number(term.classesTo.slice(0, 4)),
})
/** `Fri 5 Feb` of a date or date-time; with its year, where that is none of `years`. */
export function dayText(text: string, years: Years | null = null): string {
  const day = `${weekdayShort(weekdayOf(dayOf(text)))} ${shortDay(text)}`
  const year = Number(text.slice(0, 4))
  return years && (year < years.from || year > years.to) ? `${day} ${year}` : day
}
/** `5 Feb` of a date. */
export const shortDay = (text: string): string =>
  `${Number(text.slice(8, 10))} ${months[Number(text.slice(5, 7)) - 1]}`
/** `8 Sep to 4 Dec 2026` of two dates; both years where it crosses one. */
export function spanText(from: string, to: string): string {
  const [first, last] = [from.slice(0, 4), to.slice(0, 4)]
  return `${shortDay(from)}${first === last ? '' : ` ${first}`} to ${shortDay(to)} ${last}`
}
/** `Mon 4 Jan to Fri 16 Apr 2027` of two dates, either of which may be open; both years where it crosses one. */
export function rangeText(from: string | null, to: string | null): string {
  const year = to?.slice(0, 4)
  const begins = from && `${dayText(from)}${from.slice(0, 4) === year ? '' : ` ${from.slice(0, 4)}`}`
  return `${begins ?? 'any day'} to ${to ? `${dayText(to)} ${year}` : 'no end'}`
}
/** `Fri 5 Feb 23:59` of a date-time; with its year, where that is none of `years`. */
export const momentText = (text: string, years: Years | null = null): string =>
  `${dayText(text, years)} ${text.slice(11, 16)}`
/** `Mon Wed Fri 13:00` of a meeting pattern; several times stand apart. */
export function meetingText(meetings: readonly { weekday: number; start: string }[]): string {
  const byTime = new Map<string, number[]>()
  for (const { weekday, start } of meetings) byTime.set(start, [...(byTime.get(start) ?? []), weekday])
  return [...byTime].map(([start, days]) => `${days.sort().map(weekdayShort).join(' ')} ${start}`).join(', ')
}
