import pino from 'pino'
import { isAway, troubleTold } from '../db/trouble'

/** Structured logs, a JSON line each, to standard output. NORTHTIDE_LOG_LEVEL: `info` unless set; `silent` in most tests. */
export const log = pino({
  level: process.env.NORTHTIDE_LOG_LEVEL || 'info',
  base: undefined,
  // What the database says of a fault quotes the values of the statement: names, addresses, text of students.
  serializers: { err: (error: Error) => troubleTold(error) ?? pino.stdSerializers.err(error) },
  timestamp: pino.stdTimeFunctions.isoTime,
})

const told = new Map<string, number>()
/** Says something at most once a second, however often it happens: what fails for everybody fails often. */
export function logSeldom(what: string, error: unknown): void {
  const at = Date.now()
  // Whatever fails because the database is away, it is one thing.
  const key = isAway(error) ? 'away' : what
  if (at - (told.get(key) ?? 0) < 1000) return
  told.set(key, at)
  log.error({ err: error }, what)
}
