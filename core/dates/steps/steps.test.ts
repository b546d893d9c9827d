import { describe, expect, it } from 'vitest'
import { zoneRules } from '../../../server/calendars/zones'
import { termCalendar, type Meeting } from '../../calendar/schema'
import type { DateField, ItemDates } from '../../course/dates'
import { compileTerm } from '../../calendar/term'
import { planDates, reasonsOf } from '../plan'
import { ruleSchema } from '../rule'
import { sentence } from '../reasons'
import { wall } from '../../../tests/support/wall'

// Worked by hand from the text of docs/dates.md; all of 2026 and 2027 in Halifax, Monday to Friday.
const source = {
  name: 'Autumn 2026',
  timeZone: 'America/Halifax',
  classes: { from: '2026-09-02', to: '2026-12-04' },
  exams: { from: '2026-12-07', to: '2026-12-16' },
}
const target = {
  name: 'Spring 2027',
  timeZone: 'America/Halifax',
  classes: { from: '2027-01-06', to: '2027-04-09' },
  exams: { from: '2027-04-12', to: '2027-04-15' },
}
interface Options {
  source?: object
  target?: object
  rule?: object
  sourceMeetings?: Meeting[]
  targetMeetings?: Meeting[]
}
const walls = (dates: Partial<Record<DateField, string | null>>): Partial<ItemDates> =>
  Object.fromEntries(Object.entries(dates).map(([field, at]) => [field, at === null ? null : wall(at)]))
const cross = (
  dates: Partial<Record<DateField, string | null>>,
  { rule = {}, sourceMeetings = [], targetMeetings = [], ...more }: Options = {},
) =>
  planDates({
    source: compileTerm(termCalendar.parse({ ...source, ...more.source })),
    target: compileTerm(termCalendar.parse({ ...target, ...more.target })),
    sourceMeetings,
    targetMeetings,
    zone: zoneRules('America/Halifax', { from: 2024, to: 2031 }),
    rules: {
      rule: ruleSchema.parse({ method: 'keep-week', ...rule }),
      kindRules: {},
      unitRules: {},
      itemRules: {},
    },
    items: [{ id: 'i', kind: '', unit: null, opens: null, due: null, closes: null, ...walls(dates) }],
  }).items[0]!
const due = (at: string, options?: Options) => {
  const { due, flags } = cross({ due: at }, options)
  return [due, ...flags]
}
const closed = (from: string, to: string) => ({ target: { closures: [{ from, to, name: 'Closed' }] } })

describe('outside classes, by counting days', () => {
  it('exam for exam, and the last exam day where it would be past it', () => {
    expect(due('2026-12-09T09:00')).toEqual(['2027-04-14T09:00'])
    expect(due('2026-12-14T09:00')).toEqual(['2027-04-15T09:00', 'past-end'])
    expect(due('2026-12-09T09:00', { target: { exams: null } })).toEqual([
      '2027-04-09T09:00',
      'no-exam-period',
    ])
  })
  it('after the last day of classes, and before the first teaching week', () => {
    expect(due('2026-12-06T09:00')).toEqual(['2027-04-11T09:00'])
    // 30 August is the Sunday before the week of 31 August; days of week 1 before classes begin count as classes.
    expect(due('2026-08-30T09:00')).toEqual(['2027-01-03T09:00'])
    expect(due('2026-08-31T09:00')).toEqual(['2027-01-04T09:00'])
  })
})

describe('bounds', () => {
  it('a due date within the old classes is never before the new ones; an opening date may be', () => {
    // 120 days on, Thu 3 Sep is New Year’s Day, before spring starts on Wed 6 Jan.
    const early = { rule: { method: 'offset', days: 120 } }
    expect(cross({ opens: '2026-09-02T08:00', due: '2026-09-03T23:59' }, early)).toMatchObject({
      opens: '2026-12-31T08:00',
      due: '2027-01-06T23:59',
      flags: ['before-start'],
    })
    // What was not within classes is left: 1 Sep.
    expect(due('2026-09-01T23:59', early)).toEqual(['2026-12-30T23:59'])
  })
  it('anything after the new classes becomes their last class day', () => {
    expect(due('2026-12-04T12:00', { rule: { method: 'offset', days: 140 } })).toEqual([
      '2027-04-09T12:00',
      'past-end',
    ])
  })
})

