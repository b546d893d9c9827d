import type { FindingList } from '../findings'
import type { TableName } from './tables'

type Counts = Map<TableName, number>
const counted = (counts: Counts): { table: TableName; rows: number }[] =>
  [...counts].map(([table, rows]) => ({ table, rows }))

/** Something that is not there, or that could not be used, and the rows that are lost because of it. */
interface Loss {
  /** Rows that name it themselves, and the only one of them where there is but one. */
  readonly direct: Counts
  only: string
  /** Rows that are lost because those are. */
  readonly wake: Counts
}
const newLoss = (): Loss => ({ direct: new Map(), only: '', wake: new Map() })
const add = (counts: Counts, table: TableName): void => {
  counts.set(table, (counts.get(table) ?? 0) + 1)
}

/**
 * Rows that cannot be used, and what is lost in their wake: told once for each cause, with counts, never row by row. A row
 * that names a lost one is lost by the same cause.
 */
export function losses(findings: FindingList) {
  /** The cause of each lost row, by table and key. */
  const lost = new Map<string, Loss>()
  /** Causes: keys that are in no table, and rows with faults of their own, with where they were met first. */
  const absent = new Map<string, { loss: Loss; where: string; key: string; refers: TableName }>()
  const faulty = new Map<Loss, { where: string; table: TableName; key: string }>()
  const missing = new Map<TableName, Loss>()
  /** References that a row can do without, by table, column and key. */
  const dropped = new Map<
    string,
    { where: string; table: TableName; column: string; key: string; refers: TableName; rows: number }
  >()
  const keyOf = (table: TableName, key: string): string => `${table} ${key}`

  return {
    /** A row left out for a fault of its own. */
    row(table: TableName, key: string, where: string): void {
      const loss = newLoss()
      lost.set(keyOf(table, key), loss)
      faulty.set(loss, { where, table, key })
    },
    /** A table that is announced and not there: what needs it is lost. */
    table(table: TableName): void {
      missing.set(table, newLoss())
    },
    isMissing: (table: TableName): boolean => missing.has(table),
    /** A row left out because it names something that cannot be had. */
    because(row: { table: TableName; key: string; where: string }, refers: TableName, key: string): void {
      const before = lost.get(keyOf(refers, key))
      const gone = missing.get(refers)
      if (before ?? gone) {
        const cause = (before ?? gone)!
        add(cause.wake, row.table)
        lost.set(keyOf(row.table, row.key), cause)
        return
      }
      const id = keyOf(refers, key)
      const cause = absent.get(id) ?? { loss: newLoss(), where: row.where, key, refers }
      absent.set(id, cause)
      add(cause.loss.direct, row.table)
      cause.loss.only = row.key
      lost.set(keyOf(row.table, row.key), cause.loss)
    },
    /** A reference left out of a row that makes sense without it. */
    reference(at: { where: string; table: TableName; column: string }, refers: TableName, key: string): void {
      if (lost.has(keyOf(refers, key)) || missing.has(refers)) return
      const id = `${at.table} ${at.column} ${key}`
      const so = dropped.get(id) ?? { ...at, key, refers, rows: 0 }
      so.rows++
      dropped.set(id, so)
    },
    /** Tells what was lost, once every table has been read. */
    tell(): void {
      for (const [table, { wake }] of missing)
        findings.add('table-absent', `${table}.csv`, { table, wake: counted(wake) })
      for (const { where, table, column, key, refers, rows } of dropped.values())
        findings.add('reference-dropped', where, { table, column, key, refers, rows })
      for (const { where, key, refers, loss } of absent.values()) {
        const direct = counted(loss.direct)
        const [table] = [...loss.direct.keys()]
        if (table)
          findings.add('reference-unknown', where, {
            table,
            key,
            refers,
            direct,
            only: loss.only,
            wake: counted(loss.wake),
          })
      }
      for (const [loss, { where, table, key }] of faulty)
        if (loss.wake.size > 0) findings.add('lost-with-it', where, { table, key, wake: counted(loss.wake) })
    },
  }
}
export type Losses = ReturnType<typeof losses>
