import { civilOfDay, isoOf, weekdayOf, type Day, type Weekday } from '../../calendar/day'
import { counted, dayText, monthName, weekdayName } from '../words'

const told = <Details>(says: (details: Details) => string) => says
/** Why a typed text is no date, by code: the one place where it becomes a sentence. */
const sentences = {
  'not-understood': () => 'Not understood. Try “5 mar”, “fri wk 5”, “+2d” or “none”.',
  'no-such-day': told(
    ({ month, year, days }: { month: number; year: number; days: number }) =>
      `${monthName(month)} ${year} has ${days} days.`,
  ),
  'no-such-month': told(({ month }: { month: number }) => `There is no month ${month}.`),
  'other-weekday': told(
    ({ day, weekday }: { day: Day; weekday: Weekday }) =>
      `${dayText(isoOf(day)).slice(4)} ${civilOfDay(day).year} is no ${weekdayName(weekday)}: it is a ${weekdayName(weekdayOf(day))}.`,
  ),
  'month-missing': () => 'Which month? Type it too, as in “12 mar”.',
  'far-off': told(
    ({ year, years, than }: { year: number; years: number; than: 'term' | 'today' }) =>
      `${year} is ${counted(Math.abs(years), 'year')} ${years > 0 ? 'after' : 'before'} ${than === 'term' ? 'this term' : 'this year'}.`,
  ),
  'no-such-week': told(
    ({ week, weeks }: { week: number; weeks: number }) =>
      `There is no week ${week}: the term has ${counted(weeks, 'teaching week')}.`,
  ),
  'no-such-time': told(({ time }: { time: string }) => `${time} is no time of day.`),
  'nothing-to-count-from': () => 'There is no date yet to count from. Type the day itself.',
  'no-class': told(({ way }: { way: 'next' | 'last' }) =>
    way === 'next' ? 'No class of the term follows.' : 'No class of the term comes before.',
  ),
  'no-meetings': () => 'The section has no meeting times. Type the day itself.',
  'no-such-closure': told(({ name }: { name: string }) =>
    name === '' ? 'The term has no closure there.' : `The term has no closure called “${name}”.`,
  ),
  'no-term': () => 'This field belongs to no term. Type the day itself.',
}
type Sentences = typeof sentences
export type NoDateCode = keyof Sentences
export type NoDate = {
  [Code in NoDateCode]: Parameters<Sentences[Code]> extends [infer Details]
    ? { readonly code: Code; readonly details: Details }
    : { readonly code: Code }
}[NoDateCode]

/** The sentence for it. */
export const noDateText = (why: NoDate): string =>
  (sentences[why.code] as (details?: unknown) => string)('details' in why ? why.details : undefined)
