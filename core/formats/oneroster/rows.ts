import { isDate } from '../../calendar/day'
import type { ValueFault } from '../finding-kinds'
import type { FindingList } from '../findings'
import type { ReadLimits } from '../limits'
import { FormatRefusal } from '../refusal'
import { readTable } from '../sheet/table'
import type { Losses } from './losses'
import { datePairs, hasColumn, parentColumns, tables, type Column, type Row, type TableName } from './tables'

/** What the reading of one table rests on, and what it leaves for the tables after it. */
export interface Reading {
  readonly limits: ReadLimits
  readonly findings: FindingList
  readonly lost: Losses
  readonly modes: Readonly<Record<TableName, 'absent' | 'bulk' | 'delta'>>
  /** Keys of the sound rows of the tables read so far. */
  readonly known: Map<TableName, Set<string>>
  readonly toBeDeleted: Record<TableName, string[]>
}

// ISO 8601, as the binding asks for; a date alone is seen often and does no harm.
const instant = /^\d{4}-\d\d-\d\d(T\d\d:\d\d(:\d\d(\.\d+)?)?(Z|[+-]\d\d:?\d\d)?)?$/
const isInstant = (value: string): boolean => instant.test(value) && isDate(value.slice(0, 10))
/** What is amiss with a value of a column, or null. */
function faultOf({ type, required }: Column, value: string): ValueFault | null {
  if (value === '') return required ? { is: 'empty' } : null
  if (Array.isArray(type)) return type.includes(value) ? null : { is: 'not-listed', value, list: type }
  switch (type) {
    case 'date':
      return isDate(value) ? null : { is: 'no-date', value }
    case 'number':
      return /^-?\d+(\.\d+)?$/.test(value) ? null : { is: 'no-number', value }
    case 'amount':
      if (!/^-?\d+(\.\d+)?$/.test(value)) return { is: 'no-number', value }
      return value.startsWith('-') ? { is: 'below-zero', value } : null
    case 'instant':
      return isInstant(value) ? null : { is: 'no-instant', value }
    case 'moment':
      return isDate(value) || isInstant(value) ? null : { is: 'no-moment', value }
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

type Values = Record<string, string>
interface Reference {
  readonly row: Values
  readonly column: string
  readonly key: string
  readonly where: string
}

/** The sound rows of a table. What is wrong is a finding by row and column; what is lost because of another row is told once, by its cause. */
export function readRows(reading: Reading, table: TableName, bytes: Uint8Array): Row<TableName>[] {
  const { findings, limits, lost, modes, known, toBeDeleted } = reading
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
  const sound: Values[] = []
  // Within one table a row may name one further down, so those references are looked at when all are read.
  const own: Reference[] = []

  const prepare = (header: readonly string[]): number[] => {
    width = header.length
    const at = (column: string): number => {
      const exact = header.indexOf(column)
      const found = exact >= 0 ? exact : header.findIndex(name => name.toLowerCase() === column.toLowerCase())
      if (exact < 0 && found >= 0)
        findings.add('column-spelled', `${file} row 1`, { found: header[found] ?? '', column })
      if (header.filter(name => name === column).length > 1)
        throw new FormatRefusal('column-twice', file, { column })
      return found
    }
    status = at('status')
    const found = columns.map(([column, spec]) => {
      const place = at(column)
      if (place < 0 && spec.required) throw new FormatRefusal('column-absent', file, { column })
      return place
    })
    const strange = header.filter(name => name !== '' && !hasColumn(table, name))
    if (strange.length > 0)
      findings.add('column-unknown', `${file} row 1`, { table, columns: strange.slice(0, 20) })
    return found
  }
  /** Whether a key leads to a row that can be had, as far as that is known. */
  const leads = (refers: TableName, key: string): boolean => {
    if (lost.isMissing(refers)) return false
    return modes[refers] !== 'bulk' || (known.get(refers)?.has(key) ?? false)
  }
  /** Looks at what a value names in other tables; gives back what of it can be had. */
  function followed(spec: Column, text: string, at: { where: string; column: string }): string {
    const { refers } = spec
    if (!refers || refers === table) return text
    const names = spec.type === 'keys' ? keysOf(text) : [text]
    const there = names.filter(name => leads(refers, name))
    const needsOne = spec.required === true && there.length === 0
    if (!needsOne)
      for (const name of names) if (!there.includes(name)) lost.reference({ ...at, table }, refers, name)
    return there.join(',')
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
    const values: Values = {}
    let isSound = true
    let cause: { refers: TableName; key: string; column: string } | null = null
    if (state !== '' && state !== 'active') {
      const column = 'status'
      findings.add('status-unknown', at(column), { table, column, status: cells[status] ?? '' })
      isSound = false
    }
    if (cells.length > width)
      findings.add('too-wide', where, { table, column: '', values: cells.length, columns: width })
    columns.forEach(([column, spec], index) => {
      const text = value(index)
      const fault = faultOf(spec, text)
      const required = spec.required === true
      if (fault) {
        findings.add('value-unlike', at(column), { table, column, required, fault })
        if (required) isSound = false
      }
      if (column === 'dateLastModified') return
      values[column] = fault ? '' : text
      if (fault || !spec.refers || !text) return
      if (spec.refers === table)
        for (const name of spec.type === 'keys' ? keysOf(text) : [text])
          own.push({ row: values, column, key: name, where })
      const there = followed(spec, text, { where: at(column), column })
      if (required && there === '') cause ??= { refers: spec.refers, key: keysOf(text)[0] ?? text, column }
      else values[column] = there
    })
    if (!isSound) return lost.row(table, key, where)
    if (cause !== null) {
      const { refers, key: wanted, column } = cause as { refers: TableName; key: string; column: string }
      return lost.because({ table, key, where: at(column) }, refers, wanted)
    }
    if (keys.has(key)) {
      const column = 'sourcedId'
      return findings.add('key-twice', at(column), { table, column, key })
    }
    lookAtDates(values, where)
    keys.add(key)
    sound.push(values)
  }
  /** Dates the wrong way round are said, and stay: which of the two is wrong nobody here can tell. */
  function lookAtDates(values: Values, where: string): void {
    const [firstColumn, column] = datePairs[table] ?? []
    if (!firstColumn || !column) return
    const [first, then] = [values[firstColumn] ?? '', values[column] ?? '']
    if (first === '' || then === '' || then.slice(0, 10) >= first.slice(0, 10)) return
    findings.add('dates-inverted', `${where}, ${column}`, { table, column, first, then, firstColumn })
  }

  const { header, encoding, delimiter } = readTable(file, bytes, limits, row, first => {
    places = prepare(first)
  })
  if (places === null) throw new FormatRefusal('no-header', file)
  if (encoding !== null) findings.add('encoding', file, { encoding })
  if (delimiter !== ',' && header.length > 1) findings.add('delimiter', file, { delimiter })
  const without = ({ row: values, column }: Reference, key: string): void => {
    values[column] = keysOf(values[column] ?? '')
      .filter(other => other !== key)
      .join(',')
  }
  if (modes[table] === 'bulk')
    for (const reference of own) {
      const { column, key, where } = reference
      if (keys.has(key)) continue
      lost.reference({ where: `${where}, ${column}`, table, column }, table, key)
      without(reference, key)
    }
  for (const { reference, circle } of circles(parentColumns[table], sound, own)) {
    const { column, where, key } = reference
    findings.add('parent-circle', `${where}, ${column}`, { table, column, keys: circle })
    without(reference, key)
  }
  if (toBeDeleted[table].length > 0) findings.add('to-be-deleted', file, { rows: toBeDeleted[table].length })
  return sound as unknown as Row<TableName>[]
}

/** Circles of parents, each with the reference that closes it. */
function circles(
  column: string | undefined,
  rows: readonly Values[],
  references: readonly Reference[],
): { reference: Reference; circle: string[] }[] {
  if (!column) return []
  const parents = new Map(rows.map(row => [row.sourcedId ?? '', row[column] ?? '']))
  const looked = new Set<string>()
  return [...parents.keys()].flatMap(start => {
    const path: string[] = []
    let at = start
    while (at !== '' && parents.has(at) && !looked.has(at) && !path.includes(at)) {
      path.push(at)
      at = parents.get(at) ?? ''
    }
    for (const key of path) looked.add(key)
    if (!path.includes(at)) return []
    const circle = path.slice(path.indexOf(at))
    const closing = references.find(
      reference => reference.row.sourcedId === circle.at(-1) && reference.column === column,
    )
    return closing ? [{ reference: closing, circle }] : []
  })
}
