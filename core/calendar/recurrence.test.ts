import fc from 'fast-check'
import { rrulestr } from 'rrule'
import { describe, expect, it } from 'vitest'
import ICAL from 'ical.js'
import { ruleOf, stampOfValue } from '../formats/icalendar/rule'
import { dayOf, isoOf } from './day'
import { occurrences, type RecurrenceRule } from './recurrence'

const parsed = (text: string): RecurrenceRule =>
  ruleOf(
    (
      ICAL.parse.property(`RRULE:${text}`, ICAL.design.icalendar) as [
        string,
        object,
        string,
        Record<string, unknown>,
      ]
    )[3],
    stamp => stamp.moment,
  )
const clock = (second: number): string =>
  `${String(Math.floor(second / 3600)).padStart(2, '0')}:${String(Math.floor(second / 60) % 60).padStart(2, '0')}:${String(second % 60).padStart(2, '0')}`
function expand(text: string, start: string, most = 30, last = '2200-01-01', first = start): string[] {
  const found: string[] = []
  for (const moment of occurrences(parsed(text), stampOfValue(start)!.moment, dayOf(first), dayOf(last), {
    left: 5_000_000,
  })) {
    found.push(`${isoOf(moment.day)}T${clock(moment.second)}`)
    if (found.length === most) break
  }
  return found
}
const days = (text: string, start: string, most = 30): string[] =>
  expand(text, start, most).map(moment => moment.slice(0, 10))

