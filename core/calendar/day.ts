import type { z } from 'zod'

/**
 * Civil days as whole numbers: days since 1970-01-01 (proleptic Gregorian, ISO 8601).
 * Everything that computes with dates works on these; text stands at the edges only.
 */
export type Day = number
/** A wall-clock date-time `YYYY-MM-DDTHH:MM` that was checked, or made by {@link wallOf}. */
export type WallTime = string & z.$brand<'WallTime'>
/** ISO 8601 weekday: 1 = Monday … 7 = Sunday. */
export type Weekday = 1 | 2 | 3 | 4 | 5 | 6 | 7

/** ⌊a / b⌋ in exact integers, for negative numbers too (b > 0). */
export const floorDiv = (a: number, b: number): number => (a - floorMod(a, b)) / b
/** a − b·⌊a / b⌋ (b > 0). */
export const floorMod = (a: number, b: number): number => ((a % b) + b) % b
/** ⌊a / b + ½⌋ in exact integers (b > 0): the one rounding that dates use. */
export const roundDiv = (a: number, b: number): number => floorDiv(2 * a + b, 2 * b)

/** Days since 1970-01-01 of a year, month (1–12) and day of the month. */
export function dayOfCivil(year: number, month: number, date: number): Day {
  // Years are counted from March, so that the leap day is the last of its year.
  const y = month <= 2 ? year - 1 : year
  const era = Math.floor(y / 400)
  const yearOfEra = y - era * 400
  const dayOfYear = Math.floor((153 * (month + (month > 2 ? -3 : 9)) + 2) / 5) + date - 1
  return (
    era * 146097 +
    yearOfEra * 365 +
    Math.floor(yearOfEra / 4) -
    Math.floor(yearOfEra / 100) +
    dayOfYear -
    719468
  )
}

/** Year, month and day of the month of a day number. */
export function civilOfDay(day: Day): { year: number; month: number; date: number } {
  const z = day + 719468
  const era = Math.floor(z / 146097)
  const dayOfEra = z - era * 146097
  const yearOfEra = Math.floor(
    (dayOfEra - Math.floor(dayOfEra / 1460) + Math.floor(dayOfEra / 36524) - Math.floor(dayOfEra / 146096)) /
      365,
  )
  const dayOfYear = dayOfEra - (365 * yearOfEra + Math.floor(yearOfEra / 4) - Math.floor(yearOfEra / 100))
  const mp = Math.floor((5 * dayOfYear + 2) / 153)
  const month = mp < 10 ? mp + 3 : mp - 9
  return {
    year: yearOfEra + era * 400 + (month <= 2 ? 1 : 0),
    month,
    date: dayOfYear - Math.floor((153 * mp + 2) / 5) + 1,
  }
}

const digit = (text: string, at: number): number => text.charCodeAt(at) - 48
const two = (text: string, at: number): number => digit(text, at) * 10 + digit(text, at + 1)

/** Day number of `YYYY-MM-DD…` (what follows the date is not looked at). The text must be a date: see {@link isDate}. */
export const dayOf = (text: string): Day =>
  dayOfCivil(two(text, 0) * 100 + two(text, 2), two(text, 5), two(text, 8))
/** Minutes after midnight of `HH:MM` standing at `at` (11 in a date-time, 0 in a time). */
export const minuteOf = (text: string, at = 11): number => two(text, at) * 60 + two(text, at + 3)

const pad = (n: number): string => (n < 10 ? `0${n}` : `${n}`)
const texts = new Map<Day, string>()
/** `YYYY-MM-DD` of a day number. The texts are shared: a plan names the same few hundred days again and again. */
export function isoOf(day: Day): string {
  let text = texts.get(day)
  if (text === undefined) {
    const { year, month, date } = civilOfDay(day)
    text = `${String(year).padStart(4, '0')}-${pad(month)}-${pad(date)}`
    if (texts.size > 20_000) texts.clear()
    texts.set(day, text)
  }
  return text
}
const clocks: string[] = []
/** `HH:MM` of minutes after midnight. */
export const clockOf = (minute: number): string =>
  (clocks[minute] ??= `${pad(Math.floor(minute / 60))}:${pad(minute % 60)}`)
/** `YYYY-MM-DDTHH:MM` of a day number and minutes after midnight. */
export const wallOf = (day: Day, minute: number): WallTime => `${isoOf(day)}T${clockOf(minute)}` as WallTime

/** ISO weekday of a day number (1970-01-01 was a Thursday). */
export const weekdayOf = (day: Day): Weekday => (floorMod(day + 3, 7) + 1) as Weekday

const datePattern = /^\d{4}-\d{2}-\d{2}$/
const timePattern = /^([01]\d|2[0-3]):[0-5]\d$/
/** The years in which dates may lie (`docs/dates.md` §2): outside them somebody has mistyped. */
export const firstYear = 1970
export const lastYear = 2199
/** Whether a text is a day of the calendar, `YYYY-MM-DD`, of whatever year. */
export const isCalendarDay = (text: string): boolean =>
  datePattern.test(text) && two(text, 5) >= 1 && two(text, 8) >= 1 && isoOf(dayOf(text)) === text
/** Whether a text is a civil date that exists and may be meant, `YYYY-MM-DD`. */
export const isDate = (text: string): boolean => isCalendarDay(text) && isYear(Number(text.slice(0, 4)))
const isYear = (year: number): boolean => year >= firstYear && year <= lastYear
/** Whether a text is a wall-clock time, `HH:MM`, 00:00 to 23:59. */
export const isTime = (text: string): boolean => timePattern.test(text)
/** Whether a text is a wall-clock date-time, `YYYY-MM-DDTHH:MM`. */
export const isDateTime = (text: string): text is WallTime =>
  text.length === 16 && text[10] === 'T' && isDate(text.slice(0, 10)) && isTime(text.slice(11))
