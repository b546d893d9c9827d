import { present } from '../../present'
import { strict as chrono } from 'chrono-node'
import { dayOfCivil, isoOf, isDate } from '../../calendar/day'

/** How a date of three numbers is meant where the year does not come first. */
export type DateOrder = 'day-month' | 'month-day'
export interface DateCell {
  readonly first: string
  readonly last: string
}

const longest = 60
const isoPattern = /^(\d{4})[-/.](\d{1,2})[-/.](\d{1,2})(?:[T ]\d{1,2}:\d\d(?::\d\d(?:\.\d+)?)?Z?)?$/
const numericPattern = /^(\d{1,2})[/.-](\d{1,2})[/.-](\d{4}|\d\d)$/
const weekday = /^(?:mon|tue|wed|thu|fri|sat|sun)[a-z]*\.?,?\s+/i
const civil = (year: number, month: number, date: number): string | null => {
  const text = `${String(year).padStart(4, '0')}-${String(month).padStart(2, '0')}-${String(date).padStart(2, '0')}`
  return isDate(text) && isoOf(dayOfCivil(year, month, date)) === text ? text : null
}

/** Reads one date of three numbers; null for what is none. Years of two digits are of this century. */
function numeric(text: string, order: DateOrder): string | null {
  const iso = isoPattern.exec(text)
  if (iso) return civil(Number(iso[1]), Number(iso[2]), Number(iso[3]))
  const match = numericPattern.exec(text)
  if (!match) return null
  const [a, b] = [Number(match[1]), Number(match[2])]
  const year = present(match[3]).length === 2 ? 2000 + Number(match[3]) : Number(match[3])
  return order === 'day-month' ? civil(year, b, a) : civil(year, a, b)
}

/** What a cell says of days: `2027-02-15`, `15/2/2027`, `Mon 15 Feb 2027`, `February 15–19, 2027`. Null where it says no date with a year. */
export function dateOfCell(cell: string, order: DateOrder): DateCell | null {
  const text = cell.trim()
  if (text === '' || text.length > longest || !/\d/.test(text)) return null
  const single = numeric(text, order) ?? numeric(text.replace(weekday, ''), order)
  if (single) return { first: single, last: single }
  const pair = text.split(/\s+(?:to|until|–|—|-)\s+|\s*[–—]\s*/)
  if (pair.length === 2) {
    const [from, to] = [numeric(present(pair[0]), order), numeric(present(pair[1]), order)]
    if (from && to && from <= to) return { first: from, last: to }
  }
  if (!/[a-z]{3}/i.test(text)) return null
  const [found] = chrono.parse(text.replace(/[–—]/g, '-'), undefined, { forwardDate: false })
  // Only where the cell is a date and nothing but a date, and its year stands there.
  if (
    !found ||
    found.text.length < text.length - 6 ||
    !found.start.isCertain('year') ||
    !found.start.isCertain('day') ||
    !found.start.isCertain('month')
  )
    return null
  const at = (part: typeof found.start): string | null =>
    civil(part.get('year') ?? 0, part.get('month') ?? 0, part.get('day') ?? 0)
  const first = at(found.start)
  const last = found.end ? at(found.end) : first
  return first && last && first <= last ? { first, last } : null
}

/** The order in which the dates of a table are written, from those that can be read in one way only. `certain`: whether any says so. */
export function orderOf(cells: Iterable<string>): { order: DateOrder; certain: boolean } {
  let days = 0
  let months = 0
  let dots = 0
  for (const cell of cells) {
    const match = numericPattern.exec(cell.trim())
    if (!match) continue
    if (Number(match[1]) > 12 && Number(match[2]) <= 12) days++
    else if (Number(match[2]) > 12 && Number(match[1]) <= 12) months++
    else if (cell.includes('.')) dots++
  }
  if (days !== months)
    return { order: days > months ? 'day-month' : 'month-day', certain: days === 0 || months === 0 }
  // Dates with dots put the day first wherever they are written so (common practice, no source).
  return dots > 0 && days === 0
    ? { order: 'day-month', certain: true }
    : { order: 'day-month', certain: false }
}
