import { messageOf } from '../../../core/message'
import readWorkbookFile, { type CellValue } from 'read-excel-file/node'
import writeWorkbookFile, { type Cell } from 'write-excel-file/node'
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
  const sheets = (await sheetsOf(name, whole)).filter(({ rows }) => rows.length > 0)
  const [first] = sheets
  if (!first) throw new FormatRefusal('no-sheet', name)
  const { rows, sheet } = first
  if (rows.length > rowsKept) throw new FormatRefusal('sheet-too-long', name, { sheet, most: rowsKept })
  return { rows, sheet, others: sheets.length - 1 }
}
/** The sheets of a workbook as rows of text; rows after the last that holds anything are left out. */
async function sheetsOf(name: string, whole: Buffer): Promise<{ sheet: string; rows: string[][] }[]> {
  try {
    const sheets = await readWorkbookFile(whole)
    return sheets.slice(0, sheetsKept).map(({ sheet, data }) => {
      const rows = data.map(row => row.slice(0, columnsKept).map(cellText))
      const last = rows.findLastIndex(row => row.some(text => text !== ''))
      return { sheet, rows: rows.slice(0, last + 1) }
    })
  } catch (error) {
    throw new FormatRefusal('workbook-unreadable', name, { why: messageOf(error) })
  }
}
/** A cell as it reads: a date as `YYYY-MM-DD`, a formula as what it came to. */
function cellText(value: CellValue | Date | null): string {
  if (value === null) return ''
  if (value instanceof Date) return Number.isNaN(value.getTime()) ? '' : value.toISOString().slice(0, 10)
  return String(value)
}

/** A table as a workbook. Every cell is text, number or date as given, never a formula, so that nothing in it can run. */
export async function writeWorkbook(
  sheet: string,
  header: readonly string[],
  rows: readonly (readonly (string | number | null)[])[],
): Promise<Buffer> {
  const widths = header.map((name, at) => {
    const texts = [name, ...rows.slice(0, 200).map(row => String(row[at] ?? ''))]
    return Math.min(60, Math.max(10, ...texts.map(text => text.length + 2)))
  })
  const cells: Cell[][] = [
    header.map(name => ({ value: name, type: String, fontWeight: 'bold' })),
    ...rows.map(row => row.map(cellOf)),
  ]
  const options = {
    sheet: sheet.replace(/[\\/*?:[\]]/g, ' ').slice(0, 31) || 'Sheet 1',
    stickyRowsCount: 1,
    columns: widths.map(width => ({ width })),
  }
  return writeWorkbookFile(cells, options).toBuffer()
}
const cellOf = (value: string | number | null): Cell =>
  typeof value === 'string' ? { value, type: String } : value
