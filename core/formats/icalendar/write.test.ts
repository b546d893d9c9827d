import { describe, expect, it } from 'vitest'
import { zoneRules } from '../../../server/calendars/zones'
import { wall } from '../../../tests/support/wall'
import { writeDeadlines } from './write'

const zone = zoneRules('America/Halifax', { from: 2027, to: 2027 })
const deadline = (title: string) => ({
  uid: 'a@northtide',
  title,
  at: wall('2027-01-11T23:59'),
  description: 'x\rEND:VCALENDAR',
  categories: ['Tides, and more'],
})
describe('deadlines as an iCalendar stream', () => {
  it('hold together whatever a title is: text is escaped (RFC 5545, section 3.3.11), also of the calendar’s NAME (RFC 7986)', () => {
    const hostile = 'Tides\r\nEND:VCALENDAR\nBEGIN:VEVENT; a, b \\ c'
    const text = writeDeadlines(hostile, [deadline(hostile)], zone, '2027-01-05T20:00')
    const lines = text.split('\r\n')
    expect(lines.filter(line => line === 'END:VCALENDAR')).toHaveLength(1)
    expect(lines.filter(line => line === 'BEGIN:VEVENT')).toHaveLength(1)
    const unfolded = text.replaceAll('\r\n ', '')
    const escaped = String.raw`Tides\nEND:VCALENDAR\nBEGIN:VEVENT\; a\, b \\ c`
    expect(unfolded).toContain(`NAME:${escaped}`)
    expect(unfolded).toContain(`SUMMARY:${escaped}`)
    expect(unfolded).toContain(String.raw`DESCRIPTION:x\nEND:VCALENDAR`)
    // Nothing but line ends and what the standard lets stand.
    expect(text.replaceAll('\r\n', '')).not.toMatch(/[\u0000-\u001f]/)
  })
})