describe('a closure', () => {
  it('moves by the policy of the date’s field; a tie goes to the next day', () => {
    // Fri 11 Sep, week 2, lands on Fri 15 Jan; closed Thu to Sat: the day before is Wed 13, the day after Mon 18.
    const days = closed('2027-01-14', '2027-01-16')
    const by = (policy: string) => due('2026-09-11T10:00', { ...days, rule: { closures: { due: policy } } })
    expect([by('next'), by('previous'), by('nearest'), by('keep')]).toEqual([
      ['2027-01-18T10:00', 'closure-moved'],
      ['2027-01-13T10:00', 'closure-moved'],
      ['2027-01-13T10:00', 'closure-moved'],
      ['2027-01-15T10:00', 'on-closure'],
    ])
    // Only Fri 15 closed: Thu 14 is one day away, Mon 18 three; with Tue closed alone, Mon and Wed tie.
    expect(
      due('2026-09-15T10:00', {
        ...closed('2027-01-19', '2027-01-19'),
        rule: { closures: { due: 'nearest' } },
      }),
    ).toEqual(['2027-01-20T10:00', 'closure-moved'])
  })
  it('takes the other side when no usable day is left on one within 800 days', () => {
    expect(due('2026-09-11T10:00', closed('2027-01-14', '2031-01-01'))).toEqual([
      '2027-01-13T10:00',
      'closure-moved',
    ])
  })
  it('goes to a changed timetable of its weekday in that week first, under every policy', () => {
    const days = {
      closures: [{ from: '2027-01-18', to: '2027-01-18', name: 'Closed' }],
      runsAs: [{ date: '2027-01-20', weekday: 1, name: 'Wednesday on a Monday timetable' }],
    }
    for (const policy of ['next', 'previous', 'nearest', 'keep'])
      expect(due('2026-09-14T10:00', { target: days, rule: { closures: { due: policy } } })).toEqual([
        '2027-01-20T10:00',
        'swap-day',
      ])
    // A Monday timetable of next week is that week's Monday: no work of this one goes there.
    expect(
      due('2026-09-14T10:00', {
        target: { ...days, runsAs: [{ date: '2027-01-27', weekday: 1, name: 'A week later' }] },
      }),
    ).toEqual(['2027-01-19T10:00', 'closure-moved'])
    // By the rule's weekday table it is Tuesday's work by then, and Wednesday does not run as a Tuesday.
    expect(
      due('2026-09-14T10:00', {
        target: { ...days, closures: [{ from: '2027-01-18', to: '2027-01-19', name: 'Closed' }] },
        rule: { weekdays: { 1: 2 } },
      }),
    ).toEqual(['2027-01-20T10:00', 'closure-moved'])
  })
})

describe('past the end of classes', () => {
  const shorter = { target: { classes: { from: '2027-01-06', to: '2027-02-26' } } }
  it('a week that the new term does not have is its last one, to settle; the last one it has is not', () => {
    // The old term's teaching week 8 meets the last of the new one.
    expect(due('2026-10-21T10:00', shorter)).toEqual(['2027-02-24T10:00'])
    expect(due('2026-10-28T10:00', shorter)).toEqual(['2027-02-24T10:00', 'past-end'])
  })
  it('a meeting that has no counterpart is the last one, to settle; the last that has one is not', () => {
    const tuesdays: Meeting[] = [{ weekday: 2, start: '13:00', end: '14:00' }]
    const at = (day: string) =>
      due(`${day}T13:00`, {
        ...shorter,
        rule: { method: 'meetings', align: 'count' },
        sourceMeetings: tuesdays,
        targetMeetings: tuesdays,
      })
    // Tuesdays from 8 September, and from 12 January to 23 February: seven of them.
    expect(at('2026-10-20')).toEqual(['2027-02-23T13:00'])
    expect(at('2026-10-27')).toEqual(['2027-02-23T13:00', 'past-end'])
  })
})

