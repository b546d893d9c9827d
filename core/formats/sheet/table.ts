import { present } from '../../present'
import Papa from 'papaparse'
import type { ReadLimits } from '../limits'
import { FormatRefusal } from '../refusal'
import { tableText } from '../text'

/** A table of text. Row numbers count the header as row 1, and blank rows too, as a spreadsheet does. */
export interface Table {
  readonly header: readonly string[]
  /** What the file was in, if it was not UTF-8. */
  readonly encoding: string | null
  readonly delimiter: string
}

/** Separator of a table: what stands equally often in most of its first lines, outside quotation marks; commas, which text has too, come last. */
function delimiterOf(text: string): string {
  const lines = text
    .slice(0, 20_000)
    .replace(/"[^"]*"/g, '')
    .split(/[\r\n]+/, 20)
  const alike = (mark: string): number => {
    const times = new Map<number, number>()
    for (const line of lines) {
      const n = line.split(mark).length - 1
      if (n > 0) times.set(n, (times.get(n) ?? 0) + 1)
    }
    return Math.max(0, ...times.values())
  }
  return ['\t', ';', ',']
    .map(mark => ({ mark, count: alike(mark) }))
    .reduce((best, each) => (each.count > best.count ? each : best), { mark: ',', count: 0 }).mark
}

/**
 * Reads a table (RFC 4180, and what spreadsheets make of it: semicolons, tabs, mixed line ends) and hands its header over, then its rows one by one.
 * @throws FormatRefusal where it is no text, over the limits, or a quotation mark is not closed.
 */
export function readTable(
  file: string,
  bytes: Uint8Array,
  limits: Pick<ReadLimits, 'rows' | 'textBytes'>,
  row: (cells: string[], number: number) => void,
  head: (header: readonly string[]) => void = () => {},
): Table {
  if (bytes.length > limits.textBytes) throw new FormatRefusal('too-large', file, { bytes: limits.textBytes })
  const { text: whole, encoding } = tableText(file, bytes)
  // Line ends of two kinds in one file: the parser splits at one of them only.
  const crlf = (whole.match(/\r\n/g) ?? []).length
  const text = crlf > 0 && (whole.match(/\n/g) ?? []).length !== crlf ? whole.replace(/\r\n/g, '\n') : whole
  const delimiter = delimiterOf(text)
  let number = 0
  let header: string[] = []
  let refusal: FormatRefusal | null = null
  if (text === '') return { header, encoding, delimiter }
  Papa.parse<string[]>(text, {
    delimiter,
    skipEmptyLines: false,
    step: ({ data, errors }, parser) => {
      number++
      const broken = errors.find(error => error.type === 'Quotes')
      if (broken) refusal = new FormatRefusal('quotation-open', file, { row: number })
      else if (number > limits.rows) refusal = new FormatRefusal('too-many-rows', file, { most: limits.rows })
      if (refusal) return parser.abort()
      if (number === 1) head((header = data.map(name => name.trim())))
      else if (data.length > 1 || present(data[0]).trim() !== '') row(data, number)
    },
  })
  if (refusal) throw refusal as FormatRefusal
  return { header, encoding, delimiter }
}
