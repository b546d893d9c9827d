import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { wall } from '../../../tests/support/wall'
import { dayOf } from '../../calendar/day'
import { termCalendar } from '../../calendar/schema'
import { compileTerm, meetingDays, weekFirst } from '../../calendar/term'
import { dateFields, datesOf } from '../../course/dates'
import {
  filledDown,
  movedBy,
  openFrom,
  spreadOver,
  withDatesOf,
  withFollowers,
  withWindow,
  type HandItem,
} from './moves'

const term = compileTerm(
  termCalendar.parse({
    timeZone: 'America/Halifax',
    classes: { from: '2027-01-06', to: '2027-04-13' },
    closures: [{ from: '2027-02-15', to: '2027-02-19', name: 'Study week' }],
  }),
)
const item = (id: string, due: string | null, more: Partial<HandItem> = {}): HandItem => ({
  id,
  kind: 'assignment',
  unit: 'u1',
  opens: null,
  due: due === null ? null : wall(`${due}T23:59`),
  closes: null,
  ...more,
})
const due = (made: ReadonlyMap<string, { due: string | null }>): Record<string, string | null> =>
  Object.fromEntries([...made].map(([id, dates]) => [id, dates.due?.slice(0, 10) ?? null]))
const weekFive = [item('a', '2027-02-01'), item('b', '2027-02-03', { kind: 'quiz' }), item('c', '2027-02-05')]
const others = [
  item('before', '2027-01-29'),
  item('after', '2027-02-08', { unit: 'u2' }),
  item('never', null),
]

describe('moving by hand', () => {
  it('keeps the time of day, moves all dates of an item or the one that is meant, and leaves what has none', () => {
    const whole = item('w', '2027-02-05', {
      opens: wall('2027-02-01T08:00'),
      closes: wall('2027-02-07T12:30'),
    })
    expect(movedBy([whole, item('never', null)], 7)).toEqual(
      new Map([['w', { opens: '2027-02-08T08:00', due: '2027-02-12T23:59', closes: '2027-02-14T12:30' }]]),
    )
    expect(movedBy([whole], -1, ['due']).get('w')).toMatchObject({
      opens: '2027-02-01T08:00',
      due: '2027-02-04T23:59',
    })
  })
  it('a day on and a day back is where one was', () => {
    const anyDue = fc.integer({ min: dayOf('2026-12-01'), max: dayOf('2027-06-01') })
    fc.assert(
      fc.property(fc.array(anyDue, { maxLength: 9 }), fc.integer({ min: -60, max: 60 }), (days, by) => {
        const items = days.map((day, at) => ({ ...item(String(at), '2027-01-01'), due: movedDue(day) }))
        const there = movedBy(items, by)
        const back = movedBy(
          items.map(each => ({ ...each, ...there.get(each.id) })),
          -by,
        )
        for (const each of items) expect(back.get(each.id)?.due).toBe(each.due)
      }),
    )
  })
  const movedDue = (day: number) => movedBy([item('x', '1970-01-01')], day).get('x')!.due!
  it.each([
    ['nobody', ['a']],
    ['later', ['a', 'b', 'c', 'after']],
    ['unit', ['a', 'b', 'c', 'before', 'never']],
    ['kind', ['a', 'c', 'before', 'after', 'never']],
    ['all', ['a', 'b', 'c', 'before', 'after', 'never']],
  ] as const)('who follows one that is moved: %s', (following, expected) => {
    const all = [...weekFive, ...others]
    expect(withFollowers(all, new Set(['a']), following).map(each => each.id)).toEqual(expected)
  })
  it('the later ones of many are those after the earliest of them', () => {
    const all = [...others, ...weekFive]
    expect(withFollowers(all, new Set(['b', 'c']), 'later').map(each => each.id)).toEqual(['after', 'b', 'c'])
  })
  it('gives many the dates of one, or opens them throughout', () => {
    const one = { opens: wall('2027-03-01T08:00'), due: wall('2027-03-05T17:00'), closes: null }
    expect(withDatesOf(weekFive, one).get('c')).toEqual(one)
    expect(openFrom(weekFive, dayOf('2027-01-06')).get('b')).toEqual({
      opens: '2027-01-06T00:00',
      due: '2027-02-03T23:59',
      closes: null,
    })
  })
  it('fills down the same day, a day, a week or a meeting on; what finds no meeting stays', () => {
    const days = meetingDays(term, [
      { weekday: 2, start: '13:00', end: '14:15' },
      { weekday: 4, start: '13:00', end: '14:15' },
    ])
    const fill = (step: 'same' | 'day' | 'week' | 'meeting', meetings = days) =>
      due(filledDown(weekFive, 'due', step, meetings))
    expect(fill('same')).toEqual({ b: '2027-02-01', c: '2027-02-01' })
    expect(fill('day')).toEqual({ b: '2027-02-02', c: '2027-02-03' })
    expect(fill('week')).toEqual({ b: '2027-02-08', c: '2027-02-15' })
    expect(fill('meeting')).toEqual({ b: '2027-02-02', c: '2027-02-04' })
    expect(fill('meeting', [dayOf('2027-02-02')])).toEqual({ b: '2027-02-02' })
    expect(filledDown([item('none', null), ...weekFive], 'due', 'same', days).size).toBe(0)
  })
  it('spreads a week over its days, in order, with the windows; a week without such a day stays', () => {
    const six = [1, 2, 3, 4, 5, 6].map(n => item(`i${n}`, '2027-02-05', { opens: wall('2027-02-01T08:00') }))
    const spread = spreadOver([...six, item('closed', '2027-02-17')], term.classDays, term)
    expect(due(spread)).toEqual({
      i1: '2027-02-01',
      i2: '2027-02-01',
      i3: '2027-02-02',
      i4: '2027-02-03',
      i5: '2027-02-04',
      i6: '2027-02-05',
    })
    expect(spread.get('i4')?.opens).toBe('2027-01-30T08:00')
  })
  it('what is spread stays in its week, on the days given, in the order given', () => {
    const dueInTerm = fc.constantFrom(...term.classDays)
    fc.assert(
      fc.property(fc.array(dueInTerm, { minLength: 1, maxLength: 30 }), days => {
        const items = days.map((day, at) => ({ ...item(String(at), '2027-01-01'), due: movedDue(day) }))
        const made = spreadOver(items, term.classDays, term)
        const byWeek = new Map<number, number>()
        for (const [at, day] of days.entries()) {
          const is = dayOf(made.get(String(at))!.due!)
          const week = weekFirst(term.weekStart, day)
          expect(weekFirst(term.weekStart, is)).toBe(week)
          expect(term.classDays).toContain(is)
          expect(is).toBeGreaterThanOrEqual(byWeek.get(week) ?? is)
          byWeek.set(week, is)
        }
      }),
    )
  })
})

