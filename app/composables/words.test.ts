import { describe, expect, it } from 'vitest'
import type { CourseLine } from '~~/shared/api/courses'
import { courseFacts, instantBeside, instantInFull, instantText, instituteClock, tellTimeBy } from './words'

const courseIn = (timeZone: string, more: Partial<CourseLine['term']> = {}) =>
  ({
    term: {
      code: 't',
      name: 'Spring 2027',
      timeZone,
      classesFrom: '2027-01-07',
      classesTo: '2027-04-09',
      ...more,
    },
    meetings: [],
  }) as unknown as CourseLine
const now = '2027-01-06T00:00:00.000Z'

describe('the one clock', () => {
  it('is the institute’s, wherever the reader sits', () => {
    tellTimeBy({ timeZone: 'America/Halifax', instant: now })
    expect(instantText(now)).toBe('Tue 5 Jan 20:00')
    // In Halifax it is still the old year, which is told.
    expect(instantText('2027-01-01T02:30:00.000Z')).toBe('Thu 31 Dec 2026 22:30')
    expect(instantInFull(courseIn('America/Halifax'), now)).toBe('Tue 5 Jan 2027, 20:00')
    tellTimeBy({ timeZone: 'Asia/Tokyo', instant: now })
    expect(instituteClock(now)).toBe('2027-01-06T09:00')
  })
  it('is that of its own institution beside a course, with the zone where that is another', () => {
    tellTimeBy({ timeZone: 'America/Halifax', instant: now })
    expect(instantBeside(courseIn('America/Halifax'), now)).toBe('Tue 5 Jan 20:00')
    expect(instantBeside(courseIn('America/St_Johns'), now)).toBe('Tue 5 Jan 20:30 St Johns time')
    expect(instantInFull(courseIn('UTC'), now)).toBe('Wed 6 Jan 2027, 00:00 UTC')
  })
})
describe('the facts of a course', () => {
  it('tell the years where the name of the term does not, or they are two, and a zone that is not the page’s', () => {
    tellTimeBy({ timeZone: 'America/Halifax', instant: now })
    expect(courseFacts(courseIn('America/Halifax'))).toBe('Spring 2027 · 7 Jan – 9 Apr')
    expect(courseFacts(courseIn('America/Halifax', { name: 'Winter', classesFrom: '2026-12-01' }))).toBe(
      'Winter · 1 Dec 2026 – 9 Apr 2027',
    )
    expect(courseFacts(courseIn('Europe/Lisbon'))).toBe('Spring 2027 · 7 Jan – 9 Apr · Lisbon time')
  })
})
