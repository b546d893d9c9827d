import fc from 'fast-check'
import { Temporal } from 'temporal-polyfill'
import { describe, expect, it } from 'vitest'
import { civilOfDay, dayOf, floorDiv, isDate, isDateTime, isoOf, roundDiv, weekdayOf } from './day'

const someDay = fc.integer({ min: -200_000, max: 200_000 })

describe('civil days', () => {
  it('agree with Temporal.PlainDate on text, weekday and distance', () => {
    fc.assert(
      fc.property(someDay, day => {
        const date = Temporal.PlainDate.from('1970-01-01').add({ days: day })
        expect(isoOf(day)).toBe(date.toString())
        expect(dayOf(date.toString())).toBe(day)
        expect(weekdayOf(day)).toBe(date.dayOfWeek)
        expect(civilOfDay(day)).toEqual({ year: date.year, month: date.month, date: date.day })
      }),
    )
  })
  it('knows which texts are dates that exist', () => {
    for (const good of ['2024-02-29', '2000-02-29', '2027-12-31']) expect(isDate(good)).toBe(true)
    for (const bad of [
      '2026-02-30',
      '1900-02-29',
      '2027-13-01',
      '2027-00-10',
      '2027-1-1',
      '2027-01-01T00:00',
      'tomorrow',
      '',
    ])
      expect(isDate(bad)).toBe(false)
    expect(isDateTime('2027-01-01T24:00')).toBe(false)
    expect(isDateTime('2027-01-01T23:59')).toBe(true)
  })
  it('rounds halves up in exact integers, below nought too', () => {
    expect([roundDiv(1, 2), roundDiv(-1, 2), roundDiv(-3, 2), roundDiv(5, 3), roundDiv(-5, 3)]).toEqual([
      1, 0, -1, 2, -2,
    ])
    fc.assert(
      fc.property(fc.integer(), fc.integer({ min: 1, max: 1_000_000 }), (a, b) => {
        expect(BigInt(floorDiv(a, b)) * BigInt(b) <= BigInt(a)).toBe(true)
        expect((BigInt(floorDiv(a, b)) + 1n) * BigInt(b) > BigInt(a)).toBe(true)
      }),
    )
  })
})
