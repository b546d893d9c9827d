import { isTime, wallOf, type WallTime } from '../../calendar/day'
import type { Term } from '../../calendar/term'
import { dateFields, datesOf, usualTimes, type ItemDates } from '../../course/dates'
import { farFault } from '../../dates/far'
import { FormatRefusal } from '../refusal'
import { dateOfCell, orderOf, type DateOrder } from './dates'

/** Columns of a sheet of a plan’s dates that are read when it comes back; all others are for the eye. */
export const sheetColumns = {
  opens: 'Opens',
  due: 'Due',
  closes: 'Closes',
  held: 'Held',
  key: 'Key',
  plan: 'Plan',
} as const
type Column = keyof typeof sheetColumns
/** What may stand in the column Held. */
export const heldWords = ['yes', 'no'] as const

/** A unit or item of the plan as it stands when the sheet comes back. */
export interface SheetItem extends Readonly<ItemDates> {
  readonly id: string
  readonly title: string
  readonly held: boolean
  /** A unit opens, and has no other date. */
  readonly isUnit?: boolean
}
/** What a row would change. `is`: the dates that the item would be held at; null: it would be let go. */
export interface SheetChange {
  readonly id: string
  readonly title: string
  readonly row: number
  readonly was: ItemDates
  readonly is: ItemDates | null
}
/** A row that does not count, and why. */
export interface SheetProblem {
  readonly row: number
  readonly title: string
  readonly message: string
}
export interface SheetComparison {
  readonly changes: readonly SheetChange[]
  readonly problems: readonly SheetProblem[]
  readonly unchanged: number
  /** Items of the plan that the sheet does not name; they stay as they are. */
  readonly absent: number
}

/** A time of day at the end of a cell. */
export const timePattern = /(?:[T,]|\s)+(\d{1,2})[:.h](\d{2})(?::\d{2}(?:\.\d+)?)?\s*(am|pm)?\s*Z?$/i
/** Days from a spreadsheet's first day to 1 January 1970 (ECMA-376 part 1, §18.17.4.1, the 1900 system). */
const serialZero = 25_569
const noDateWords = new Set(['', '-', '–', '—', 'none', 'no date'])

/** A date as a number of days, as a spreadsheet writes it where its format was lost. */
function serial(text: string): WallTime | null {
  if (!/^\d{5}(\.\d+)?$/.test(text)) return null
  const minutes = Math.round(Number(text) * 1440)
  return wallOf(Math.floor(minutes / 1440) - serialZero, minutes % 1440)
}
/** Hours and minutes after midnight, `17:00` or `5:00 pm`; null for what is none. */
function clock([, hour = '', minute = '', half = '']: RegExpExecArray): string | null {
  const given = Number(hour)
  if (half && (given < 1 || given > 12)) return null
  const hours = half ? (given % 12) + (half.toLowerCase() === 'pm' ? 12 : 0) : given
  const text = `${String(hours).padStart(2, '0')}:${minute}`
  return isTime(text) ? text : null
}
/**
 * What a cell says: a date-time, null for no date, undefined for what is neither. Without a time of day it takes `time`.
 */
