import Papa from 'papaparse'
import { isDate } from '../../calendar/day'
import { archiveLimits, unpack, utf8, type ArchiveLimits } from '../archive'
import { FormatRefusal, type Finding } from '../findings'
import { tables, type Column, type Row, type TableName } from './tables'

/** The sound rows of every table of a bundle. Rows marked `tobedeleted` are not among them. */
export type Roster = { readonly [T in TableName]: Row<T>[] }
const tableNames = Object.keys(tables) as TableName[]

function parseTable(file: string, text: string): { header: string[], rows: string[][], firstLine: number } {
  const parsed = Papa.parse<string[]>(text, { skipEmptyLines: 'greedy' })
  const broken = parsed.errors.find(error => error.type === 'Quotes')
  if (broken) throw new FormatRefusal(file, `row ${(broken.row ?? 0) + 1}: a quotation mark is not closed or stands inside a value`)
  const [header = [], ...rows] = parsed.data
  return { header: header.map(name => name.trim()), rows, firstLine: 2 }
}

function fault(column: Column, value: string): string | null {
  if (value === '') return column.required ? 'is empty' : null
  if (column.type === 'date') return isDate(value) ? null : `${JSON.stringify(value)} is not a date (YYYY-MM-DD)`
  if (column.type === 'number') return /^-?\d+(\.\d+)?$/.test(value) ? null : `${JSON.stringify(value)} is not a number`
  if (Array.isArray(column.type)) return column.type.includes(value) ? null : `${JSON.stringify(value)} is not one of ${column.type.join(', ')}`
  return null
}

/** Keys in a column that holds several, in the order given. */
export const keysOf = (value: string): string[] => value.split(',').map(entry => entry.trim()).filter(Boolean)

/**
 * Reads a 1EdTech OneRoster 1.1 CSV bundle (a zip with manifest.csv). Rows that are wrong are findings by file, row and
 * column, and the sound rows are read. Row numbers count the header as row 1.
 * @throws FormatRefusal where it is no such bundle.
 */
export function readOneRoster(name: string, bytes: Uint8Array, limits: ArchiveLimits = archiveLimits): { roster: Roster, findings: Finding[] } {
  const files = unpack(name, bytes, limits)
  const manifestBytes = files.get('manifest.csv')
  if (!manifestBytes) throw new FormatRefusal(name, 'holds no manifest.csv: it is not a OneRoster bundle')
  const properties = new Map(parseTable('manifest.csv', utf8('manifest.csv', manifestBytes)).rows.map(([key = '', value = '']) => [key.trim(), value.trim()]))
  const version = properties.get('oneroster.version')
  if (version !== '1.1') throw new FormatRefusal(name, `is OneRoster ${version || 'of no stated version'}; version 1.1 is read here`)

  const findings: Finding[] = []
  const known = new Map<TableName, Set<string>>()
  const read = <T extends TableName>(table: T): Row<T>[] => {
    const file = `${table}.csv`
    const mode = properties.get(`file.${table}`) ?? 'absent'
    const content = files.get(file)
    const keys = new Set<string>()
    known.set(table, keys)
    if (mode === 'absent' || !content) {
      if (mode !== 'absent') findings.push({ severity: 'error', where: file, message: 'the manifest names this file, and it is not in the bundle' })
      return []
    }
    const { header, rows, firstLine } = parseTable(file, utf8(file, content))
    const columns: [string, Column][] = [['sourcedId', { type: 'text', required: true }], ...Object.entries(tables[table] as Record<string, Column>)]
    const places = columns.map(([column, spec]) => {
      const at = header.indexOf(column)
      if (at < 0 && spec.required) throw new FormatRefusal(file, `has no column ${column}`)
      return at
    })
    const status = header.indexOf('status')
    const sound: Row<T>[] = []
    // Within one table a row may name one further down, so those references are looked at when all are read.
    const own: { row: Row<T>, column: string, value: string, where: string }[] = []
    rows.forEach((cells, at) => {
      const where = `${file} row ${at + firstLine}`
      if (status >= 0 && cells[status] === 'tobedeleted') return
      const row: Record<string, string> = {}
      let ok = true
      columns.forEach(([column, spec], index) => {
        const value = places[index]! < 0 ? '' : (cells[places[index]!] ?? '').trim()
        const wrong = fault(spec, value)
        if (wrong) {
          findings.push({ severity: spec.required ? 'error' : 'warning', where: `${where}, ${column}`, message: `${wrong}${spec.required ? '; the row was left out' : '; the value was left out'}` })
          if (spec.required) ok = false
        }
        row[column] = wrong ? '' : value
        if (!spec.refers || !value) return
        for (const key of spec.type === 'keys' ? keysOf(value) : [value]) {
          if (spec.refers === table) own.push({ row: row as Row<T>, column, value: key, where })
          else if (!known.get(spec.refers)?.has(key)) {
            findings.push({ severity: 'error', where: `${where}, ${column}`, message: `${key} is not in ${spec.refers}.csv; the row was left out` })
            ok = false
          }
        }
      })
      if (!ok) return
      if (keys.has(row.sourcedId!)) return void findings.push({ severity: 'error', where: `${where}, sourcedId`, message: `${row.sourcedId} stands in an earlier row too; this one was left out` })
      keys.add(row.sourcedId!)
      sound.push(row as Row<T>)
    })
    for (const { value, column, where } of own)
      if (!keys.has(value)) findings.push({ severity: 'warning', where: `${where}, ${column}`, message: `${value} is not in ${file}` })
    return sound
  }
  return { roster: Object.fromEntries(tableNames.map(table => [table, read(table)])) as unknown as Roster, findings }
}