// RFC 5545 §3.8.5.3 gives these rules with their dates, all for a start in 1997 (rules and results from memory of the text).
describe('the examples of RFC 5545', () => {
  it.each<[string, string, string[]]>([
    [
      'FREQ=DAILY;INTERVAL=10;COUNT=5',
      '1997-09-02T09:00:00',
      ['1997-09-02', '1997-09-12', '1997-09-22', '1997-10-02', '1997-10-12'],
    ],
    [
      'FREQ=WEEKLY;INTERVAL=2;COUNT=8;WKST=SU;BYDAY=TU,TH',
      '1997-09-02T09:00:00',
      [
        '1997-09-02',
        '1997-09-04',
        '1997-09-16',
        '1997-09-18',
        '1997-09-30',
        '1997-10-02',
        '1997-10-14',
        '1997-10-16',
      ],
    ],
    [
      'FREQ=MONTHLY;COUNT=10;BYDAY=1FR',
      '1997-09-05T09:00:00',
      [
        '1997-09-05',
        '1997-10-03',
        '1997-11-07',
        '1997-12-05',
        '1998-01-02',
        '1998-02-06',
        '1998-03-06',
        '1998-04-03',
        '1998-05-01',
        '1998-06-05',
      ],
    ],
    [
      'FREQ=MONTHLY;INTERVAL=2;COUNT=10;BYDAY=1SU,-1SU',
      '1997-09-07T09:00:00',
      [
        '1997-09-07',
        '1997-09-28',
        '1997-11-02',
        '1997-11-30',
        '1998-01-04',
        '1998-01-25',
        '1998-03-01',
        '1998-03-29',
        '1998-05-03',
        '1998-05-31',
      ],
    ],
    [
      'FREQ=MONTHLY;COUNT=6;BYDAY=-2MO',
      '1997-09-22T09:00:00',
      ['1997-09-22', '1997-10-20', '1997-11-17', '1997-12-22', '1998-01-19', '1998-02-16'],
    ],
    [
      'FREQ=MONTHLY;COUNT=6;BYMONTHDAY=-3',
      '1997-09-28T09:00:00',
      ['1997-09-28', '1997-10-29', '1997-11-28', '1997-12-29', '1998-01-29', '1998-02-26'],
    ],
    [
      'FREQ=MONTHLY;COUNT=10;BYMONTHDAY=1,-1',
      '1997-09-30T09:00:00',
      [
        '1997-09-30',
        '1997-10-01',
        '1997-10-31',
        '1997-11-01',
        '1997-11-30',
        '1997-12-01',
        '1997-12-31',
        '1998-01-01',
        '1998-01-31',
        '1998-02-01',
      ],
    ],
    [
      'FREQ=YEARLY;INTERVAL=3;COUNT=10;BYYEARDAY=1,100,200',
      '1997-01-01T09:00:00',
      [
        '1997-01-01',
        '1997-04-10',
        '1997-07-19',
        '2000-01-01',
        '2000-04-09',
        '2000-07-18',
        '2003-01-01',
        '2003-04-10',
        '2003-07-19',
        '2006-01-01',
      ],
    ],
    ['FREQ=YEARLY;BYDAY=20MO;COUNT=3', '1997-05-19T09:00:00', ['1997-05-19', '1998-05-18', '1999-05-17']],
    [
      'FREQ=YEARLY;BYWEEKNO=20;BYDAY=MO;COUNT=3',
      '1997-05-12T09:00:00',
      ['1997-05-12', '1998-05-11', '1999-05-17'],
    ],
    [
      'FREQ=YEARLY;BYMONTH=3;BYDAY=TH;COUNT=11',
      '1997-03-13T09:00:00',
      [
        '1997-03-13',
        '1997-03-20',
        '1997-03-27',
        '1998-03-05',
        '1998-03-12',
        '1998-03-19',
        '1998-03-26',
        '1999-03-04',
        '1999-03-11',
        '1999-03-18',
        '1999-03-25',
      ],
    ],
    [
      'FREQ=MONTHLY;BYDAY=FR;BYMONTHDAY=13;COUNT=5',
      '1997-09-03T09:00:00',
      ['1998-02-13', '1998-03-13', '1998-11-13', '1999-08-13', '2000-10-13'],
    ],
    [
      'FREQ=YEARLY;INTERVAL=4;BYMONTH=11;BYDAY=TU;BYMONTHDAY=2,3,4,5,6,7,8;COUNT=3',
      '1996-11-05T09:00:00',
      ['1996-11-05', '2000-11-07', '2004-11-02'],
    ],
    [
      'FREQ=MONTHLY;COUNT=3;BYDAY=TU,WE,TH;BYSETPOS=3',
      '1997-09-04T09:00:00',
      ['1997-09-04', '1997-10-07', '1997-11-06'],
    ],
    [
      'FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-2;COUNT=7',
      '1997-09-29T09:00:00',
      ['1997-09-29', '1997-10-30', '1997-11-27', '1997-12-30', '1998-01-29', '1998-02-26', '1998-03-30'],
    ],
    [
      'FREQ=WEEKLY;INTERVAL=2;COUNT=4;BYDAY=TU,SU;WKST=MO',
      '1997-08-05T09:00:00',
      ['1997-08-05', '1997-08-10', '1997-08-19', '1997-08-24'],
    ],
    [
      'FREQ=WEEKLY;INTERVAL=2;COUNT=4;BYDAY=TU,SU;WKST=SU',
      '1997-08-05T09:00:00',
      ['1997-08-05', '1997-08-17', '1997-08-19', '1997-08-31'],
    ],
    [
      'FREQ=MONTHLY;BYMONTHDAY=15,30;COUNT=5',
      '2007-01-15T09:00:00',
      ['2007-01-15', '2007-01-30', '2007-02-15', '2007-03-15', '2007-03-30'],
    ],
  ])('%s', (rule, start, expected) => {
    expect(days(rule, start)).toEqual(expected)
  })
  it('hours and minutes', () => {
    expect(
      expand('FREQ=HOURLY;INTERVAL=3;UNTIL=19970902T170000', '1997-09-02T09:00:00').map(moment =>
        moment.slice(11, 16),
      ),
    ).toEqual(['09:00', '12:00', '15:00'])
    expect(
      expand('FREQ=MINUTELY;INTERVAL=90;COUNT=4', '1997-09-02T09:00:00').map(moment => moment.slice(11, 16)),
    ).toEqual(['09:00', '10:30', '12:00', '13:30'])
    expect(
      expand('FREQ=DAILY;BYHOUR=9,10;BYMINUTE=0,40;COUNT=5', '1997-09-02T09:00:00').map(moment =>
        moment.slice(8, 16),
      ),
    ).toEqual(['02T09:00', '02T09:40', '02T10:00', '02T10:40', '03T09:00'])
  })
})

