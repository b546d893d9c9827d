import ICAL from 'ical.js'
import { instantOf, type ZoneRules } from '../../calendar/zone'

// RFC 5545 §3.1: no line is longer than 75 octets; the library does not count the space that starts a continued line.
ICAL.foldLength = 74
// RFC 7986 §5.1: NAME is a TEXT; the library does not know it, and would not escape its line breaks, commas and semicolons.
ICAL.design.icalendar.property.name = { defaultType: 'text' }
/** A text value with no control character but the line feed, which is escaped. */
const plain = (text: string): string => text.replace(/\r\n?/g, '\n').replace(/[^\P{Cc}\n]/gu, ' ')

export interface Deadline {
  /** Stays the same when the date changes, so that a calendar updates instead of doubling. */
  uid: string
  title: string
  /** Wall clock in the zone. */
  at: string
  description: string
  categories: readonly string[]
}

/**
 * Deadlines as an iCalendar stream (RFC 5545): one event without duration each, at its instant in UTC, so that no reader
 * needs the zone's rules. `stamp`: when it was made, wall clock in UTC.
 */
export function writeDeadlines(
  name: string,
  deadlines: readonly Deadline[],
  zone: ZoneRules,
  stamp: string,
): string {
  const calendar = new ICAL.Component(['vcalendar', [], []])
  calendar.updatePropertyWithValue('version', '2.0')
  calendar.updatePropertyWithValue('prodid', '-//Northtide//Northtide//EN')
  calendar.updatePropertyWithValue('method', 'PUBLISH')
  calendar.updatePropertyWithValue('name', plain(name))
  const instant = (milliseconds: number) => ICAL.Time.fromJSDate(new Date(milliseconds), true)
  for (const deadline of deadlines) {
    const event = new ICAL.Component('vevent')
    event.updatePropertyWithValue('uid', deadline.uid)
    event.updatePropertyWithValue('dtstamp', instant(Date.parse(`${stamp}:00Z`)))
    event.updatePropertyWithValue('dtstart', instant(instantOf(zone, deadline.at) * 60_000))
    event.updatePropertyWithValue('summary', plain(deadline.title))
    event.updatePropertyWithValue('description', plain(deadline.description))
    event.updatePropertyWithValue('transp', 'TRANSPARENT')
    const categories = new ICAL.Property('categories')
    categories.setValues(deadline.categories.map(plain))
    event.addProperty(categories)
    calendar.addSubcomponent(event)
  }
  return `${calendar.toString()}\r\n`
}