describe('the time of day', () => {
  const targetMeetings: Meeting[] = [
    { weekday: 5, start: '13:00', end: '14:15' },
    { weekday: 5, start: '09:30', end: '10:20' },
  ]
  it('is that of the earliest meeting on a meeting day, else as it was', () => {
    expect(
      cross({ due: '2026-09-11T23:59' }, { targetMeetings, rule: { times: { due: 'class-start' } } }).due,
    ).toBe('2027-01-15T09:30')
    expect(
      cross({ due: '2026-09-11T23:59' }, { targetMeetings, rule: { times: { due: 'class-end' } } }).due,
    ).toBe('2027-01-15T10:20')
    expect(
      cross({ due: '2026-09-10T23:59' }, { targetMeetings, rule: { times: { due: 'class-end' } } }).due,
    ).toBe('2027-01-14T23:59')
    expect(cross({ due: '2026-09-10T23:59' }, { rule: { times: { due: '17:00' } } }).due).toBe(
      '2027-01-14T17:00',
    )
  })
})

describe('order', () => {
  it('opening and closing dates keep their distance in days from a due date that moved past them', () => {
    // Due Fri 15 Jan goes back to Wed 13 Jan; opens Thu 14 Jan stays on its closure and would be after it.
    const options = {
      ...closed('2027-01-14', '2027-01-16'),
      rule: { closures: { opens: 'keep', due: 'previous', closes: 'previous' } },
    }
    expect(cross({ opens: '2026-09-10T08:00', due: '2026-09-11T23:59' }, options)).toMatchObject({
      opens: '2027-01-12T08:00',
      due: '2027-01-13T23:59',
      flags: ['closure-moved', 'on-closure', 'reordered'],
    })
  })
  it('takes the other’s moment where the distance does not help', () => {
    expect(
      cross({ opens: '2026-09-11T08:00', due: '2026-09-11T09:00' }, { rule: { times: { opens: '12:00' } } }),
    ).toMatchObject({ opens: '2027-01-15T09:00', due: '2027-01-15T09:00', flags: ['reordered'] })
  })
  it('leaves a pair that was the wrong way round, and says so', () => {
    expect(cross({ due: '2026-09-11T23:59', closes: '2026-09-10T23:59' })).toMatchObject({
      due: '2027-01-15T23:59',
      closes: '2027-01-14T23:59',
      flags: ['source-inverted'],
    })
  })
})

describe('daylight saving', () => {
  it('a skipped time moves later by the gap, a doubled one is the earlier', () => {
    // Clocks in Halifax skip 02:00 to 03:00 on Sun 14 Mar 2027 and repeat 01:00 to 02:00 on Sun 7 Nov 2027.
    expect(due('2026-11-08T02:30')).toEqual(['2027-03-14T03:30', 'dst-gap'])
    expect(
      due('2026-09-06T01:30', { target: { classes: { from: '2027-11-02', to: '2028-02-01' }, exams: null } }),
    ).toEqual(['2027-11-07T01:30', 'dst-overlap'])
  })
})

describe('what a method misses', () => {
  it('is flagged, and the teaching week decides', () => {
    expect(due('2026-09-11T10:00', { rule: { method: 'meetings' } })).toEqual([
      '2027-01-15T10:00',
      'no-meetings',
    ])
    expect(due('2026-09-11T10:00', { rule: { method: 'anchor', milestone: 'x' } })).toEqual([
      '2027-01-15T10:00',
      'no-milestone',
    ])
    // Outside classes meetings are not asked for.
    expect(due('2026-12-09T10:00', { rule: { method: 'meetings' } })).toEqual(['2027-04-14T10:00'])
  })
})

