import { Temporal } from 'temporal-polyfill'
import type { Moment } from '../../core/calendar/recurrence'
import { momentAt } from '../../core/formats/icalendar/zones'
import type { Years, ZoneRules } from '../../core/calendar/zone'

/** Whether a name is a time zone this machine knows. */
export function isTimeZone(zone: string): boolean {
  try {
    // A bare offset such as +04:00 is no zone: it cannot say when clocks change.
    new Intl.DateTimeFormat('en', { timeZone: zone })
    return /^[A-Za-z]/.test(zone)
  } catch {
    return false
  }
}

const known = new Map<string, ZoneRules>()

/** What a zone does to wall clocks from one year to another (both whole), from the IANA data of this machine. */
export function zoneRules(timeZone: string, years: Years): ZoneRules {
  const key = `${timeZone} ${years.from} ${years.to}`
  const cached = known.get(key)
  if (cached) return cached
  const start = Temporal.PlainDate.from({ year: years.from, month: 1, day: 1 }).toZonedDateTime({ timeZone })
  const end = Temporal.PlainDate.from({ year: years.to + 1, month: 1, day: 1 }).toZonedDateTime({
    timeZone,
  }).epochMilliseconds
  const minutes = (moment: Temporal.ZonedDateTime) => moment.offsetNanoseconds / 60e9
  const transitions: { at: number; offset: number }[] = []
  let moment: Temporal.ZonedDateTime | null = start
  while ((moment = moment.getTimeZoneTransition('next')) && moment.epochMilliseconds < end)
    transitions.push({ at: moment.epochMilliseconds / 60_000, offset: minutes(moment) })
  const rules = { timeZone, years, offset: minutes(start), transitions }
  known.set(key, rules)
  return rules
}

/** Tells the wall clock in a zone of an instant given in seconds since 1970 (UTC), from 1970 to 2100. */
export function wallSeconds(timeZone: string): (seconds: number) => Moment {
  const { offset, transitions } = zoneRules(timeZone, { from: 1970, to: 2100 })
  return seconds => {
    let low = 0
    let high = transitions.length
    while (low < high) {
      const middle = (low + high) >> 1
      if (transitions[middle]!.at * 60 <= seconds) low = middle + 1
      else high = middle
    }
    return momentAt(seconds + (low === 0 ? offset : transitions[low - 1]!.offset) * 60)
  }
}
