import { describe, expect, it } from 'vitest'
import { dayOf } from '../calendar/day'
import { ease, type EaseLimits } from './ease'
import { sentence } from './reasons'

const items = (...due: string[]) => due.map((date, at) => ({ id: String(at), due: dayOf(date), major: true }))
const daysFrom = (first: string, count: number): number[] =>
  Array.from({ length: count }, (_, at) => dayOf(first) + at)
/** What is said of each item that easing moves. */
function said(due: readonly string[], limits: EaseLimits): Record<string, string> {
  const eased = ease(items(...due), limits)
  if (!eased.solved) throw new Error(eased.conflict.message)
  return Object.fromEntries([...eased.reasons].map(([id, reason]) => [id, sentence(reason)]))
}

describe('why easing moved a date', () => {
  it('names how many were due that day, and the limit', () => {
    const limits = { days: daysFrom('2027-02-01', 5), perDay: 2, minGap: 0 }
    expect(said(['2027-02-03', '2027-02-03', '2027-02-03'], limits)).toEqual({
      0: '3 items were due on Wed 3 Feb, and 2 a day is the limit. Moved by 1 day to Tue 2 Feb.',
    })
  })
  it('says where a day is none on which work may be due, and what made room', () => {
    const weekdays = daysFrom('2027-02-01', 5)
    expect(said(['2027-02-07'], { days: weekdays, perDay: null, minGap: 0 })).toEqual({
      0: 'Sun 7 Feb is no day that work may be due on. Moved by 2 days to Fri 5 Feb.',
    })
    expect(said(['2027-02-03', '2027-02-04'], { days: weekdays, perDay: null, minGap: 3 })).toEqual({
      0: 'It makes room for what lies around Wed 3 Feb. Moved by 2 days to Mon 1 Feb.',
    })
  })
  it('moves and says nothing where every limit holds', () => {
    expect(
      said(['2027-02-03', '2027-02-03'], { days: daysFrom('2027-02-01', 5), perDay: 2, minGap: 0 }),
    ).toEqual({})
    expect(ease([], { days: [], perDay: 1, minGap: 0 })).toMatchObject({ solved: true, due: [] })
  })
})
