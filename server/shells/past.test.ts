import { describe, expect, it } from 'vitest'
import { pastRule } from '../../shared/api/shells'
import { whenOf } from './past'

const autumn = { classesFrom: '2026-09-02', classesTo: '2026-12-04' }
describe('when a course is past', () => {
  it('follows the office’s rule, in days after its classes', () => {
    const at = (today: string, pastAfter: number, archivedAfter: number) =>
      whenOf(autumn, today, { pastAfter, archivedAfter })
    expect(at('2026-09-01', 0, 730)).toBe('upcoming')
    expect(at('2026-12-04', 0, 730)).toBe('underway')
    expect(at('2026-12-05', 0, 730)).toBe('past')
    // A school that grades until January keeps it among those under way.
    expect(at('2027-01-03', 30, 730)).toBe('underway')
    expect(at('2027-01-04', 30, 730)).toBe('past')
    expect(at('2027-01-05', 0, 31)).toBe('archived')
  })
  it('says which number is wrong', () => {
    const faults = (rule: object) =>
      pastRule.safeParse(rule).error?.issues.map(issue => [issue.path[0], issue.message])
    expect(faults({ pastAfter: 40, archivedAfter: 30 })).toEqual([
      ['archivedAfter', 'A course is past before it is archived: give more days than for past.'],
    ])
    expect(faults({ pastAfter: -1, archivedAfter: 30 })).toEqual([['pastAfter', 'At least 0 days.']])
  })
})
