import { describe, expect, it } from 'vitest'
import { dayOf } from '../calendar/day'
import { ruleBy } from '../dates/rule'
import { asHabit, planFaults, recommendedPlan } from './document'

const term = { classes: { from: dayOf('2027-01-08'), to: dayOf('2027-04-09') }, exams: null }
const held = (due: string) => ({ ...recommendedPlan().dates, itemRules: { i7: ruleBy('set', { due }) } })

describe('what no plan may hold', () => {
  it('is a date set by hand more than two years from the term', () => {
    const faultsOf = (due: string) => planFaults({ ...recommendedPlan(), dates: held(due) }, term)
    expect(faultsOf('2029-04-09T23:59')).toEqual([])
    expect(faultsOf('2025-01-08T23:59')).toEqual([])
    expect(faultsOf('2029-04-10T00:00')).toHaveLength(1)
    expect(faultsOf('2072-03-05T23:59')).toEqual([
      {
        path: ['dates', 'itemRules', 'i7', 'due'],
        message: 'Sat 5 Mar 2072 cannot be meant: 2072 is 45 years after this term.',
      },
    ])
  })
  it('is a window as far away', () => {
    const windows = { enrolFrom: null, enrolTo: '2032-02-01', openFrom: '2027-01-01', openTo: null }
    const faults = planFaults({ ...recommendedPlan(), windows }, term)
    expect(faults.map(fault => fault.path)).toEqual([['windows', 'enrolTo']])
  })
  it('leaves dates set by hand out of a habit, at whatever level they stand', () => {
    const rule = ruleBy('set', { due: '2027-03-05T23:59' })
    const { dates } = asHabit({
      ...recommendedPlan(),
      dates: {
        rule,
        kindRules: { quiz: rule },
        unitRules: { u1: rule },
        itemRules: { i7: rule },
        pattern: null,
        crowding: null,
        sourceSpan: null,
        periods: {},
      },
    })
    expect(dates).toEqual({ ...recommendedPlan().dates, rule: ruleBy('keep-week') })
  })
})
