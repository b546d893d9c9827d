import { civilOfDay, dayOfCivil, weekdayOf, type Day } from '../../calendar/day'
import { present } from '../../present'
import { weekdayOfWord, weekdayPattern, type DayReader, type Said, type TypedContext } from './typed'

const monthWords = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec']
const monthPattern =
  '(jan(?:uary)?|feb(?:ruary)?|mar(?:ch)?|apr(?:il)?|may|june?|july?|aug(?:ust)?|sept?(?:ember)?|oct(?:ober)?|nov(?:ember)?|dec(?:ember)?)'

const monthDays = (year: number, month: number): number =>
  dayOfCivil(month === 12 ? year + 1 : year, (month % 12) + 1, 1) - dayOfCivil(year, month, 1)

/** A day of a year, or why there is none. */
function civil(year: number, month: number, date: number): Said {
  if (month < 1 || month > 12) return { why: { code: 'no-such-month', details: { month } } }
  const days = monthDays(year, month)
  if (date < 1 || date > days) return { why: { code: 'no-such-day', details: { month, year, days } } }
  return { day: dayOfCivil(year, month, date) }
}
/** Years of two digits are of this century. */
const yearOfText = (text: string): number => (text.length === 2 ? 2000 + Number(text) : Number(text))

/** The day around which a date without a year is meant. */
export const middleOf = ({ term, was, today }: TypedContext): Day =>
  term ? (term.classes.from + (term.exams ?? term.classes).to) >> 1 : (was?.day ?? today)
/** A day and a month: of the year in which they lie nearest to the term. */
function withoutYear(month: number, date: number, context: TypedContext): Said {
  const middle = middleOf(context)
  const { year } = civilOfDay(middle)
  const nearest = [year - 1, year, year + 1]
    .map(each => ({ each, said: civil(each, month, date) }))
    .filter((entry): entry is { each: number; said: { day: Day } } => 'day' in entry.said)
    .sort((a, b) => Math.abs(a.said.day - middle) - Math.abs(b.said.day - middle))
  return nearest[0]?.said ?? civil(year, month, date)
}
const dated = (year: string | undefined, month: number, date: number, context: TypedContext): Said =>
  year === undefined ? withoutYear(month, date, context) : civil(yearOfText(year), month, date)

/** `2027-03-05`, `20270305` */
const yearFirst: DayReader = text => {
  const found = /^(\d{4})([-/.])(\d{1,2})\2(\d{1,2})$/.exec(text)
  if (found) return civil(Number(found[1]), Number(found[3]), Number(found[4]))
  const bare = /^(\d{2})(\d{2})(\d{2})(\d{2})$/.exec(text)
  if (!bare) return null
  const [a, b, c, d] = bare.slice(1).map(Number) as [number, number, number, number]
  // Eight digits: the year comes first where it can be one, else last.
  return a === 19 || a === 20 || a === 21 ? civil(a * 100 + b, c, d) : civil(c * 100 + d, b, a)
}

/** `22.2.27`, `3/4`, `5/3/2027`: with dots the day comes first (common practice, no source); else only where it must. */
const numbers: DayReader = (text, context) => {
  const found = /^(\d{1,2})([./-])(\d{1,2})(?:\2(\d{4}|\d{2}))?\.?$/.exec(text)
  if (!found) return null
  const [a, mark, b, year] = [Number(found[1]), present(found[2]), Number(found[3]), found[4]]
  const dayFirst = dated(year, b, a, context)
  const monthFirst = dated(year, a, b, context)
  if (mark === '.' || a === b || a > 12) return dayFirst
  if (b > 12) return monthFirst
  if (!('day' in dayFirst)) return monthFirst
  return 'day' in monthFirst ? { days: [dayFirst.day, monthFirst.day] } : dayFirst
}

const dayAndMonth = new RegExp(
  `^(?:${weekdayPattern}\\s+)?(?:(\\d{1,2})(?:st|nd|rd|th)?\\s*(?:of\\s+)?${monthPattern}|${monthPattern}\\s*(\\d{1,2})(?:st|nd|rd|th)?)(?:\\s+(\\d{4}))?$`,
)
/** `5 mar`, `March 5th`, `fri 5 feb 2027` */
const named: DayReader = (text, context) => {
  const found = dayAndMonth.exec(text.replaceAll('.', ' ').replace(/\s+/g, ' ').trim())
  if (!found) return null
  const [, weekdayWord, dateFirst, monthAfter, monthBefore, dateAfter, year] = found
  const month = monthWords.indexOf((monthAfter ?? monthBefore ?? '').slice(0, 3)) + 1
  const said = dated(year, month, Number(dateFirst ?? dateAfter), context)
  if (!('day' in said) || weekdayWord === undefined) return said
  const weekday = weekdayOfWord(weekdayWord)
  if (weekdayOf(said.day) === weekday) return said
  return { why: { code: 'other-weekday', details: { day: said.day, weekday } } }
}

/** A number alone is the day of no month. */
const dateAlone: DayReader = text =>
  /^\d{1,2}(st|nd|rd|th)?$/.test(text) ? { why: { code: 'month-missing' } } : null

export const civilReaders: readonly DayReader[] = [yearFirst, numbers, named, dateAlone]
