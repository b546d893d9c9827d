import { describe, expect, it } from 'vitest'
import { ruleBy, type Rule } from './rule'
import { ruleDifferenceText } from './rule-text'

const keepWeek = ruleBy('keep-week')
const set = (due: string | null, more: Record<string, string> = {}): Rule =>
  ruleBy('set', { opens: null, due, closes: null, ...more })

describe('what one rule says that another does not', () => {
  it('is its method, where that is another', () => {
    expect(ruleDifferenceText(ruleBy('offset', { days: 3, wholeWeeks: false }), keepWeek)).toBe(
      'Same distance from the first day',
    )
    expect(ruleDifferenceText(undefined, keepWeek)).toBe('no rule of its own')
  })
  it('is nothing where both say the same', () => {
    expect(ruleDifferenceText(keepWeek, ruleBy('keep-week'))).toBe('')
  })
  it('is told thing by thing where the method is the same', () => {
    const wednesdays = ruleBy('keep-week', {
      weekdays: { 3: 4 },
      times: { due: 'class-start', opens: '08:00' },
      closures: { due: 'previous', closes: 'keep' },
    })
    expect(ruleDifferenceText(wednesdays, keepWeek)).toBe(
      'opens at 08:00, due at the start of class, due on a closure: the usable day before, closes on a closure: stays, Wednesday becomes Thursday',
    )
    expect(ruleDifferenceText(keepWeek, wednesdays)).toContain('Wednesday stays Wednesday')
  })
  it('tells a move in words', () => {
    const [weeks, days] = [
      ruleBy('offset', { days: 7, wholeWeeks: true }),
      ruleBy('offset', { days: null, wholeWeeks: false }),
    ]
    // Whole weeks say nothing beside a number of days.
    expect(ruleDifferenceText(weeks, days)).toBe('by 7 days')
    expect(ruleDifferenceText(days, weeks)).toBe('by the first days of classes, to the day')
    const whole = ruleBy('offset', { days: null, wholeWeeks: true })
    expect(ruleDifferenceText(whole, days)).toBe('in whole weeks')
  })
  it('is the dates that were set, with their year where two years are named', () => {
    expect(ruleDifferenceText(set('2027-02-05T23:59'), set('2027-02-08T23:59'))).toBe('due Fri 5 Feb 23:59')
    expect(ruleDifferenceText(set('2027-02-05T23:59'), set('2026-02-05T23:59'))).toBe(
      'due Fri 5 Feb 2027 23:59',
    )
    expect(ruleDifferenceText(set(null), set('2027-02-05T23:59'))).toBe('no due date')
    expect(ruleDifferenceText(set('2027-02-05T23:59', { opens: '2027-02-01T08:00' }), keepWeek)).toBe(
      'opens Mon 1 Feb 08:00, due Fri 5 Feb 23:59, no closing',
    )
  })
})