export function momentOfCell(cell: string, order: DateOrder, time: string): WallTime | null | undefined {
  const text = cell.trim().replace(/^'/, '')
  if (noDateWords.has(text.toLowerCase())) return null
  const number = serial(text)
  if (number) return number
  const found = timePattern.exec(text)
  const date = dateOfCell(found ? text.slice(0, found.index) : text, order)
  const at = found ? clock(found) : time
  if (!date || date.first !== date.last || at === null) return undefined
  return `${date.first}T${at}` as WallTime
}

type Places = Record<Column, number>
function placesOf(file: string, header: readonly string[]): Places {
  const at = (name: string): number =>
    header.findIndex(cell => cell.trim().toLowerCase() === name.toLowerCase())
  const places = Object.fromEntries(
    Object.entries(sheetColumns).map(([column, name]) => [column, at(name)]),
  ) as Places
  if (places.key < 0 || dateFields.every(field => places[field] < 0))
    throw new FormatRefusal('no-plan-sheet', file)
  return places
}
/** Day or month first: what more cells say beyond doubt, else what leaves more dates as they are. */
function orderIn(
  rows: readonly (readonly string[])[],
  places: Places,
  items: ReadonlyMap<string, SheetItem>,
): DateOrder {
  const cells = rows.flatMap(row =>
    dateFields.flatMap(field => {
      const was = items.get(row[places.key]?.trim() ?? '')?.[field]
      const text = (row[places[field]] ?? '').trim()
      return text === '' ? [] : [{ text, was: was?.slice(0, 10) }]
    }),
  )
  const { order, certain } = orderOf(cells.map(cell => cell.text.replace(timePattern, '')))
  if (certain) return order
  const same = (by: DateOrder): number =>
    cells.filter(({ text, was }) => was && momentOfCell(text, by, '00:00')?.slice(0, 10) === was).length
  return same('month-day') > same('day-month') ? 'month-day' : 'day-month'
}

/**
 * What a sheet of a plan's dates would change. Nothing of it counts before somebody accepts it. `rows`: cells as text, the header
 * first; `plan`: the plan's id, as it stands in its sheets.
 * @throws FormatRefusal where it is no such sheet.
 */
export function compareSheet(
  file: string,
  [header = [], ...rows]: readonly (readonly string[])[],
  { plan, items, term }: { plan: string; items: readonly SheetItem[]; term: Pick<Term, 'classes' | 'exams'> },
): SheetComparison {
  const places = placesOf(file, header)
  const byId = new Map(items.map(item => [item.id, item]))
  const order = orderIn(rows, places, byId)
  const changes: SheetChange[] = []
  const problems: SheetProblem[] = []
  const seen = new Set<string>()
  let unchanged = 0
  const cellOf = (row: readonly string[], column: Column): string => (row[places[column]] ?? '').trim()
  rows.forEach((row, index) => {
    const number = index + 2
    if (row.every(cell => cell.trim() === '')) return
    const id = cellOf(row, 'key')
    const item = byId.get(id)
    const problem = (message: string): void => {
      problems.push({ row: number, title: item?.title ?? (id || 'no key'), message })
    }
    if (cellOf(row, 'plan') !== '' && cellOf(row, 'plan') !== plan)
      return problem('This row is of another plan.')
    if (!item) return problem('No item of this plan has this key.')
    if (seen.has(id)) return problem('This item stands in the sheet twice; its first row counts.')
    seen.add(id)
    const read = rowDates(row, item, { places, order, term })
    if (typeof read === 'string') return problem(read)
    const was = datesOf(item)
    const isChanged = dateFields.some(field => read[field] !== was[field])
    const held = cellOf(row, 'held').toLowerCase()
    if (isChanged || (held === 'yes' && !item.held))
      changes.push({ id, title: item.title, row: number, was, is: read })
    else if (held === 'no' && item.held) changes.push({ id, title: item.title, row: number, was, is: null })
    else unchanged++
  })
  return { changes, problems, unchanged, absent: items.length - seen.size }
}

/** The dates that a row gives an item, or what is wrong with them as a sentence. */
function rowDates(
  row: readonly string[],
  item: SheetItem,
  { places, order, term }: { places: Places; order: DateOrder; term: Pick<Term, 'classes' | 'exams'> },
): ItemDates | string {
  const dates = datesOf(item)
  for (const field of dateFields) {
    const cell = places[field] < 0 ? null : (row[places[field]] ?? '')
    if (cell === null) continue
    const at = momentOfCell(cell, order, item[field]?.slice(11) ?? usualTimes[field])
    if (at === undefined) return `${sheetColumns[field]}: “${cell.trim().slice(0, 60)}” is not a date.`
    if (item.isUnit && field !== 'opens') {
      if (at !== null) return `${sheetColumns[field]}: a unit only opens. Leave this cell empty.`
      continue
    }
    const far = at === null ? [] : farFault([field], at, term)
    if (far[0]) return `${sheetColumns[field]}: ${far[0].message}`
    dates[field] = at
  }
  return dates
}
