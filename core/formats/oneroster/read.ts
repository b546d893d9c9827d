import { there } from '../../there'
import { isDate } from '../../calendar/day'
import type { Archive } from '../archive/archive'
import { FormatRefusal, findingList, type Finding, type FindingCode } from '../findings'
import { readLimits, type ReadLimits } from '../limits'
import { readTable } from '../sheet/table'
import { tables, type Column, type Row, type TableName } from './tables'

/** The sound rows of every table of a bundle. Rows marked `tobedeleted` are not among them. */
export type Roster = { readonly [T in TableName]: Row<T>[] }
export interface RosterRead {
  roster: Roster
  /** How each table is sent: whole, or only what has changed. */
  modes: Readonly<Record<TableName, 'absent' | 'bulk' | 'delta'>>
  /** Keys of the rows marked `tobedeleted`. */
  toBeDeleted: Readonly<Record<TableName, readonly string[]>>
  findings: Finding[]
}
/** How a table comes: what is stated in no known way is taken for the whole of it. */
function modeOf(stated: string | undefined): 'absent' | 'bulk' | 'delta' {
  if (stated === undefined || stated === 'absent') return 'absent'
  return stated === 'delta' ? 'delta' : 'bulk'
}
const tableNames = Object.keys(tables) as TableName[]
/** A roster without a row. */
export const noRoster = Object.fromEntries(tableNames.map(table => [table, []])) as unknown as Roster
const manifestName = 'manifest.csv'
const shown = (value: string): string => JSON.stringify(value.length > 80 ? `${value.slice(0, 80)}…` : value)

function fault(column: Column, value: string): string | null {
  if (value === '') return column.required ? 'is empty' : null
  if (column.type === 'date') return isDate(value) ? null : `${shown(value)} is not a date (YYYY-MM-DD)`
  if (column.type === 'number')
    return /^-?\d+(\.\d+)?$/.test(value) ? null : `${shown(value)} is not a number`
  // ISO 8601, as the binding asks for; a date alone is seen often and does no harm.
  if (column.type === 'instant')
    return /^\d{4}-\d\d-\d\d(T\d\d:\d\d(:\d\d(\.\d+)?)?(Z|[+-]\d\d:?\d\d)?)?$/.test(value) &&
      isDate(value.slice(0, 10))
      ? null
      : `${shown(value)} is not an instant (YYYY-MM-DDThh:mm:ssZ)`
  if (Array.isArray(column.type))
    return column.type.includes(value) ? null : `${shown(value)} is not one of ${column.type.join(', ')}`
  return null
}

/** Keys in a column that holds several, in the order given. */
export const keysOf = (value: string): string[] =>
  value
    .split(',')
    .map(entry => entry.trim())
    .filter(Boolean)

/** The folder of a bundle inside its archive, or null where it is no bundle. */
export function rosterFolder(archive: Archive): string | null {
  if (archive.entries.has(manifestName)) return ''
  const found = [...archive.entries.keys()].filter(
    path => path.endsWith(`/${manifestName}`) && path.split('/').length === 2,
  )
  return found.length === 1 ? there(found[0]).slice(0, -manifestName.length) : null
}

/**
 * Reads a 1EdTech OneRoster 1.1 CSV bundle (a zip with manifest.csv). Rows that are wrong are findings by file, row and
 * column, and the sound rows are read. Row numbers count the header as row 1. What a table sent as delta, or not sent at
 * all, would hold is not known: references into it are let be.
 * @throws FormatRefusal where it is no such bundle.
 */
