import pino from 'pino'

/** Structured logs, a JSON line each, to standard output. NORTHTIDE_LOG_LEVEL: `info` unless set; `silent` in most tests. */
export const log = pino({
  level: process.env.NORTHTIDE_LOG_LEVEL || 'info',
  base: undefined,
  timestamp: pino.stdTimeFunctions.isoTime,
})
