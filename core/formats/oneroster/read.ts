import { present } from '../../present'
import type { Archive } from '../archive/archive'
import { findingList, type Finding } from '../findings'
import { readLimits, type ReadLimits } from '../limits'
import { FormatRefusal } from '../refusal'
import { readTable } from '../sheet/table'
import { losses } from './losses'
import { readRows, type Reading } from './rows'
import { tableNames, type Row, type TableName } from './tables'

export { keysOf } from './rows'

/** The sound rows of every table of a bundle. Rows marked `tobedeleted` are not among them. */
export type Roster = { readonly [T in TableName]: Row<T>[] }
export interface RosterRead {
  roster: Roster
  /** How each table is sent: whole, or only what has changed. */
  modes: Readonly<Record<TableName, 'absent' | 'bulk' | 'delta'>>
  /** Tables that are there though the manifest does not say so: they can be read all the same. */
  offered: readonly TableName[]
  /** Keys of the rows marked `tobedeleted`. */
  toBeDeleted: Readonly<Record<TableName, readonly string[]>>
  findings: Finding[]
}
/** How a table comes: what is stated in no known way is taken for the whole of it. */
function modeOf(stated: string | undefined): 'absent' | 'bulk' | 'delta' {
  if (stated === undefined || stated === 'absent') return 'absent'
  return stated === 'delta' ? 'delta' : 'bulk'
}
/** A roster without a row. */
export const noRoster = Object.fromEntries(tableNames.map(table => [table, []])) as unknown as Roster
const manifestName = 'manifest.csv'

/** The folder of a bundle inside its archive, or null where it is no bundle. */
export function rosterFolder(archive: Archive): string | null {
  if (archive.entries.has(manifestName)) return ''
  const found = [...archive.entries.keys()].filter(
    path => path.endsWith(`/${manifestName}`) && path.split('/').length === 2,
  )
  return found.length === 1 ? present(found[0]).slice(0, -manifestName.length) : null
}

/**
 * Reads a 1EdTech OneRoster 1.1 CSV bundle (a zip with manifest.csv). Rows that are wrong are findings by file, row and
 * column, and the sound rows are read. Row numbers count the header as row 1. What a table sent as delta, or not sent at
 * all, would hold is not known: references into it are let be. What needs a table that is announced whole and missing is lost.
 * `include`: tables to read though the manifest says they are not there.
 * @throws FormatRefusal where it is no such bundle.
 */
export async function readOneRoster(
  archive: Archive,
  limits: ReadLimits = readLimits,
  progress: (done: number, total: number) => void = () => {},
  include: readonly TableName[] = [],
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
  const lost = losses(findings)
  const offered: TableName[] = []
  for (const table of tableNames) {
    const file = `${table}.csv`
    const stated = properties.get(`file.${table}`)?.toLowerCase()
    const isThere = archive.entries.has(folder + file)
    const isEmpty = isThere && archive.entries.get(folder + file)?.size === 0
    const isNamed = stated !== undefined && stated !== 'absent'
    const isRead = isNamed || include.includes(table)
    if (stated !== undefined && !['absent', 'bulk', 'delta'].includes(stated))
      findings.add('mode-unknown', `${manifestName}, file.${table}`, { table, mode: stated, isThere })
    if (isEmpty) findings.add('table-empty', file, { table })
    else if (isThere && !isNamed) {
      findings.add('table-unnamed', file, { table, mode: stated, isRead })
      offered.push(table)
    }
    if (isNamed && stated === 'bulk' && (!isThere || isEmpty)) lost.table(table)
    else if (isNamed && !isThere) findings.add('table-absent', file, { table, wake: [] })
    modes[table] = isThere && !isEmpty && isRead ? modeOf(isNamed ? stated : 'bulk') : 'absent'
  }
  for (const [path, { size }] of archive.entries) {
    const file = path.slice(folder.length)
    if (
      !path.startsWith(folder) ||
      file === manifestName ||
      tableNames.some(table => file === `${table}.csv`)
    )
      continue
    findings.add(size === 0 ? 'file-empty' : 'not-a-table', path)
  }

  const reading: Reading = {
    limits,
    findings,
    lost,
    modes,
    known: new Map(),
    toBeDeleted: Object.fromEntries(
      tableNames.map(table => [table, [] as string[]]),
    ) as Reading['toBeDeleted'],
  }
  const sizeOf = (table: TableName): number => archive.entries.get(`${folder}${table}.csv`)?.size ?? 0
  const total = tableNames.reduce((sum, table) => sum + sizeOf(table), 0)
  let done = 0
  const roster = {} as Record<TableName, Row<TableName>[]>
  for (const table of tableNames) {
    const isRead = modes[table] !== 'absent'
    roster[table] = isRead ? readRows(reading, table, await archive.bytes(`${folder}${table}.csv`)) : []
    done += sizeOf(table)
    progress(done, total)
  }
  lost.tell()
  const { toBeDeleted } = reading
  return { roster: roster as unknown as Roster, modes, offered, toBeDeleted, findings: findings.all() }
}
