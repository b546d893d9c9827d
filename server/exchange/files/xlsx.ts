import { messageOf } from '../../../core/message'
import readWorkbookFile, { type CellValue } from 'read-excel-file/node'
import writeWorkbookFile, { type Cell, type Feature } from 'write-excel-file/node'
import type { Archive } from '../../../core/formats/archive/archive'
import type { ReadLimits } from '../../../core/formats/limits'
import { FormatRefusal } from '../../../core/formats/refusal'

const sheetsKept = 20
const columnsKept = 60
const rowsKept = 5000
const partLimit = 32 * 1024 * 1024

export const isWorkbook = (archive: Archive): boolean => archive.entries.has('xl/workbook.xml')

/**
 * The first sheet of a workbook (Office Open XML) that holds anything, as rows of text. The archive has passed every check of
 * `openZip`; its parts are looked at for document types and entities before the library sees them.
 * @throws FormatRefusal where it cannot be read, or is larger than a calendar is.
 */
export async function readWorkbook(
  name: string,
  archive: Archive,
  whole: Buffer,
  limits: ReadLimits,
  cells: CellReading = 'days',
): Promise<{ rows: string[][]; sheet: string; others: number }> {
  const most = Math.min(partLimit, limits.textBytes)
  let total = 0
  for (const [path, entry] of archive.entries) {
    if ((total += entry.size) > most) throw new FormatRefusal('workbook-too-large', name, { bytes: most })
    if (!/\.(xml|rels|vml)$/i.test(path)) {
      await archive.check(path, () => {})
      continue
    }
    const text = Buffer.from(await archive.bytes(path))
      .toString('latin1')
      .replaceAll('\0', '')
    if (/<!DOCTYPE|<!ENTITY/i.test(text))
      throw new FormatRefusal('workbook-document-type', `${name}, ${path}`)
    // A reference far off makes a reader set up every row and column before it.
    if (/\.xml$/.test(path) && /\br="[A-Z]*(\d{6,}|[A-Z]{3}\d+)"/.test(text))
      throw new FormatRefusal('cell-far-off', `${name}, ${path}`)
  }
  const sheets = (await sheetsOf(name, whole, cells)).filter(({ rows }) => rows.length > 0)
  const [first] = sheets
  if (!first) throw new FormatRefusal('no-sheet', name)
  const { rows, sheet } = first
  if (rows.length > rowsKept) throw new FormatRefusal('sheet-too-long', name, { sheet, most: rowsKept })
  return { rows, sheet, others: sheets.length - 1 }
}
/** The sheets of a workbook as rows of text; rows after the last that holds anything are left out. */
async function sheetsOf(
  name: string,
  whole: Buffer,
  cells: CellReading,
): Promise<{ sheet: string; rows: string[][] }[]> {
  try {
    const sheets = await readWorkbookFile(whole)
    return sheets.slice(0, sheetsKept).map(({ sheet, data }) => {
      const rows = data.map(row => row.slice(0, columnsKept).map(value => cellText(value, cells)))
      const last = rows.findLastIndex(row => row.some(text => text !== ''))
      return { sheet, rows: rows.slice(0, last + 1) }
    })
  } catch (error) {
    throw new FormatRefusal('workbook-unreadable', name, { why: messageOf(error) })
  }
}
/** Whether dates of a workbook are days, or have a time of day. */
export type CellReading = 'days' | 'moments'
/** A cell as it reads: a date as `YYYY-MM-DD`, or with its time to the minute; a formula as what it came to. */
function cellText(value: CellValue | Date | null, cells: CellReading): string {
  if (value === null) return ''
  if (!(value instanceof Date)) return String(value)
  // A workbook may hold days that no calendar has.
  if (Number.isNaN(value.getTime()) || Math.abs(value.getUTCFullYear()) > 9999) return ''
  // Days are kept as fractions: a minute is met to some milliseconds.
  const minute = new Date(Math.round(value.getTime() / 60_000) * 60_000).toISOString()
  return cells === 'days' ? minute.slice(0, 10) : minute.slice(0, 16)
}