export async function readOneRoster(
  archive: Archive,
  limits: ReadLimits = readLimits,
  progress: (done: number, total: number) => void = () => {},
): Promise<RosterRead> {
  const folder = rosterFolder(archive)
  if (folder === null)
    throw new FormatRefusal(archive.name, `holds no ${manifestName}: it is not a OneRoster bundle`)
  const findings = findingList(limits.findings)
  if (folder !== '')
    findings.add(
      'warning',
      'packed-in-folder',
      archive.name,
      `was packed with the folder ${folder} around it; it was read from there`,
    )
  const properties = new Map<string, string>()
  readTable(manifestName, await archive.bytes(folder + manifestName), limits, ([key = '', value = '']) => {
    properties.set(key.trim(), value.trim())
  })
  const version = properties.get('oneroster.version')
  if (version !== '1.1')
    throw new FormatRefusal(
      archive.name,
      `is OneRoster ${version ? version.slice(0, 40) : 'of no stated version'}; version 1.1 is read here`,
    )

  const modes = {} as Record<TableName, 'absent' | 'bulk' | 'delta'>
  for (const table of tableNames) {
    const stated = properties.get(`file.${table}`)?.toLowerCase()
    const there = archive.entries.has(`${folder}${table}.csv`)
    if (stated !== undefined && !['absent', 'bulk', 'delta'].includes(stated))
      findings.add(
        'error',
        'mode-unknown',
        `${manifestName}, file.${table}`,
        `${shown(stated)} is not one of absent, bulk, delta; ${there ? 'the table was read as bulk' : 'the table is not there'}`,
      )
    if (there && (stated === undefined || stated === 'absent'))
      findings.add(
        'warning',
        'table-unnamed',
        `${table}.csv`,
        `is in the bundle and the manifest ${stated === undefined ? 'does not name it' : 'says it is absent'}; it was not read`,
      )
    if (!there && (stated === 'bulk' || stated === 'delta'))
      findings.add(
        'error',
        'table-absent',
        `${table}.csv`,
        'the manifest names this file, and it is not in the bundle',
      )
    modes[table] = modeOf(there ? stated : undefined)
  }
  for (const path of archive.entries.keys()) {
    const file = path.slice(folder.length)
    if (
      path.startsWith(folder) &&
      file !== manifestName &&
      !tableNames.some(table => file === `${table}.csv`)
    )
      findings.add('note', 'not-a-table', path, 'is no table of OneRoster 1.1; it was not read')
  }

  const known = new Map<TableName, Set<string>>()
  const toBeDeleted = Object.fromEntries(tableNames.map(table => [table, [] as string[]])) as Record<
    TableName,
    string[]
  >
  let done = 0
  const total = tableNames.reduce(
    (sum, table) => sum + (archive.entries.get(`${folder}${table}.csv`)?.size ?? 0),
    0,
  )
  const roster = {} as Record<TableName, Row<TableName>[]>
  for (const table of tableNames) {
    roster[table] =
      modes[table] === 'absent' ? [] : readRows(table, await archive.bytes(`${folder}${table}.csv`))
    done += archive.entries.get(`${folder}${table}.csv`)?.size ?? 0
    progress(done, total)
  }
  return { roster: roster as unknown as Roster, modes, toBeDeleted, findings: findings.all() }

  function readRows(table: TableName, bytes: Uint8Array): Row<TableName>[] {
    const file = `${table}.csv`
    const keys = new Set<string>()
    known.set(table, keys)
    const columns: [string, Column][] = [
      ['sourcedId', { type: 'text', required: true }],
      ['dateLastModified', { type: 'instant' }],
      ...Object.entries(tables[table] as Record<string, Column>),
    ]
    let places: readonly number[] | null = null
    let status = -1
    let width = 0
    const sound: Row<TableName>[] = []
    // Within one table a row may name one further down, so those references are looked at when all are read.
    const own: { row: Record<string, string>; column: string; key: string; where: string }[] = []
    const prepare = (header: readonly string[]): number[] => {
      width = header.length
      const at = (column: string): number => {
        const exact = header.indexOf(column)
        const found =
          exact >= 0 ? exact : header.findIndex(name => name.toLowerCase() === column.toLowerCase())
        if (exact < 0 && found >= 0)
          findings.add(
            'note',
            'column-spelled',
            `${file} row 1`,
            `the column ${shown(header[found] ?? '')} was read as ${column}`,
          )
        if (header.filter(name => name === column).length > 1)
          throw new FormatRefusal(file, `has the column ${column} twice`)
        return found
      }
      status = at('status')
      return columns.map(([column, spec]) => {
        const place = at(column)
        if (place < 0 && spec.required) throw new FormatRefusal(file, `has no column ${column}`)
        return place
      })
    }
    const row = (cells: string[], number: number): void => {
      const where = `${file} row ${number}`
      const tell = (
        severity: Finding['severity'],
        code: FindingCode,
        column: string,
        message: string,
      ): void => findings.add(severity, code, `${where}, ${column}`, message, `${file} ${column}`)
      const state = status < 0 ? '' : (cells[status] ?? '').trim().toLowerCase()
      const value = (index: number): string => (cells[places?.[index] ?? -1] ?? '').trim()
      const key = value(0)
      if (state === 'tobedeleted' || state === 'inactive') {
        toBeDeleted[table].push(key)
        return
      }
      const values: Record<string, string> = {}
      let ok = true
      if (state !== '' && state !== 'active') {
        tell(
          'error',
          'status-unknown',
          'status',
          `${shown(cells[status] ?? '')} is not one of active, tobedeleted; the row was left out`,
        )
        ok = false
      }
      if (cells.length > width)
        tell(
          'warning',
          'too-wide',
          'row',
          `has ${cells.length} values for ${width} columns; the last ${cells.length - width} were left out`,
        )
      columns.forEach(([column, spec], index) => {
        const text = value(index)
        const wrong = fault(spec, text)
        if (wrong) {
          tell(
            spec.required ? 'error' : 'warning',
            'value-unlike',
            column,
            `${wrong}${spec.required ? '; the row was left out' : '; the value was left out'}`,
          )
          if (spec.required) ok = false
        }
        if (column !== 'dateLastModified') values[column] = wrong ? '' : text
        if (wrong || !spec.refers || !text) return
        for (const name of spec.type === 'keys' ? keysOf(text) : [text]) {
          if (spec.refers === table) {
            own.push({ row: values, column, key: name, where })
            continue
          }
          if (modes[spec.refers] !== 'bulk' || known.get(spec.refers)?.has(name)) continue
          tell(
            spec.required ? 'error' : 'warning',
            'reference-unknown',
            column,
            `${name.slice(0, 80)} is not in ${spec.refers}.csv; the ${spec.required ? 'row' : 'value'} was left out`,
          )
          if (spec.required) ok = false
          else
            values[column] = keysOf(values[column] ?? '')
              .filter(other => other !== name)
              .join(',')
        }
      })
      if (!ok) return
      if (keys.has(key))
        return tell(
          'error',
          'key-twice',
          'sourcedId',
          `${key} stands in an earlier row too; this one was left out`,
        )
      keys.add(key)
      sound.push(values as unknown as Row<TableName>)
    }
    const { header, encoding, delimiter } = readTable(file, bytes, limits, row, first => {
      places = prepare(first)
    })
    if (places === null) throw new FormatRefusal(file, 'is empty; it needs a row of column names')
    if (encoding !== null)
      findings.add('warning', 'encoding', file, `is not UTF-8; it was read as ${encoding}`)
    if (delimiter !== ',' && header.length > 1)
      findings.add(
        'warning',
        'delimiter',
        file,
        `its values are separated by ${delimiter === ';' ? 'semicolons' : 'tabs'}, not commas`,
      )
    if (modes[table] === 'bulk')
      for (const { row: values, column, key, where } of own)
        if (!keys.has(key)) {
          findings.add(
            'warning',
            'reference-unknown',
            `${where}, ${column}`,
            `${key.slice(0, 80)} is not in ${file}; the value was left out`,
            `${file} ${column}`,
          )
          values[column] = keysOf(values[column] ?? '')
            .filter(other => other !== key)
            .join(',')
        }
    if (toBeDeleted[table].length > 0)
      findings.add(
        'note',
        'to-be-deleted',
        file,
        `${toBeDeleted[table].length} rows are marked as to be deleted; they are not among those read`,
      )
    return sound
  }
}
