import ICAL from 'ical.js'
import ical from 'node-ical'
import { describe, expect, it } from 'vitest'
import { dayOf } from '../../calendar/day'
import { readLimits } from '../limits'
import { readCalendar, type CalendarOptions } from './read'

const calendar = (...components: string[]): string =>
  ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//Made//By hand//EN', ...components, 'END:VCALENDAR', ''].join(
    '\r\n',
  )
const event = (...lines: string[]): string => ['BEGIN:VEVENT', ...lines, 'END:VEVENT'].join('\r\n')
const read = (text: string | Uint8Array, options: CalendarOptions = {}) =>
  readCalendar('a.ics', typeof text === 'string' ? new TextEncoder().encode(text) : text, options)
const days = (text: string, options: CalendarOptions = {}): string[] =>
  read(text, options).events.map(
    entry => `${entry.title} ${entry.firstDay}${entry.lastDay === entry.firstDay ? '' : `/${entry.lastDay}`}`,
  )
const said = (text: string, options: CalendarOptions = {}): string[] =>
  read(text, options).findings.map(finding => `${finding.severity}: ${finding.where}: ${finding.message}`)
// US rules since 2007 as RFC 5545 §3.6.5 writes them.
const halifax = [
  'BEGIN:VTIMEZONE',
  'TZID:Halifax',
  'BEGIN:DAYLIGHT',
  'DTSTART:20070311T020000',
  'RRULE:FREQ=YEARLY;BYMONTH=3;BYDAY=2SU',
  'TZOFFSETFROM:-0400',
  'TZOFFSETTO:-0300',
  'END:DAYLIGHT',
  'BEGIN:STANDARD',
  'DTSTART:20071104T020000',
  'RRULE:FREQ=YEARLY;BYMONTH=11;BYDAY=1SU',
  'TZOFFSETFROM:-0300',
  'TZOFFSETTO:-0400',
  'END:STANDARD',
  'END:VTIMEZONE',
].join('\r\n')

