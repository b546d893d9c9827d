import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { item, unit } from '../../tests/support/outline'
import { wall } from '../../tests/support/wall'
import { dayOf, wallOf } from '../calendar/day'
import { noDates, type ItemDates } from '../course/dates'
import { fileItems } from './periods'

// Two periods of nine weeks with a day between them (nine weeks: common practice, no source).
const first = { name: 'First', from: dayOf('2027-01-04'), to: dayOf('2027-03-07') }
const second = { name: 'Second', from: dayOf('2027-03-09'), to: dayOf('2027-05-10') }
const periods = [first, second]
const on = (date: string, field: keyof ItemDates = 'due'): ItemDates => ({
  ...noDates,
  [field]: wall(`${date}T23:59`),
})
const points = { points: 100_000 }
/** Under what each item is filed, and by what. */
function filed(
  nodes: Parameters<typeof fileItems>[0]['nodes'],
  dates: Record<string, ItemDates>,
  chosen: Record<string, string> = {},
): Record<string, string> {
  const found = fileItems({ nodes, dates: new Map(Object.entries(dates)), periods, chosen })
  return Object.fromEntries([...found].map(([id, { period, by }]) => [id, `${period} by ${by}`]))
}

describe('the grading period of an item', () => {
  it('follows from its new due date, else from its opening, else from its unit; else it is asked', () => {
    const nodes = [
      unit('u1'),
      item('due', { ...points, unit: 'u1' }),
      item('opens', { ...points, unit: 'u1' }),
      item('by-unit', { ...points, unit: 'u1' }),
      unit('u2'),
      item('alone', { ...points, unit: 'u2' }),
      item('outside', points),
    ]
    const dates = {
      u1: on('2027-03-15', 'opens'),
      due: { ...on('2027-04-01'), opens: wall('2027-02-01T08:00') },
      opens: on('2027-02-01', 'opens'),
    }
    expect(filed(nodes, dates)).toEqual({
      due: 'Second by due',
      opens: 'First by opens',
      'by-unit': 'Second by unit',
      alone: 'null by nothing',
      outside: 'null by nothing',
    })
  })
  it('of a unit that opens on no date is the one in which all of it falls, where that is one', () => {
    const nodes = ['u1', 'u2'].flatMap(key => [
      unit(key),
      item(`${key}-a`, { ...points, unit: key }),
      item(`${key}-b`, { kind: 'page', unit: key }),
      item(`${key}-c`, { ...points, unit: key }),
    ])
    const dates = {
      'u1-a': on('2027-02-01'),
      'u1-b': on('2027-02-08', 'opens'),
      'u2-a': on('2027-02-01'),
      'u2-b': on('2027-03-15', 'opens'),
    }
    expect(filed(nodes, dates)).toMatchObject({ 'u1-c': 'First by unit', 'u2-c': 'null by nothing' })
  })
  it('is asked where the date lies in none, though it opened within one', () => {
    const dates = { a: { ...on('2027-03-08'), opens: wall('2027-03-01T08:00') } }
    expect(filed([item('a', points)], dates)).toEqual({ a: 'null by outside' })
  })
  it('is what a person chose, unless the term has no such period', () => {
    const nodes = [item('a', points), item('b', points)]
    const dates = { a: on('2027-02-01'), b: on('2027-02-01') }
    expect(filed(nodes, dates, { a: 'Second', b: 'Third' })).toEqual({
      a: 'Second by chosen',
      b: 'First by due',
    })
  })
  it('is none of what has no points, or counts in no grade', () => {
    const nodes = [item('page'), item('exempt', { ...points, exempt: true }), unit('u')]
    expect(
      filed(nodes, { page: on('2027-02-01'), exempt: on('2027-02-01'), u: on('2027-02-01', 'opens') }),
    ).toEqual({})
  })
  it('of dated items never goes back in time, and holds the date', () => {
    const day = fc.integer({ min: first.from - 20, max: second.to + 20 })
    fc.assert(
      fc.property(fc.array(day, { minLength: 1, maxLength: 30 }), days => {
        const sorted = [...days].sort((a, b) => a - b)
        const nodes = sorted.map((_, at) => item(`i${at}`, points))
        const dates = new Map(sorted.map((at, n) => [`i${n}`, { ...noDates, due: wallOf(at, 0) }]))
        const found = [...fileItems({ nodes, dates, periods, chosen: {} }).values()]
        const names = found.flatMap(({ period }) => period ?? [])
        expect(names).toEqual([...names].sort())
        found.forEach(({ period }, at) => {
          const own = periods.find(({ from, to }) => sorted[at]! >= from && sorted[at]! <= to)
          expect(period).toBe(own?.name ?? null)
        })
      }),
    )
  })
})
