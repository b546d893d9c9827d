/** Where the database gave way to somebody else: a deadlock (in a cluster a failed certification too), a wait too long, a row that changed. */
const passing = new Set(['ER_LOCK_DEADLOCK', 'ER_LOCK_WAIT_TIMEOUT', 'ER_CHECKREAD'])
/** Where it does not answer, or a node of it is out of its cluster. */
const away = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'ECONNABORTED',
  'EPIPE',
  'ETIMEDOUT',
  'EHOSTUNREACH',
  'ENOTFOUND',
  'PROTOCOL_CONNECTION_LOST',
  'PROTOCOL_SEQUENCE_TIMEOUT',
  'ER_SERVER_SHUTDOWN',
  'ER_NORMAL_SHUTDOWN',
  'ER_CONNECTION_KILLED',
  'ER_CON_COUNT_ERROR',
  'ER_UNKNOWN_COM_ERROR',
])
const codeOf = (error: object): string => ('code' in error ? String(error.code) : '')
const textOf = (error: object): string => ('message' in error ? String(error.message) : '')

/** Whether what was asked may be asked again. */
export const isPassing = (error: unknown): boolean =>
  typeof error === 'object' && error !== null && passing.has(codeOf(error))
/** Whether whoever asked went away while their request was read: Node tells that by a code that a lost database has as well. */
export const isAskerGone = (error: unknown): boolean =>
  error instanceof Error && codeOf(error) === 'ECONNRESET' && error.message === 'aborted'
/** Whether the database could not be reached, or was lost on the way. */
export function isAway(error: unknown): boolean {
  if (typeof error !== 'object' || error === null || isAskerGone(error)) return false
  if (away.has(codeOf(error))) return true
  // The pool's own timeout, and a connection that the driver has given up, have no codes.
  return (
    ('name' in error && error.name === 'KnexTimeoutError') ||
    /in closed state/.test(textOf(error)) ||
    ('cause' in error && isAway(error.cause))
  )
}

/** What a log may say of a fault of the database: never its text, which quotes the values of the statement. */
export interface ToldTrouble {
  type: 'DatabaseError'
  code: string
  errno: unknown
  sqlState: unknown
  stack: string
}
/** A fault of the database as a log may hold it; null where it is another fault. */
export function troubleTold(error: unknown): ToldTrouble | null {
  if (!(error instanceof Error) || !('sqlState' in error || 'sql' in error || isAway(error))) return null
  const { errno, sqlState } = error as { errno?: unknown; sqlState?: unknown }
  const frames = (error.stack ?? '').split('\n').filter(line => /^\s+at /.test(line))
  return { type: 'DatabaseError', code: codeOf(error), errno, sqlState, stack: frames.join('\n') }
}
