import exceljs from 'exceljs'
import type { Archive } from '../../../core/formats/archive/archive'
import { FormatRefusal } from '../../../core/formats/findings'
import { sizeText, type ReadLimits } from '../../../core/formats/limits'

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
  let total = 0
  for (const [path, entry] of archive.entries) {
    if ((total += entry.size) > Math.min(partLimit, limits.textBytes))
      throw new FormatRefusal(
        name,
        `unpacks to more than ${sizeText(Math.min(partLimit, limits.textBytes))}, which no table of dates does`,
        'limit',
      )
    if (!/\.(xml|rels|vml)$/i.test(path)) {
      await archive.check(path, () => {})
      continue
    }
    const text = Buffer.from(await archive.bytes(path))
      .toString('latin1')
      .replaceAll('\0', '')
    if (/<!DOCTYPE|<!ENTITY/i.test(text))
      throw new FormatRefusal(
        `${name}, ${path}`,
        'has a document type declaration (DTD), which is never read',
        'hostile',
      )
    // A reference far off makes a reader set up every row and column before it.
    if (/\.xml$/.test(path) && /\br="[A-Z]*(\d{6,}|[A-Z]{3}\d+)"/.test(text))
      throw new FormatRefusal(
        `${name}, ${path}`,
        `has a cell beyond row 99 999 or column ZZ, where no table of dates lies`,
        'limit',
      )
  }
  const book = new exceljs.Workbook()
  try {
    await book.xlsx.load(whole as unknown as ArrayBuffer, {
      ignoreNodes: ['dataValidations', 'conditionalFormatting', 'extLst', 'drawing', 'hyperlinks'],
    })
  } catch (error) {
    throw new FormatRefusal(name, `the workbook cannot be read (${(error as Error).message.slice(0, 200)})`)
  }
  const sheets = book.worksheets.slice(0, sheetsKept).filter(sheet => sheet.actualRowCount > 0)
  const [sheet] = sheets
  if (!sheet) throw new FormatRefusal(name, 'holds no sheet with anything in it')
  if (sheet.rowCount > rowsKept)
    throw new FormatRefusal(
      name,
      `the sheet “${sheet.name}” has more than ${rowsKept} rows, which no table of dates has`,
    )
  const rows: string[][] = Array.from({ length: sheet.rowCount }, () => [])
  sheet.eachRow((row, number) => {
    for (let column = 1; column <= Math.min(row.cellCount, columnsKept); column++)
      rows[number - 1]!.push(cellText(row.getCell(column).value))
  })
  return { rows, sheet: sheet.name, others: sheets.length - 1 }
}

/** A cell as it reads: a date as `YYYY-MM-DD`, a formula as what it came to. */
function cellText(value: exceljs.CellValue): string {
  if (value === null || value === undefined) return ''
  if (value instanceof Date) return Number.isNaN(value.getTime()) ? '' : value.toISOString().slice(0, 10)
  if (typeof value !== 'object') return String(value)
  if ('richText' in value) return value.richText.map(part => part.text).join('')
  if ('result' in value) return cellText(value.result)
  if ('text' in value) return cellText(value.text)
  return ''
}

/** A table as a workbook. Every cell is text, number or date as given, never a formula, so that nothing in it can run. */
export async function writeWorkbook(
  sheet: string,
  header: readonly string[],
  rows: readonly (readonly (string | number | null)[])[],
): Promise<Buffer> {
  const book = new exceljs.Workbook()
  const page = book.addWorksheet(sheet.replace(/[\\/*?:[\]]/g, ' ').slice(0, 31) || 'Sheet 1', {
    views: [{ state: 'frozen', ySplit: 1 }],
  })
  page.addRow([...header]).font = { bold: true }
  for (const row of rows) page.addRow([...row])
  page.columns.forEach((column, at) => {
    column.width = Math.min(
      60,
      Math.max(
        10,
        ...[header[at] ?? '', ...rows.slice(0, 200).map(row => String(row[at] ?? ''))].map(
          text => text.length + 2,
        ),
      ),
    )
  })
  return Buffer.from(await book.xlsx.writeBuffer())
}
