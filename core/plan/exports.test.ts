import ical from 'node-ical'
import { describe, expect, it } from 'vitest'
import { wall } from '../../tests/support/wall'
import { zoneRules } from '../../server/calendars/zones'
import { writeDeadlines } from '../formats/icalendar/write'
import { writeCsv } from '../formats/sheet/csv'
import { deadlinesOf, type TitledItem } from './exports'

const item = (title: string, due: string): TitledItem => ({
  lineage: `l-${title.length}`,
  title,
  kind: 'quiz',
  unitTitle: 'Unit; one, of many',
  points: '5',
  opens: null,
  due: wall(due),
  closes: null,
})

describe('deadlines as iCalendar', () => {
  it('are read back by an independent reader (node-ical) at the right instants', () => {
    const long =
      'A very long title with commas, semicolons; backslashes \\ and\nsigns such as ü, 水 and 🌊 that must be folded somewhere along its way'
    const text = writeDeadlines(
      'Sea, tides; more',
      deadlinesOf('course', 'Sea', [
        item(long, '2027-01-08T23:59'),
        item('In summer time', '2027-03-30T23:59'),
        item('In the gap', '2027-03-14T02:30'),
      ]),
      zoneRules('America/Halifax', { from: 2026, to: 2028 }),
      '2027-01-06T00:00',
    )
    expect(text.split('\r\n').every(line => new TextEncoder().encode(line).length <= 75)).toBe(true)
    const events = Object.values(ical.sync.parseICS(text)).filter(
      (entry): entry is ical.VEvent => entry?.type === 'VEVENT',
    )
    expect(events.map(event => [String(event.summary), event.start.toISOString()])).toEqual([
      [`${long} due`, '2027-01-09T03:59:00.000Z'],
      ['In summer time due', '2027-03-31T02:59:00.000Z'],
      ['In the gap due', '2027-03-14T06:30:00.000Z'],
    ])
    expect(new Set(events.map(event => event.uid)).size).toBe(3)
  })
})

describe('CSV', () => {
  it('quotes what RFC 4180 says, and never writes a formula', () => {
    expect(
      writeCsv(
        ['a', 'b'],
        [
          ['x,"y"', '=1+1'],
          ['@SUM', '-2'],
        ],
      ),
    ).toBe('\uFEFFa,b\r\n"x,""y""",\'=1+1\r\n\'@SUM,\'-2\r\n')
  })
})