/** What of a sheet is more than text. Columns by their place, from 0. */
export interface SheetLook {
  /** Columns of date-times (`YYYY-MM-DD HH:MM`), written as real dates. */
  readonly moments: readonly number[]
  /** Columns that may be changed; all others are locked, so that nobody types over a key. */
  readonly open: readonly number[]
  /** Columns where one of some words is chosen. */
  readonly lists: readonly { readonly column: number; readonly words: readonly string[] }[]
}
const momentFormat = 'yyyy-mm-dd hh:mm'

/**
 * A table as a workbook. Every cell is text, number or date as given, never a formula, so that nothing in it can run.
 */
export async function writeWorkbook(
  sheet: string,
  header: readonly string[],
  rows: readonly (readonly (string | number | null)[])[],
  look?: SheetLook,
): Promise<Buffer> {
  const widths = header.map((name, at) => {
    const texts = [name, ...rows.slice(0, 200).map(row => String(row[at] ?? ''))]
    return Math.min(60, Math.max(10, ...texts.map(text => text.length + 2)))
  })
  const moments = new Set(look?.moments)
  const cells: Cell[][] = [
    header.map(name => ({ value: name, type: String, fontWeight: 'bold' })),
    ...rows.map(row =>
      row.map((value, at) => cellOf(value, moments.has(at), look?.open.includes(at) ?? false)),
    ),
  ]
  const options = {
    sheet: sheet.replace(/[\\/*?:[\]]/g, ' ').slice(0, 31) || 'Sheet 1',
    stickyRowsCount: 1,
    columns: widths.map(width => ({ width })),
  }
  return writeWorkbookFile(
    cells,
    options,
    look ? { features: [lockedSheet(look, rows.length + 1)] } : {},
  ).toBuffer()
}
/** Cells that may be changed are told from the others by this fill, and unlocked by it (`lockedSheet`). */
const openFill = '#FFFDF5'
function cellOf(value: string | number | null, isMoment: boolean, isOpen: boolean): Cell {
  const look = isOpen ? { backgroundColor: openFill } : {}
  if (isMoment && typeof value === 'string') {
    const date = value === '' ? null : new Date(`${value.replace(' ', 'T')}:00Z`)
    return { value: date ?? undefined, type: Date, format: momentFormat, ...look }
  }
  return typeof value === 'string' ? { value, type: String, ...look } : value
}
const letterOf = (column: number): string =>
  (column >= 26 ? letterOf(Math.floor(column / 26) - 1) : '') + String.fromCharCode(65 + (column % 26))
/** Locks a sheet but for its open columns, and offers words where one is chosen (ECMA-376 part 1, §18.3.1.85, §18.3.1.33, §18.8.33). */
function lockedSheet<FileContent>({ lists }: SheetLook, lastRow: number): Feature<FileContent> {
  const protection =
    '<sheetProtection sheet="1" formatCells="0" formatColumns="0" formatRows="0" sort="0" autoFilter="0"/>'
  const choices = lists.map(({ column, words }) => {
    const at = letterOf(column)
    return `<dataValidation type="list" allowBlank="1" showErrorMessage="1" sqref="${at}2:${at}${lastRow}"><formula1>"${words.join(',')}"</formula1></dataValidation>`
  })
  const validations = `<dataValidations count="${choices.length}">${choices.join('')}</dataValidations>`
  return {
    files: {
      transform: {
        'xl/worksheets/sheet{id}.xml': {
          transform: xml => xml.replace('</sheetData>', `</sheetData>${protection}${validations}`),
        },
        'xl/styles.xml': { transform: unlockFilled },
      },
    },
  }
}
/** Unlocks every cell style that has the fill of open cells. */
function unlockFilled(styles: string): string {
  const fills = /<fills[^>]*>(.*?)<\/fills>/s.exec(styles)?.[1]?.match(/<fill>.*?<\/fill>/gs) ?? []
  const open = fills.findIndex(fill => fill.toUpperCase().includes(openFill.slice(1)))
  if (open < 0) return styles
  const isOpen = new RegExp(`<xf([^>]*\\bfillId="${open}"[^>]*?)(/>|>(.*?)</xf>)`, 'gs')
  return styles.replace(
    isOpen,
    (_, attributes: string, _end, inside: string | undefined) =>
      `<xf${attributes.replace(/\/$/, '')} applyProtection="1">${inside ?? ''}<protection locked="0"/></xf>`,
  )
}