describe('occurrences', () => {
  it('agree with rrule, the general package, on rules that it can end', () => {
    const some = (values: readonly (number | string)[], most: number) =>
      fc.option(fc.uniqueArray(fc.constantFrom(...values), { minLength: 1, maxLength: most }), {
        nil: undefined,
      })
    const weekdays = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU']
    const arbitrary = fc.record({
      freq: fc.constantFrom('YEARLY', 'MONTHLY', 'WEEKLY', 'DAILY'),
      interval: fc.integer({ min: 1, max: 4 }),
      wkst: fc.constantFrom('MO', 'SU', 'WE'),
      start: fc.integer({ min: dayOf('2020-01-01'), max: dayOf('2027-12-31') }),
      months: some([1, 2, 3, 6, 9, 12], 3),
      monthDays: some([1, 5, 15, 28, 30, 31, -1, -2], 3),
      days: some(weekdays, 3),
      nth: fc.constantFrom('', '', '1', '-1', '2'),
      positions: some([1, 2, -1], 2),
      hours: some([8, 13], 2),
    })
    fc.assert(
      fc.property(arbitrary, parts => {
        const counted = parts.freq === 'MONTHLY' || parts.freq === 'YEARLY'
        const pieces = [
          `FREQ=${parts.freq}`,
          `INTERVAL=${parts.interval}`,
          `WKST=${parts.wkst}`,
          parts.months && `BYMONTH=${parts.months.join(',')}`,
          parts.monthDays && parts.freq !== 'WEEKLY' && `BYMONTHDAY=${parts.monthDays.join(',')}`,
          parts.days &&
            `BYDAY=${parts.days.map(day => `${counted && !parts.monthDays ? parts.nth : ''}${day}`).join(',')}`,
          parts.hours && `BYHOUR=${parts.hours.sort((a, b) => Number(a) - Number(b)).join(',')}`, // rrule begins the first week at the start, so that its positions there differ.
          parts.positions &&
            parts.freq !== 'WEEKLY' &&
            (parts.days || parts.monthDays) &&
            `BYSETPOS=${parts.positions.join(',')}`,
        ].filter(Boolean)
        const text = pieces.join(';')
        const start = isoOf(parts.start)
        const last = isoOf(parts.start + 800)
        // rrule looks on to the year 9999 where nothing more comes.
        fc.pre(
          expand(text, `${start}T08:00:00`, 10_000, isoOf(parts.start + 2300)).at(-1)! > `${last}T23:59:59`,
        )
        // A set holds nothing twice; rrule gives an occurrence twice where two positions name it.
        const theirs = [
          ...new Set(
            rrulestr(
              `DTSTART:${start.replaceAll('-', '')}T080000Z\nRRULE:${text};UNTIL=${last.replaceAll('-', '')}T235959Z`,
            )
              .all((_, at) => at < 120)
              .map(date => date.toISOString().slice(0, 19)),
          ),
        ].slice(0, 60)
        expect(expand(text, `${start}T08:00:00`, 60, last), text).toEqual(theirs)
      }),
    )
  })
  it('skip what comes before the first day asked for, and change nothing after it', () => {
    for (const rule of [
      'FREQ=DAILY;INTERVAL=3',
      'FREQ=WEEKLY;INTERVAL=2;BYDAY=MO,SU',
      'FREQ=MONTHLY;INTERVAL=5;BYMONTHDAY=31',
      'FREQ=YEARLY;BYDAY=-1FR',
      'FREQ=HOURLY;INTERVAL=7',
    ])
      expect(
        expand(rule, '2003-03-04T08:00:00', 5000, '2027-12-31', '2027-01-01').filter(day => day >= '2027'),
        rule,
      ).toEqual(expand(rule, '2003-03-04T08:00:00', 100_000, '2027-12-31').filter(day => day >= '2027'))
  })
  it('end, whatever a rule says: what never holds, what never ends', () => {
    for (const rule of [
      'FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30',
      'FREQ=DAILY;BYMONTH=2;BYMONTHDAY=31',
      'FREQ=SECONDLY;BYMONTH=2;BYMONTHDAY=30',
      'FREQ=HOURLY;INTERVAL=24;BYHOUR=3',
      'FREQ=MINUTELY;INTERVAL=1440;BYHOUR=3',
      'FREQ=YEARLY;BYWEEKNO=53;BYYEARDAY=100',
      'FREQ=MONTHLY;BYSETPOS=300;BYDAY=MO',
    ]) {
      const budget = { left: 200_000 }
      expect(
        [
          ...occurrences(
            parsed(rule),
            { day: dayOf('2027-01-01'), second: 5 * 3600 },
            dayOf('2027-01-01'),
            2_932_896,
            budget,
          ),
        ],
        rule,
      ).toEqual([])
    }
    const budget = { left: 1000 }
    expect(
      [...occurrences(parsed('FREQ=SECONDLY'), { day: 0, second: 0 }, 0, 2_932_896, budget)].length,
    ).toBe(1000)
  })
})
