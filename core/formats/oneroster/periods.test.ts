import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { meetingsOfPeriods, periodsOf } from './periods'

describe('periods of a class', () => {
  it('are weekly meetings in the order of the week', () => {
    expect(meetingsOfPeriods('WE 09:30-10:20, mo 09:30-10:20')).toEqual([
      { weekday: 1, start: '09:30', end: '10:20' },
      { weekday: 3, start: '09:30', end: '10:20' },
    ])
  })
  it('say nothing where the column is empty', () => expect(meetingsOfPeriods(' ')).toBeNull())
  it.each(['Monday 3rd period', 'MO 9:30-10:20', 'MO 10:20-09:30', 'XX 09:30-10:20', 'MO 09:30-25:00'])(
    'tell what is wrong: %s',
    text => expect(meetingsOfPeriods(text)).toHaveProperty('problem'),
  )
  it('come back as they went out', () => {
    const time = fc
      .integer({ min: 0, max: 1438 })
      .map(
        minute =>
          `${String(Math.floor(minute / 60)).padStart(2, '0')}:${String(minute % 60).padStart(2, '0')}`,
      )
    const meeting = fc
      .tuple(fc.integer({ min: 1, max: 7 }), time, time)
      .filter(([, a, b]) => a !== b)
      .map(([weekday, a, b]) => ({ weekday: weekday as 1, start: a < b ? a : b, end: a < b ? b : a }))
    fc.assert(
      fc.property(fc.array(meeting, { minLength: 1, maxLength: 6 }), meetings => {
        expect(meetingsOfPeriods(periodsOf(meetings))).toEqual(
          [...meetings].sort((a, b) => a.weekday - b.weekday || a.start.localeCompare(b.start)),
        )
      }),
    )
  })
})
