import { describe, expect, it } from 'vitest'
import { springTerm } from '../../tests/support/worked-case'
import { dayText, momentText, rangeText, yearsOf, yearsOfClasses } from './words'

describe('a date in words', () => {
  it('names its year where that is none of its term’s', () => {
    const years = yearsOf(springTerm())
    expect(years).toEqual({ from: 2027, to: 2027 })
    expect(dayText('2027-02-05', years)).toBe('Fri 5 Feb')
    expect(momentText('2027-02-05T23:59', years)).toBe('Fri 5 Feb 23:59')
    expect(momentText('2026-12-31T08:00', years)).toBe('Thu 31 Dec 2026 08:00')
    expect(momentText('2028-01-03T08:00', years)).toBe('Mon 3 Jan 2028 08:00')
    expect(dayText('2028-01-03')).toBe('Mon 3 Jan')
  })
  it('needs no year in a term that lies in two', () => {
    const years = yearsOfClasses({ classesFrom: '2026-11-02', classesTo: '2027-02-26' })
    expect([dayText('2026-12-01', years), dayText('2027-01-04', years)]).toEqual(['Tue 1 Dec', 'Mon 4 Jan'])
  })
  it('is a range with both years where it crosses one, open at either end', () => {
    expect(rangeText('2027-01-04', '2027-04-16')).toBe('Mon 4 Jan to Fri 16 Apr 2027')
    expect(rangeText('2026-12-28', '2027-04-16')).toBe('Mon 28 Dec 2026 to Fri 16 Apr 2027')
    expect(rangeText(null, '2027-04-16')).toBe('any day to Fri 16 Apr 2027')
    expect(rangeText('2027-01-04', null)).toBe('Mon 4 Jan 2027 to no end')
  })
})
