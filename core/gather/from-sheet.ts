import { dateFields } from '../course/dates'
import type { DateTable } from '../formats/sheet/calendar'
import { orderOf, type DateOrder } from '../formats/sheet/dates'
import { momentOfCell, timePattern } from '../formats/sheet/plan-dates'
import { FormatRefusal } from '../formats/refusal'
import { parsePoints, pointsText } from '../grading/points'
import type { SaidField, Saying } from './saying'

/** Names of columns, whatever their order: as people write them (common practice, no source). */
const columns: Readonly<Record<'title' | 'identifier' | Exclude<SaidField, 'gradingPeriod'>, RegExp>> = {
  title: /^(item|title|name|assignment|activity|task|work|what)\b/i,
  identifier: /^(identifier|id|key)$/i,
  opens: /^(open|available from|available$|start|from\b|assign(ed)?\b.*|release)/i,
  due: /^(due|deadline|hand.?in)/i,
  closes: /^(close|until|available (until|to)|end)/i,
  points: /^(points?|max|out of|worth)/i,
  category: /^(grade )?category|^grade group/i,
}
type ColumnName = keyof typeof columns
const columnNames = Object.keys(columns) as ColumnName[]

/** A cell that says nothing that could be read. */
export interface UnreadCell {
  readonly row: number
  readonly title: string
  readonly column: string
  readonly cell: string
}
/** What a table says, with its numbers read in one order of day and month. */
export interface SheetRead {
  readonly sayings: readonly Saying[]
  readonly unread: readonly UnreadCell[]
}
/** The same, and how it reads in the other order, where the table leaves open which is meant. */
export interface SheetSaid extends SheetRead {
  readonly order: DateOrder
  readonly other: SheetRead | null
}
/** Where each column stands; -1: the sheet has none. A column is the first that is called so. */
function placesOf(header: readonly string[]): Readonly<Record<ColumnName, number>> {
  const taken = new Set<number>()
  return Object.fromEntries(
    columnNames.map(name => {
      const at = header.findIndex((cell, column) => !taken.has(column) && columns[name].test(cell.trim()))
      taken.add(at)
      return [name, at]
    }),
  ) as Record<ColumnName, number>
}
/** Whether a cell gives a time of day, as text or as a part of a spreadsheet's number of days. */
const hasTime = (cell: string): boolean => timePattern.test(cell) || /^\d{5}\.\d+$/.test(cell)
/** Whether a table is one of items with dates. */
export function isSheetOfDates(header: readonly string[]): boolean {
  const places = placesOf(header)
  return places.title >= 0 && dateFields.some(field => places[field] >= 0)
}
/**
 * What a table of items with their dates says, its columns in any order. An empty cell says nothing; `none` says that
 * there is no date. @throws FormatRefusal where no column names items, or none has dates
 */
export function sheetSayings(file: string, table: Pick<DateTable, 'header' | 'rows'>): SheetSaid {
  const { order, certain } = orderOf(dateCellsOf(table))
  const read = readSheet(file, table, order)
  if (certain) return { ...read, order, other: null }
  const otherOrder = order === 'day-month' ? 'month-day' : 'day-month'
  const other = readSheet(file, table, otherOrder)
  // What reads alike both ways leaves nothing to ask.
  const isAlike = JSON.stringify(other) === JSON.stringify(read)
  return { ...read, order, other: isAlike ? null : other }
}
function dateCellsOf({ header, rows }: Pick<DateTable, 'header' | 'rows'>): string[] {
  const places = placesOf(header)
  return rows.flatMap(({ cells }) =>
    dateFields.map(field => (cells[places[field]] ?? '').trim().replace(timePattern, '')),
  )
}
function readSheet(
  file: string,
  { header, rows }: Pick<DateTable, 'header' | 'rows'>,
  order: DateOrder,
): SheetRead {
  if (!isSheetOfDates(header)) throw new FormatRefusal('no-sheet-of-dates', file)
  const places = placesOf(header)
  const cellOf = (row: readonly string[], name: ColumnName): string => (row[places[name]] ?? '').trim()
  const unread: UnreadCell[] = []
  const sayings = rows.flatMap(({ number, cells: row }): Saying[] => {
    const title = cellOf(row, 'title')
    const identifier = cellOf(row, 'identifier') || null
    if (title === '' && identifier === null) return []
    const values: Partial<Record<SaidField, string | null>> = {}
    const miss = (name: ColumnName): void =>
      void unread.push({ row: number, title, column: header[places[name]] ?? '', cell: cellOf(row, name) })
    for (const field of dateFields) {
      const cell = cellOf(row, field)
      if (cell === '') continue
      const at = momentOfCell(cell, order, '00:00')
      if (at === undefined) miss(field)
      else values[field] = at && (hasTime(cell) ? at : at.slice(0, 10))
    }
    const points = cellOf(row, 'points')
    const read = points === '' ? null : parsePoints(points)
    if (read !== null) values.points = pointsText(read)
    else if (points !== '') miss('points')
    const category = cellOf(row, 'category')
    if (category !== '') values.category = category
    return [{ kind: 'sheet', file, where: `row ${number}`, identifier, title, values }]
  })
  return { sayings, unread }
}
