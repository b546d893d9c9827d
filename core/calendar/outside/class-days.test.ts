import * as formulajs from '@formulajs/formulajs'
import Holidays from 'date-holidays'
import fc from 'fast-check'
import { rrulestr } from 'rrule'
import { Temporal } from 'temporal-polyfill'
import { describe, expect, it } from 'vitest'
import { anyCalendar, anyMeetings } from '../../../tests/support/arbitraries'
import { dayOf, isoOf, weekdayOf, type Weekday } from '../day'
import { termCalendar, type Meeting, type TermCalendar } from '../schema'
import { compileTerm, isUsable, meetingDays, weekFirst } from '../term'

const many = Number(process.env.NORTHTIDE_RUNS ?? 1)
const meetings = (...weekdays: Weekday[]): Meeting[] =>
  weekdays.map(weekday => ({ weekday, start: '09:00', end: '10:00' }))
const isoDay = (date: Date): string => date.toISOString().slice(0, 10)

describe('ISO 8601 weeks and weekdays', () => {
  it('a week from Monday is the ISO week that Temporal names', () => {
    fc.assert(
      fc.property(fc.integer({ min: -40_000, max: 60_000 }), day => {
        const [first, date] = [
          Temporal.PlainDate.from(isoOf(weekFirst(1, day))),
          Temporal.PlainDate.from(isoOf(day)),
        ]
        expect([first.dayOfWeek, first.yearOfWeek, first.weekOfYear]).toEqual([
          1,
          date.yearOfWeek,
          date.weekOfYear,
        ])
      }),
    )
  })
  it('has the dates that ISO 8601 gives as examples of its week dates (from memory)', () => {
    // 2004-W53-6 is Saturday 1 January 2005; 2009-W01-1 is Monday 29 December 2008; 2009-W53-7 is Sunday 3 January 2010.
    expect([
      weekdayOf(dayOf('2005-01-01')),
      weekdayOf(dayOf('2008-12-29')),
      weekdayOf(dayOf('2010-01-03')),
    ]).toEqual([6, 1, 7])
    expect(isoOf(weekFirst(1, dayOf('2010-01-03')))).toBe('2009-12-28')
  })
})

describe('meeting days, against RFC 5545 recurrence', () => {
  it('RFC 5545 §3.8.5.3, "weekly on Tuesday and Thursday for five weeks"', () => {
    const term = compileTerm(
      termCalendar.parse({
        timeZone: 'America/New_York',
        classes: { from: '1997-09-02', to: '1997-10-06' },
        weekStart: 7,
      }),
    )
    expect(meetingDays(term, meetings(2, 4)).map(isoOf)).toEqual([
      '1997-09-02',
      '1997-09-04',
      '1997-09-09',
      '1997-09-11',
      '1997-09-16',
      '1997-09-18',
      '1997-09-23',
      '1997-09-25',
      '1997-09-30',
      '1997-10-02',
    ])
  })
  it('RFC 5545 §3.8.5.3, "every other week on Monday, Wednesday, and Friday", as a term with every other week closed', () => {
    const closures = [
      ['1997-09-07', '1997-09-13'],
      ['1997-09-21', '1997-09-27'],
      ['1997-10-05', '1997-10-11'],
      ['1997-10-19', '1997-10-25'],
      ['1997-11-02', '1997-11-08'],
      ['1997-11-16', '1997-11-22'],
      ['1997-11-30', '1997-12-06'],
      ['1997-12-14', '1997-12-20'],
    ].map(([from, to]) => ({ from, to }))
    const term = compileTerm(
      termCalendar.parse({
        timeZone: 'America/New_York',
        classes: { from: '1997-09-01', to: '1997-12-23' },
        weekStart: 7,
        closures,
      }),
    )
    expect(meetingDays(term, meetings(1, 3, 5)).map(isoOf)).toEqual([
      '1997-09-01',
      '1997-09-03',
      '1997-09-05',
      '1997-09-15',
      '1997-09-17',
      '1997-09-19',
      '1997-09-29',
      '1997-10-01',
      '1997-10-03',
      '1997-10-13',
      '1997-10-15',
      '1997-10-17',
      '1997-10-27',
      '1997-10-29',
      '1997-10-31',
      '1997-11-10',
      '1997-11-12',
      '1997-11-14',
      '1997-11-24',
      '1997-11-26',
      '1997-11-28',
      '1997-12-08',
      '1997-12-10',
      '1997-12-12',
      '1997-12-22',
    ])
  })
  it('any pattern with exceptions and additions is what the rrule package expands', () => {
    const names = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU']
    fc.assert(
      fc.property(
        anyCalendar,
        anyMeetings.filter(pattern => pattern.length > 0),
        (calendar, pattern) => {
          const term = compileTerm(calendar)
          const inPattern = (weekday: Weekday) =>
            pattern.some(entry => entry.weekday === weekday) && calendar.teachingWeekdays.includes(weekday)
          const weekdays = [...new Set(pattern.map(entry => entry.weekday))].filter(inPattern)
          const stamp = (day: number) => `${isoOf(day).replaceAll('-', '')}T000000Z`
          const [exceptions, additions]: [string[], string[]] = [[], []]
          for (let day = term.classes.from; day <= term.classes.to; day++) {
            const changed = calendar.runsAs.find(entry => entry.date === isoOf(day))
            const closed = calendar.closures.some(
              closure => isoOf(day) >= closure.from && isoOf(day) <= closure.to,
            )
            if (closed || (changed && !inPattern(changed.weekday))) exceptions.push(stamp(day))
            else if (changed) additions.push(stamp(day))
          }
          const lines = [
            `DTSTART:${stamp(term.classes.from)}`,
            ...(weekdays.length
              ? [
                  `RRULE:FREQ=WEEKLY;BYDAY=${weekdays.map(weekday => names[weekday - 1]).join(',')};UNTIL=${stamp(term.classes.to)}`,
                ]
              : []),
            ...(additions.length ? [`RDATE:${additions.join(',')}`] : []),
            ...(exceptions.length ? [`EXDATE:${exceptions.join(',')}`] : []),
          ]
          const expanded =
            weekdays.length || additions.length
              ? rrulestr(lines.join('\n'), { forceset: true }).all().map(isoDay)
              : []
          expect(meetingDays(term, pattern).map(isoOf)).toEqual([...new Set(expanded)])
        },
      ),
      { numRuns: many * 150 },
    )
  })
})

