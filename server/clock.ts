/** The one clock of the application. NORTHTIDE_NOW (an instant, such as 2027-01-05T20:00:00-04:00) stops it there. */
export function now(env: Record<string, string | undefined> = process.env): Date {
  const fixed = env.NORTHTIDE_NOW
  if (!fixed) return new Date()
  const date = new Date(fixed)
  if (Number.isNaN(date.getTime()))
    throw new Error(
      `NORTHTIDE_NOW is ${JSON.stringify(fixed)}, which is not an instant such as 2027-01-05T20:00:00-04:00`,
    )
  return date
}

/** An instant as the database keeps it: DATETIME(3), UTC. */
export const stampOf = (date: Date): string => date.toISOString().slice(0, 23).replace('T', ' ')
/** A DATETIME(3) of the database as an ISO instant. */
export const isoInstant = (stamp: string): string => `${stamp.replace(' ', 'T')}Z`

const clocks = new Map<string, Intl.DateTimeFormat>()
/** One formatter a zone is kept: making one is slow. */
function clockIn(timeZone: string): Intl.DateTimeFormat {
  const known = clocks.get(timeZone)
  if (known) return known
  const clock = new Intl.DateTimeFormat('sv-SE', { timeZone, dateStyle: 'short', timeStyle: 'short' })
  clocks.set(timeZone, clock)
  return clock
}
/** Wall clock `YYYY-MM-DDTHH:MM` of an instant in a zone. */
export const wallClock = (date: Date, timeZone: string): string =>
  clockIn(timeZone).format(date).replace(' ', 'T')
