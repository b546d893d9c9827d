import { there } from '../../there'
import { isDate } from '../../calendar/day'
import type { Archive } from '../archive/archive'
import type { ValueFault } from '../finding-kinds'
import { findingList, type Finding } from '../findings'
import { readLimits, type ReadLimits } from '../limits'
import { FormatRefusal } from '../refusal'
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

// ISO 8601, as the binding asks for; a date alone is seen often and does no harm.
const instant = /^\d{4}-\d\d-\d\d(T\d\d:\d\d(:\d\d(\.\d+)?)?(Z|[+-]\d\d:?\d\d)?)?$/
/** What is amiss with a value of a column, or null. */
function faultOf({ type, required }: Column, value: string): ValueFault | null {
  if (value === '') return required ? { is: 'empty' } : null
  if (Array.isArray(type)) return type.includes(value) ? null : { is: 'not-listed', value, list: type }
  switch (type) {
    case 'date':
      return isDate(value) ? null : { is: 'no-date', value }
    case 'number':
      return /^-?\d+(\.\d+)?$/.test(value) ? null : { is: 'no-number', value }
    case 'instant':
      return instant.test(value) && isDate(value.slice(0, 10)) ? null : { is: 'no-instant', value }
    default:
      return null
  }
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
  if (folder === null) throw new FormatRefusal('no-bundle', archive.name, { manifest: manifestName })
  const findings = findingList(limits.findings)
  if (folder !== '') findings.add('packed-in-folder', archive.name, { folder })
  const properties = new Map<string, string>()
  readTable(manifestName, await archive.bytes(folder + manifestName), limits, ([key = '', value = '']) => {
    properties.set(key.trim(), value.trim())
  })
  const version = properties.get('oneroster.version')
  if (version !== '1.1') throw new FormatRefusal('roster-version', archive.name, { stated: version })

  const modes = {} as Record<TableName, 'absent' | 'bulk' | 'delta'>
  for (const table of tableNames) {
    const stated = properties.get(`file.${table}`)?.toLowerCase()
    const isThere = archive.entries.has(`${folder}${table}.csv`)
    if (stated !== undefined && !['absent', 'bulk', 'delta'].includes(stated))
      findings.add('mode-unknown', `${manifestName}, file.${table}`, { table, mode: stated, isThere })
    if (isThere && (stated === undefined || stated === 'absent'))
      findings.add('table-unnamed', `${table}.csv`, { mode: stated })
    if (!isThere && (stated === 'bulk' || stated === 'delta'))
      findings.add('table-absent', `${table}.csv`, { table })
    modes[table] = modeOf(isThere ? stated : undefined)
  }
  for (const path of archive.entries.keys()) {
    const file = path.slice(folder.length)
    if (
      path.startsWith(folder) &&
      file !== manifestName &&
      !tableNames.some(table => file === `${table}.csv`)
    )
      findings.add('not-a-table', path)
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
          findings.add('column-spelled', `${file} row 1`, { found: header[found] ?? '', column })
        if (header.filter(name => name === column).length > 1)
          throw new FormatRefusal('column-twice', file, { column })
        return found
      }
      status = at('status')
      return columns.map(([column, spec]) => {
        const place = at(column)
        if (place < 0 && spec.required) throw new FormatRefusal('column-absent', file, { column })
        return place
      })
    }
    const row = (cells: string[], number: number): void => {
      const where = `${file} row ${number}`
      const at = (column: string): string => `${where}, ${column}`
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
        const column = 'status'
        findings.add('status-unknown', at(column), { table, column, status: cells[status] ?? '' })
        ok = false
      }
      if (cells.length > width)
        findings.add('too-wide', where, { table, column: '', values: cells.length, columns: width })
      columns.forEach(([column, spec], index) => {
        const text = value(index)
        const fault = faultOf(spec, text)
        const required = spec.required === true
        if (fault) {
          findings.add('value-unlike', at(column), { table, column, required, fault })
          if (required) ok = false
        }
        if (column !== 'dateLastModified') values[column] = fault ? '' : text
        if (fault || !spec.refers || !text) return
        for (const name of spec.type === 'keys' ? keysOf(text) : [text]) {
          if (spec.refers === table) {
            own.push({ row: values, column, key: name, where })
            continue
          }
          if (modes[spec.refers] !== 'bulk' || known.get(spec.refers)?.has(name)) continue
          const { refers } = spec
          findings.add('reference-unknown', at(column), { table, column, required, key: name, refers })
          if (required) ok = false
          else
            values[column] = keysOf(values[column] ?? '')
              .filter(other => other !== name)
              .join(',')
        }
      })
      if (!ok) return
      if (keys.has(key)) {
        const column = 'sourcedId'
        return findings.add('key-twice', at(column), { table, column, key })
      }
      keys.add(key)
      sound.push(values as unknown as Row<TableName>)
    }
    const { header, encoding, delimiter } = readTable(file, bytes, limits, row, first => {
      places = prepare(first)
    })
    if (places === null) throw new FormatRefusal('no-header', file)
    if (encoding !== null) findings.add('encoding', file, { encoding })
    if (delimiter !== ',' && header.length > 1) findings.add('delimiter', file, { delimiter })
    if (modes[table] === 'bulk')
      for (const { row: values, column, key, where } of own)
        if (!keys.has(key)) {
          const at = `${where}, ${column}`
          findings.add('reference-unknown', at, { table, column, required: false, key, refers: table })
          values[column] = keysOf(values[column] ?? '')
            .filter(other => other !== key)
            .join(',')
        }
    if (toBeDeleted[table].length > 0)
      findings.add('to-be-deleted', file, { rows: toBeDeleted[table].length })
    return sound
  }
}