describe('class days, against OpenFormula’s NETWORKDAYS.INTL and WORKDAY.INTL (formulajs)', () => {
  const functions = formulajs as unknown as Record<
    'NETWORKDAYS' | 'WORKDAY',
    { INTL: (...args: unknown[]) => number | Date | Error }
  >
  // The functions know no changed timetables; closures are given to them day by day.
  const local = (day: number): Date => {
    const [y, m, d] = isoOf(day).split('-').map(Number)
    return new Date(y!, m! - 1, d)
  }
  const holidays = (calendar: TermCalendar): Date[] =>
    calendar.closures.flatMap(closure =>
      Array.from({ length: dayOf(closure.to) - dayOf(closure.from) + 1 }, (_, at) =>
        local(dayOf(closure.from) + at),
      ),
    )
  // The weekends that the functions name by number (OpenFormula §6.10.12): 1 to 7 are pairs from Saturday and Sunday on, 11 to 17 single days from Sunday on.
  const weekends: [number, Weekday[]][] = [
    [1, [6, 7]],
    [2, [7, 1]],
    [5, [3, 4]],
    [7, [5, 6]],
    [11, [7]],
    [12, [1]],
    [17, [6]],
  ]
  const withWeekend = fc
    .tuple(anyCalendar, fc.constantFrom(...weekends))
    .map(([calendar, [number, off]]) => ({
      number,
      calendar: {
        ...calendar,
        runsAs: [],
        teachingWeekdays: ([1, 2, 3, 4, 5, 6, 7] as Weekday[]).filter(weekday => !off.includes(weekday)),
      },
    }))
    .filter(({ calendar }) => compileTerm(calendar).classDays.length > 0)
  it('their number', () => {
    fc.assert(
      fc.property(withWeekend, ({ number, calendar }) => {
        const term = compileTerm(calendar)
        expect(
          functions.NETWORKDAYS.INTL(
            local(term.classes.from),
            local(term.classes.to),
            number,
            holidays(calendar),
          ),
        ).toBe(term.classDays.length)
      }),
      { numRuns: many * 200 },
    )
  })
  it('the n-th of them', () => {
    fc.assert(
      fc.property(withWeekend, fc.nat(), ({ number, calendar }, n) => {
        const term = compileTerm(calendar)
        const at = n % term.classDays.length
        const day = functions.WORKDAY.INTL(
          local(term.classes.from - 1),
          at + 1,
          number,
          holidays(calendar),
        ) as Date
        expect(
          `${day.getFullYear()}-${String(day.getMonth() + 1).padStart(2, '0')}-${String(day.getDate()).padStart(2, '0')}`,
        ).toBe(isoOf(term.classDays[at]!))
      }),
      { numRuns: many * 200 },
    )
  })
})

describe('public holidays from date-holidays as closures', () => {
  it.each([
    ['CA', 'NS', 'America/Halifax'],
    ['DE', 'BE', 'Europe/Berlin'],
    ['AU', 'SA', 'Australia/Adelaide'],
  ])(
    '%s-%s: no class day falls on one, and every other teaching weekday is one',
    (country, region, timeZone) => {
      const days = new Holidays(country, region, { types: ['public'] })
        .getHolidays(2027)
        .map(holiday => holiday.date.slice(0, 10))
        .filter(date => date.startsWith('2027'))
      expect(days.length).toBeGreaterThan(5)
      const term = compileTerm(
        termCalendar.parse({
          timeZone,
          classes: { from: '2027-01-01', to: '2027-12-31' },
          closures: days.map(date => ({ from: date, to: date })),
        }),
      )
      const expected: string[] = []
      for (let date = Temporal.PlainDate.from('2027-01-01'); date.year === 2027; date = date.add({ days: 1 }))
        if (date.dayOfWeek <= 5 && !days.includes(date.toString())) expected.push(date.toString())
      expect(term.classDays.map(isoOf)).toEqual(expected)
      for (const date of days) expect(isUsable(term, dayOf(date))).toBe(false)
    },
  )
  it('has the holidays of the demo’s calendars where they are', () => {
    const named = (year: number, name: string, ...region: string[]) =>
      new Holidays('CA', ...(region as [string]))
        .getHolidays(year)
        .find(holiday => holiday.name === name)
        ?.date.slice(0, 10)
    expect([
      named(2026, 'Labour Day', 'NS'),
      named(2026, 'Remembrance Day', 'NS'),
      named(2027, 'Good Friday', 'NS'),
      named(2027, 'Victoria Day', 'ON'),
    ]).toEqual(['2026-09-07', '2026-11-11', '2027-03-26', '2027-05-24'])
  })
})