describe('iCalendar', () => {
  it('whole days: the end is exclusive, a duration counts, without either it is one day', () => {
    expect(
      days(
        calendar(
          event('DTSTART;VALUE=DATE:20270215', 'DTEND;VALUE=DATE:20270220', 'SUMMARY:Break'),
          event('DTSTART;VALUE=DATE:20270326', 'SUMMARY:Good day'),
          event('DTSTART;VALUE=DATE:20270401', 'DURATION:P2D', 'SUMMARY:Two'),
        ),
      ),
    ).toEqual(['Break 2027-02-15/2027-02-19', 'Good day 2027-03-26', 'Two 2027-04-01/2027-04-02'])
  })
  it('timed: an end at midnight is not a day more; folded lines and escapes; a title without text', () => {
    expect(
      days(
        calendar(
          event(
            'DTSTART:20270105T200000',
            'DTEND:20270106T000000',
            'SUMMARY:A long\r\n  title\\, wi\r\n\tth \\n breaks\\; and \\\\',
          ),
          event('DTSTART:20270107T220000', 'DURATION:PT3H'),
          event('DTSTART:20270108T100000', 'SUMMARY:Point'),
        ),
      ),
    ).toEqual([
      'A long title, with breaks; and \\ 2027-01-05',
      'Untitled 2027-01-07/2027-01-08',
      'Point 2027-01-08',
    ])
  })
  it('rules with exceptions and additions, and events that stand for one occurrence', () => {
    const lines = [
      'UID:r',
      'DTSTART:20270104T093000',
      'DTEND:20270104T103000',
      'SUMMARY:Class',
      'RRULE:FREQ=WEEKLY;COUNT=4',
      'EXDATE:20270111T093000',
      'RDATE:20270114T093000,20270115T093000',
    ]
    expect(
      days(
        calendar(
          event(...lines),
          event('UID:r', 'RECURRENCE-ID:20270118T093000', 'DTSTART:20270119T140000', 'SUMMARY:Moved'),
          event('UID:r', 'RECURRENCE-ID:20270125T093000', 'DTSTART:20270125T093000', 'STATUS:CANCELLED'),
        ),
      ),
    ).toEqual(['Class 2027-01-04', 'Class 2027-01-14', 'Class 2027-01-15', 'Moved 2027-01-19'])
  })
  it('a rule that does not hold the day it starts on is taken at its word, and that is said', () => {
    const march = (first: string) =>
      calendar(
        event(`DTSTART;VALUE=DATE:${first}`, 'RRULE:FREQ=YEARLY;BYMONTH=3;BYMONTHDAY=5;COUNT=2', 'SUMMARY:M'),
      )
    expect(days(march('20270212'))).toEqual(['M 2027-03-05', 'M 2028-03-05'])
    expect(said(march('20270212')).join()).toContain('the rule of "M" does not hold the day it starts on')
    expect(said(march('20270305'))).toEqual([])
  })
  it('an endless rule is cut 366 days after its start, or at the last day asked for', () => {
    const yearly = calendar(event('DTSTART;VALUE=DATE:20270105', 'RRULE:FREQ=YEARLY', 'SUMMARY:Y'))
    expect(days(yearly)).toEqual(['Y 2027-01-05', 'Y 2028-01-05'])
    expect(said(yearly)).toEqual([
      'note: a.ics: 1 rule has no end; what comes more than 366 days after the start was cut (give a first and last day to read more)',
    ])
    const weekly = calendar(
      event('DTSTART;VALUE=DATE:20200106', 'RRULE:FREQ=WEEKLY', 'SUMMARY:W'),
      event('DTSTART;VALUE=DATE:20270301', 'SUMMARY:Late'),
    )
    expect(days(weekly, { from: dayOf('2027-01-06'), to: dayOf('2027-01-25') })).toEqual([
      'W 2027-01-11',
      'W 2027-01-18',
      'W 2027-01-25',
    ])
    expect(said(weekly, { from: dayOf('2027-01-06'), to: dayOf('2027-01-25') }).at(-1)).toBe(
      'note: a.ics: 1 event lies outside the days asked for; it was left out',
    )
  })
  it('zones of the file: UNTIL, EXDATE and DTEND in UTC meet starts in a zone across the change of clocks', () => {
    const lines = [
      'UID:z',
      'DTSTART;TZID=Halifax:20270310T210000',
      'DTEND:20270311T020000Z',
      'SUMMARY:Z',
      'RRULE:FREQ=DAILY;UNTIL=20270316T000000Z',
      'EXDATE:20270314T000000Z',
    ]
    // 14 March 00:00Z is 20:00 on the 13th in Halifax (before the change); 21:00 there is 01:00Z, so nothing is taken out. UNTIL 16 March 00:00Z is 21:00 on the 15th, after it.
    expect(days(calendar(halifax, event(...lines)))).toEqual([
      'Z 2027-03-10',
      'Z 2027-03-11',
      'Z 2027-03-12',
      'Z 2027-03-13',
      'Z 2027-03-14',
      'Z 2027-03-15',
    ])
    expect(days(calendar(halifax, event(...lines.slice(0, -1), 'EXDATE:20270315T000000Z')))).toEqual([
      'Z 2027-03-10',
      'Z 2027-03-11',
      'Z 2027-03-12',
      'Z 2027-03-13',
      'Z 2027-03-15',
    ])
    expect(said(calendar(event('DTSTART;TZID=Nowhere:20270310T210000', 'SUMMARY:N')))).toEqual([
      'note: a.ics line 5: the zone Nowhere is not described in the file; its times were read as they stand',
    ])
  })
  it('agrees with node-ical and ical.js on the dates of a stream that all three read', () => {
    const text = calendar(
      halifax,
      event(
        'UID:a',
        'DTSTAMP:20270101T000000Z',
        'DTSTART;VALUE=DATE:20270215',
        'DTEND;VALUE=DATE:20270220',
        'SUMMARY:Break',
      ),
      event(
        'UID:b',
        'DTSTAMP:20270101T000000Z',
        'DTSTART:20270108T140000Z',
        'DTEND:20270108T150000Z',
        'RRULE:FREQ=WEEKLY;UNTIL=20270220T000000Z;BYDAY=FR',
        'EXDATE:20270122T140000Z',
        'SUMMARY:Talk',
      ),
    )
    const theirs = Object.values(ical.sync.parseICS(text)).flatMap(entry => {
      if (entry?.type !== 'VEVENT') return []
      const gone = Object.keys(entry.exdate ?? {}).map(key => key.slice(0, 10))
      return entry.rrule
        ? entry.rrule
            .all()
            .map(date => date.toISOString().slice(0, 10))
            .filter(day => !gone.includes(day))
        : [`${entry.start.getFullYear()}-02-15`]
    })
    expect(
      read(text)
        .events.map(entry => entry.firstDay)
        .sort(),
    ).toEqual(theirs.sort())
    const talk = new ICAL.Event(new ICAL.Component(ICAL.parse(text)).getAllSubcomponents('vevent')[1])
    const iterator = talk.iterator()
    const byIcalJs: string[] = []
    for (let next = iterator.next(); next; next = iterator.next()) byIcalJs.push(next.toString().slice(0, 10))
    expect(
      read(text)
        .events.filter(entry => entry.title === 'Talk')
        .map(entry => entry.firstDay),
    ).toEqual(byIcalJs)
  })
  it('one broken event does not cost the others; where it stands is said', () => {
    const text = calendar(
      event('SUMMARY:No start'),
      event('DTSTART:garbage', 'SUMMARY:Bad'),
      event('DTSTART;VALUE=DATE:20270230', 'SUMMARY:No day'),
      event('DTSTART;VALUE=DATE:20270105', 'RRULE:FREQ=SOMETIMES', 'SUMMARY:R'),
      event('DTSTART;VALUE=DATE:20270105', 'DTEND;VALUE=DATE:20270101', 'SUMMARY:Back'),
      event('DTSTART:20270106', 'SUMMARY:Loose'),
      'BEGIN:VTODO',
      'SUMMARY:T',
      'END:VTODO',
    )
    expect(days(text)).toEqual(['Back 2027-01-05', 'Loose 2027-01-06'])
    expect(said(text)).toEqual([
      'note: a.ics: 1 of VTODO is no event; it was not read',
      'error: a.ics line 4: “No start” cannot be read: it has no DTSTART; it was left out',
      'error: a.ics line 7: “Bad” cannot be read: DTSTART is no date: "DTSTART:garbage"; it was left out',
      'error: a.ics line 11: “No day” cannot be read: DTSTART is no date: "DTSTART;VALUE=DATE:20270230"; it was left out',
      expect.stringMatching(/^error: a.ics line 15: “R” cannot be read: RRULE: .*SOMETIMES/),
      'warning: a.ics line 20: “Back” ends before it starts; it was read as one day',
    ])
  })
  it('reads enumerated values in any case (RFC 5545 §2)', () => {
    const text = calendar(
      event('DTSTART;value=date:20270104', 'RRULE:freq=weekly;count=3;byday=mo', 'SUMMARY:Mondays'),
      event('DTSTART;VALUE=DATE:20270105', 'STATUS:cancelled', 'SUMMARY:Gone'),
    )
    expect(days(text)).toEqual(['Mondays 2027-01-04', 'Mondays 2027-01-11', 'Mondays 2027-01-18'])
    expect(said(text)).toEqual(['note: a.ics: 1 event is cancelled; it was left out'])
  })
  it('unfolds lines as bytes, since a fold may cut a character in two (RFC 5545 §3.1)', () => {
    const whole = new TextEncoder().encode(
      calendar(event('DTSTART;VALUE=DATE:20270104', 'SUMMARY:Ebbe für Töne 𝄞!')),
    )
    const at = (text: string): number => Buffer.from(whole).indexOf(text)
    for (const [letter, size] of [
      ['ü', 2],
      ['𝄞', 4],
    ] as const)
      for (let cut = 1; cut < size; cut++)
        for (const fold of ['\r\n ', '\n\t']) {
          const place = at(letter) + cut
          const folded = Buffer.concat([whole.subarray(0, place), Buffer.from(fold), whole.subarray(place)])
          const { events, findings } = read(new Uint8Array(folded))
          expect([events[0]?.title, findings]).toEqual(['Ebbe für Töne 𝄞!', []])
        }
  })
  it('names an event by its summary and UID, and says of two that share one', () => {
    const text = calendar(
      event('UID:abc@port-ellery.example', 'DTSTART:never', 'SUMMARY:Regatta'),
      event('UID:one', 'DTSTART;VALUE=DATE:20270104', 'SUMMARY:First'),
      event('UID:one', 'DTSTART;VALUE=DATE:20270105', 'SUMMARY:Second'),
    )
    expect(days(text)).toEqual(['First 2027-01-04', 'Second 2027-01-05'])
    expect(said(text)).toEqual([
      'error: a.ics line 4, UID abc@port-ellery.example: “Regatta” cannot be read: DTSTART is no date: "DTSTART:never"; it was left out',
      'warning: a.ics line 14, UID one: “Second” has the UID of “First” (line 9), and no RECURRENCE-ID says which occurrence it stands for; both are kept',
    ])
  })
  it('says where a value is no DATE though one is announced', () => {
    const text = calendar(
      event('DTSTART;VALUE=DATE:20270104T090000', 'SUMMARY:Timed'),
      event(
        'DTSTART;VALUE=DATE:20270105',
        'RRULE:FREQ=DAILY;COUNT=2',
        'EXDATE;VALUE=DATE:2027-01-06',
        'SUMMARY:Two',
      ),
    )
    expect(said(text)).toEqual([
      'warning: a.ics line 4: “Timed”: DTSTART announces a date, and "20270104T090000" has a time too; the day was read',
      'warning: a.ics line 8: “Two”: an EXDATE is no date; it was left out',
    ])
  })
  it('refuses what is no stream, is cut off, or makes too much', () => {
    expect(() => read('hello')).toThrow(/line 1: is not an iCalendar stream/)
    expect(() => read(calendar(event('DTSTART:20270105T100000')).slice(0, 80))).toThrow(/cut off/)
    expect(() => read('BEGIN:VCALENDAR\nEND:VEVENT\n')).toThrow(/line 2: ends VEVENT/)
    expect(() => read(`${'BEGIN:VCALENDAR\n'.repeat(20)}`)).toThrow(/nest more than/)
    expect(() =>
      read(
        calendar(
          ...Array.from({ length: 40 }, () => event('DTSTART;VALUE=DATE:20270105', 'RRULE:FREQ=DAILY')),
        ),
        { limits: { ...readLimits, events: 10_000 } },
      ),
    ).toThrow(/makes more than 10000 events/)
    expect(() => read(calendar('BEGIN:VEVENT', `SUMMARY:${'x'.repeat(1_100_000)}`, 'END:VEVENT'))).toThrow(
      /line is longer/,
    )
    expect(() => read('BEGIN:VCALENDAR\0')).toThrow(/zero bytes/)
    expect(
      said(
        calendar(event('DTSTART:20270105T100000', 'RRULE:FREQ=MINUTELY;UNTIL=20270301T000000', 'SUMMARY:M')),
      )[0],
    ).toMatch(/repeats more than 20000 times/)
  })
})
