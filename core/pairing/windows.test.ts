import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { termCalendar } from '../calendar/schema'
import { anyCalendar } from '../../tests/support/arbitraries'
import { checkWindows, defaultWindows } from './windows'

const term = termCalendar.parse({
  timeZone: 'UTC',
  classes: { from: '2027-01-06', to: '2027-04-09' },
  exams: { from: '2027-04-12', to: '2027-04-21' },
})
describe('windows of a course', () => {
  it('begin a week before classes and leave enrolment open past the first weeks', () => {
    expect(defaultWindows(term)).toEqual({
      enrolFrom: '2026-12-07',
      // Classes begin on a Wednesday: teaching week 4 ends on Sunday 31 January.
      enrolTo: '2027-01-31',
      openFrom: '2026-12-30',
      openTo: '2027-05-05',
    })
  })
  it('keep enrolment open through teaching week 4, however many weeks without classes lie before it', () => {
    const withBreak = termCalendar.parse({
      ...term,
      closures: [{ from: '2027-01-18', to: '2027-01-22', name: 'Reading week' }],
    })
    expect(defaultWindows(withBreak).enrolTo).toBe('2027-02-07')
    const short = termCalendar.parse({ timeZone: 'UTC', classes: { from: '2027-01-06', to: '2027-01-20' } })
    expect(defaultWindows(short).enrolTo).toBe('2027-01-20')
  })
  it('that are proposed have nothing wrong with them, in any term', () => {
    fc.assert(
      fc.property(anyCalendar, calendar => {
        expect(checkWindows(defaultWindows(calendar), calendar)).toEqual([])
      }),
    )
  })
  it.each<[Partial<ReturnType<typeof defaultWindows>>, string, string]>([
    [{ enrolTo: '2026-12-01' }, 'enrolTo', 'must'],
    [{ openTo: '2026-12-29' }, 'openTo', 'must'],
    [{ openFrom: '2027-01-11' }, 'openFrom', 'look'],
    [{ openFrom: '2027-04-10' }, 'openFrom', 'must'],
    [{ openTo: '2027-04-15' }, 'openTo', 'look'],
    [{ enrolTo: '2027-01-04' }, 'enrolTo', 'look'],
    [{ enrolFrom: '2027-01-08' }, 'enrolFrom', 'look'],
  ])('%o is told at %s', (change, field, grave) =>
    expect(checkWindows({ ...defaultWindows(term), ...change }, term)).toContainEqual(
      expect.objectContaining({ where: { lineage: null, field }, grave }),
    ),
  )
})
