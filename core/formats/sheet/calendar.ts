import { present } from '../../present'
import { findingList, type Finding } from '../findings'
import type { ReadLimits } from '../limits'
import { FormatRefusal } from '../refusal'
import type { CalendarEvent } from '../report'
import { oneLine } from '../text'
import { dateOfCell, orderOf, type DateOrder } from './dates'

/** Which column says what; columns are counted from 0. */
export interface ColumnRoles {
  readonly title: number
  readonly first: number
  readonly last: number | null
  readonly order: DateOrder
}
/** A table of dates as it was found, with what its columns were taken to be. */
export interface DateTable {
  readonly header: readonly string[]
  /** Number of the row that names the columns, as a spreadsheet counts; 0 where none does. */
  readonly headerRow: number
  readonly rows: readonly { readonly number: number; readonly cells: readonly string[] }[]
  readonly roles: ColumnRoles
  /** Whether day and month could not be told apart: then a person must say. */
  readonly ambiguous: boolean
}

const looked = 200
const names = {
  title: /^(name|title|event|holiday|closure|description|summary|what|occasion)\b/i,
  last: /\b(end|ends|to|until|last|through)\b/i,
  first: /\b(start|starts|from|begin|begins|first|date|day|when)\b/i,
}

/**
 * Tells which columns of a table hold dates and which the names, from what is in them and what they are called.
 * @throws FormatRefusal where no column holds dates, or none could be a name.
 */
export function guessRoles(file: string, all: readonly (readonly string[])[]): DateTable {
  const rows = all
    .map((cells, at) => ({ number: at + 1, cells }))
    .filter(row => row.cells.some(cell => cell.trim() !== ''))
  const width = Math.max(0, ...rows.map(row => row.cells.length))
  const { order, certain } = orderOf(rows.slice(0, looked).flatMap(row => row.cells))
  const isDateAt = (row: { cells: readonly string[] } | undefined, column: number): boolean =>
    dateOfCell(row?.cells[column] ?? '', order) !== null
  const sample = rows.slice(0, looked)
  const share = Array.from(
    { length: width },
    (_, column) => sample.filter(row => isDateAt(row, column)).length,
  )
  const most = Math.max(0, ...share)
  if (most === 0) throw new FormatRefusal('no-dates', file)
  // What stands above the first row with a date names the columns: the last such row that has more than one value.
  const firstDated = rows.findIndex(row => row.cells.some((_, column) => isDateAt(row, column)))
  const heads = rows
    .slice(0, firstDated)
    .filter(row => row.cells.filter(cell => cell.trim() !== '').length > 1)
  const headerAt = heads.at(-1)
  const header = Array.from(
    { length: width },
    (_, column) => oneLine(headerAt?.cells[column] ?? '') || `Column ${column + 1}`,
  )
  const body = rows.slice(firstDated)
  const dated = share
    .map((count, column) => ({ column, count }))
    .filter(
      entry =>
        entry.count >= most * 0.4 || (entry.count > 0 && names.last.test(present(header[entry.column]))),
    )
    .map(entry => entry.column)
  const first =
    dated.find(
      column => names.first.test(present(header[column])) && !names.last.test(present(header[column])),
    ) ?? present(dated.find(column => share[column] === most))
  const last =
    dated.find(column => column !== first && names.last.test(present(header[column]))) ??
    dated.find(column => {
      const pairs = body.slice(0, looked).flatMap(row => {
        const [a, b] = [dateOfCell(row.cells[first] ?? '', order), dateOfCell(row.cells[column] ?? '', order)]
        return a && b ? [b.first >= a.first] : []
      })
      return column > first && pairs.length > 0 && pairs.every(Boolean)
    }) ??
    null
  const texts = Array.from({ length: width }, (_, column) => column).filter(
    column => column !== first && column !== last && !dated.includes(column),
  )
  const letters = (column: number): number =>
    new Set(
      body
        .slice(0, looked)
        .map(row => row.cells[column] ?? '')
        .filter(cell => /\p{L}{2}/u.test(cell)),
    ).size
  const title =
    texts.find(column => names.title.test(present(header[column]))) ??
    [...texts].sort((a, b) => letters(b) - letters(a))[0]
  if (title === undefined) throw new FormatRefusal('no-names', file)
  return {
    header,
    headerRow: headerAt?.number ?? 0,
    rows: body,
    roles: { title, first, last, order },
    ambiguous:
      !certain &&
      body.some(row =>
        [first, last].some(
          column => column !== null && /^\d{1,2}[/.-]\d{1,2}[/.-]/.test((row.cells[column] ?? '').trim()),
        ),
      ),
  }
}

/** The events of a table, its columns meant as `roles` says. A row that cannot be read is a finding by row and column. */
export function tableEvents(
  file: string,
  table: Pick<DateTable, 'rows' | 'header'>,
  roles: ColumnRoles,
  limits: Pick<ReadLimits, 'findings'>,
): { events: CalendarEvent[]; findings: Finding[] } {
  const findings = findingList(limits.findings)
  const events: CalendarEvent[] = []
  for (const { number, cells } of table.rows) {
    const where = (column: number): string =>
      `${file} row ${number}, ${table.header[column] ?? `Column ${column + 1}`}`
    const text = (column: number | null): string => (column === null ? '' : (cells[column] ?? '').trim())
    const title = oneLine(text(roles.title)).slice(0, 500)
    const first = dateOfCell(text(roles.first), roles.order)
    if (!first) {
      const value = text(roles.first)
      if (value === '') findings.add('first-day-absent', where(roles.first))
      else findings.add('first-day-unreadable', where(roles.first), { value })
      continue
    }
    const last = text(roles.last) === '' ? first : dateOfCell(text(roles.last), roles.order)
    if (!last) findings.add('last-day-unreadable', where(present(roles.last)), { value: text(roles.last) })
    const lastDay = last?.last ?? first.last
    if (lastDay < first.first)
      findings.add('last-day-before-first', where(present(roles.last)), { first: first.first, last: lastDay })
    if (title === '') findings.add('no-name', where(roles.title))
    events.push({
      title: title || 'Untitled',
      firstDay: first.first,
      lastDay: lastDay < first.first ? first.last : lastDay,
    })
  }
  return { events, findings: findings.all() }
}