describe('dates that a rule takes away', () => {
  it('are told with the time they had, each its own', () => {
    const rule = { method: 'none' }
    const told = (at: string) => reasonsOf(cross({ due: at }, { rule })).map(sentence)
    expect(told('2026-09-14T10:00')).toEqual(['Was Mon 14 Sep 10:00. The rule gives no dates.'])
    expect(told('2026-09-14T17:30')).toEqual(['Was Mon 14 Sep 17:30. The rule gives no dates.'])
    expect(cross({ due: '2026-09-14T10:00' }, { rule }).crossed.due.outcome).toBe('none')
  })
})

describe('a term whose dates stay as they were', () => {
  it('is touched by no step: neither closures nor bounds', () => {
    const rule = { method: 'unchanged' }
    expect(cross({ opens: '2027-06-01T08:00', due: '2027-05-01T23:59' }, { rule })).toMatchObject({
      opens: '2027-06-01T08:00',
      due: '2027-05-01T23:59',
      flags: [],
    })
  })
})

describe('sentences', () => {
  it('say it in plain words with absolute dates', () => {
    const item = cross(
      { due: '2026-09-14T10:00' },
      { target: { closures: [{ from: '2027-01-18', to: '2027-01-18', name: 'Founders’ Day' }] } },
    )
    expect(reasonsOf(item).map(sentence)).toEqual([
      'Was Mon 14 Sep, the Monday of teaching week 3. Teaching week 3 starts Mon 18 Jan, so it lands on Mon 18 Jan.',
      'Mon 18 Jan is Founders’ Day. The next usable day is Tue 19 Jan.',
      'The time is kept, 10:00.',
    ])
  })
})

describe('what opened in a recess and opens in one', () => {
  const recess = (from: string, to: string, more: object = {}) => ({
    closures: [{ from, to, name: 'Study week', kind: 'recess', ...more }],
  })
  // 26 October 2026 is the Monday of week 9; so is 1 March 2027 (counted from 6 January, whose week is the first).
  const at = { opens: '2026-10-26T08:00', due: '2026-10-30T23:59' }
  const outcomeWith = (more: Options) => {
    const { crossed, flags } = cross(at, more)
    return { flags, opens: crossed.opens.outcome, due: crossed.due.outcome, to: crossed.opens.at }
  }
  it('keeps its flag, and is not counted to settle, in a closure of the same name and kind', () => {
    const source = recess('2026-10-26', '2026-10-27')
    const alike = outcomeWith({ source, target: recess('2027-03-01', '2027-03-02') })
    expect(alike).toMatchObject({ to: '2027-03-01T08:00', opens: 'straight', flags: ['on-closure'] })
    for (const other of [{ name: 'Founders day' }, { kind: 'holiday' }])
      expect(outcomeWith({ source, target: recess('2027-03-01', '2027-03-02', other) }).opens).toBe('settle')
    expect(outcomeWith({ target: recess('2027-03-01', '2027-03-02') }).opens).toBe('settle')
  })
  it('is not counted either in the week without classes after the same teaching week', () => {
    const both = {
      source: recess('2026-10-26', '2026-10-30'),
      target: recess('2027-03-01', '2027-03-05', { name: 'Reading week' }),
    }
    expect(outcomeWith(both)).toMatchObject({
      flags: ['break-week', 'closure-moved', 'on-closure'],
      opens: 'straight',
    })
  })
  it('is counted where it is due there: that is no opening', () => {
    const closures = { opens: 'keep', due: 'keep', closes: 'keep' }
    const both = { source: recess('2026-10-30', '2026-10-30'), target: recess('2027-03-05', '2027-03-05') }
    expect(outcomeWith({ ...both, rule: { closures } })).toMatchObject({ due: 'settle' })
  })
})
