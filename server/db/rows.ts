import { deflateRawSync, inflateRawSync } from 'node:zlib'
import type { Knex } from 'knex'
import { v7 } from 'uuid'

/** A new id: UUIDv7, made here, so that no order of the database's is relied on. */
export const newId = (): string => v7()

declare const content: unique symbol
/** What a JSON column holds: written with {@link json}, read with {@link jsonOf}. */
export interface Json<T> {
  readonly [content]: T
}
/** A value as a JSON column takes it. */
export const json = <T>(value: T): Json<T> => JSON.stringify(value) as unknown as Json<T>
/** The value in a JSON column: the driver gives it parsed or as text, depending on the server's version. */
export const jsonOf = <T>(column: Json<T>): T =>
  (typeof column === 'string' ? JSON.parse(column) : column) as T

/** A value as a column of bytes takes it: a document that the database need not look into, deflated (RFC 1951). */
export const packed = <T>(value: T): Packed<T> =>
  deflateRawSync(JSON.stringify(value), { level: 1 }) as unknown as Packed<T>
/** The value in such a column. */
export const unpacked = <T>(column: Packed<T>): T =>
  JSON.parse(inflateRawSync(column as unknown as Buffer).toString('utf8')) as T
/** What such a column holds: written with {@link packed}, read with {@link unpacked}. */
export interface Packed<T> {
  readonly [content]: T
  readonly isPacked: true
}

/** Rows that a raw query finds. `Row` says what the query selects. */
export async function selectRows<Row>(
  db: Knex,
  sql: string,
  bindings: Knex.RawBinding | object,
): Promise<Row[]> {
  const [rows] = (await db.raw(sql, bindings as Knex.ValueDict)) as [Row[]]
  return rows
}
/** How many rows a raw statement wrote. */
export async function written(db: Knex, sql: string, bindings: Knex.RawBinding | object): Promise<number> {
  const [result] = (await db.raw(sql, bindings as Knex.ValueDict)) as [{ affectedRows: number }]
  return result.affectedRows
}
/** How many rows a query finds. */
export async function countOf(query: Knex.QueryBuilder): Promise<number> {
  const [row] = await query.clone().clearSelect().clearOrder().count<{ count: number }[]>({ count: '*' })
  return row?.count ?? 0
}

/** Values by key: for rows that are looked up by one of their columns. */
export const groupBy = <T, K>(values: Iterable<T>, keyOf: (value: T) => K): Map<K, T[]> => {
  const groups = new Map<K, T[]>()
  for (const value of values) {
    const group = groups.get(keyOf(value))
    if (group) group.push(value)
    else groups.set(keyOf(value), [value])
  }
  return groups
}

/** Splits rows so that one statement stays well below the packet limit. */
export function* inBatches<T>(rows: readonly T[], size = 500): Generator<T[]> {
  for (let at = 0; at < rows.length; at += size) yield rows.slice(at, at + size)
}

/** A word as LIKE finds it anywhere in a text: its own %, _ and \ stand for themselves. */
export const anywhere = (word: string): string => `%${word.replace(/[\\%_]/g, '\\$&')}%`
