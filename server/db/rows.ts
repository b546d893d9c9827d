import { v7 } from 'uuid'

/** A new id: UUIDv7, made here, so that no order of the database's is relied on. */
export const newId = (): string => v7()

/** A JSON column: the driver gives it parsed or as text, depending on the server's version. */
export const jsonOf = <T>(value: unknown): T => (typeof value === 'string' ? JSON.parse(value) : value) as T

/** Splits rows so that one statement stays well below the packet limit. */
export function* inBatches<T>(rows: readonly T[], size = 500): Generator<readonly T[]> {
  for (let at = 0; at < rows.length; at += size) yield rows.slice(at, at + size)
}

/** A word as LIKE finds it anywhere in a text: its own %, _ and \ stand for themselves. */
export const anywhere = (word: string): string => `%${word.replace(/[\\%_]/g, '\\$&')}%`
