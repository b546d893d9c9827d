import { Temporal } from 'temporal-polyfill'
import type { ZoneRules } from '../../core/calendar/zone'

/** Whether a name is a time zone this machine knows. */
export function isTimeZone(zone: string): boolean {
  try {
    // A bare offset such as +04:00 is no zone: it cannot say when clocks change.
    new Intl.DateTimeFormat('en', { timeZone: zone })
    return /^[A-Za-z]/.test(zone)
  }
  catch { return false }
}

const known = new Map<string, ZoneRules>()

/** What a zone does to wall clocks from one year to another (both whole), from the IANA data of this machine. */
export function zoneRules(timeZone: string, fromYear: number, toYear: number): ZoneRules {
  const key = `${timeZone} ${fromYear} ${toYear}`
  const cached = known.get(key)
  if (cached) return cached
  const start = Temporal.PlainDate.from({ year: fromYear, month: 1, day: 1 }).toZonedDateTime({ timeZone })
  const end = Temporal.PlainDate.from({ year: toYear + 1, month: 1, day: 1 }).toZonedDateTime({ timeZone }).epochMilliseconds
  const minutes = (moment: Temporal.ZonedDateTime) => moment.offsetNanoseconds / 60e9
  const transitions: { at: number, offset: number }[] = []
  let moment: Temporal.ZonedDateTime | null = start
  while ((moment = moment.getTimeZoneTransition('next')) && moment.epochMilliseconds < end)
    transitions.push({ at: moment.epochMilliseconds / 60_000, offset: minutes(moment) })
  const rules = { timeZone, offset: minutes(start), transitions }
  known.set(key, rules)
  return rules
}