describe('a date with its window', () => {
  const whole = item('w', '2027-02-05', { opens: wall('2027-02-01T08:00'), closes: wall('2027-02-07T12:30') })
  it('closing moves along where the due date would pass it, opening stays where it is still before', () => {
    expect(withWindow(whole, 'due', wall('2027-02-09T23:59'))).toEqual({
      opens: '2027-02-01T08:00',
      due: '2027-02-09T23:59',
      closes: '2027-02-11T12:30',
    })
  })
  it('never puts what was in order out of it', () => {
    const anyDay = fc.integer({ min: dayOf('2027-01-01'), max: dayOf('2027-04-30') })
    fc.assert(
      fc.property(fc.constantFrom(...dateFields), anyDay, (field, day) => {
        const at = movedBy([item('x', '1970-01-01')], day).get('x')!.due!
        const { opens, due: isDue, closes } = withWindow(whole, field, at)
        expect(opens! <= isDue! && isDue! <= closes!).toBe(true)
      }),
    )
  })
})

describe('a date with the window that belongs to it', () => {
  const whole = item('w', '2027-02-05', {
    opens: wall('2027-02-01T08:00'),
    closes: wall('2027-02-07T12:30'),
  })
  it('takes along only what would be out of order', () => {
    expect(withWindow(whole, 'due', wall('2027-02-06T23:59'))).toEqual({
      opens: '2027-02-01T08:00',
      due: '2027-02-06T23:59',
      closes: '2027-02-07T12:30',
    })
    expect(withWindow(whole, 'due', wall('2027-02-08T23:59'))).toEqual({
      opens: '2027-02-01T08:00',
      due: '2027-02-08T23:59',
      closes: '2027-02-10T12:30',
    })
    expect(withWindow(whole, 'due', wall('2027-01-29T23:59'))).toMatchObject({ opens: '2027-01-25T08:00' })
  })
  it('reaches over a date that is not there, and leaves what was out of order before', () => {
    const open = { ...whole, due: null }
    expect(withWindow(open, 'opens', wall('2027-02-09T08:00'))).toMatchObject({
      due: null,
      closes: '2027-02-15T12:30',
    })
    const backward = { ...whole, closes: wall('2027-02-03T12:30') }
    expect(withWindow(backward, 'due', wall('2027-02-08T23:59')).closes).toBe('2027-02-03T12:30')
  })
  it('lets what stood at the same minute stand there together', () => {
    const together = { ...whole, closes: whole.due }
    expect(withWindow(together, 'due', wall('2027-02-08T23:59')).closes).toBe('2027-02-08T23:59')
    expect(withWindow(together, 'closes', wall('2027-02-03T23:59')).due).toBe('2027-02-03T23:59')
  })
  it('moves nothing along where a date is taken away or first given', () => {
    expect(withWindow(whole, 'due', null)).toEqual({ ...datesOf(whole), due: null })
    const undated = { ...whole, due: null }
    expect(withWindow(undated, 'due', wall('2027-03-01T23:59'))).toEqual({
      ...datesOf(whole),
      due: '2027-03-01T23:59',
    })
  })
})
