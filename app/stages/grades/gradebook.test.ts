import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { plainCategory, plainRules } from '~~/core/grading/rules'
import { gradesBy, sampleStudents, weightsOfHundred, type GradebookItem } from './gradebook'

const category = (lineage: string, weight: number, more = {}) => ({
  lineage,
  title: lineage,
  weight: weight * 10_000,
  ...plainCategory,
  ...more,
})
const item = (lineage: string, of: string | null, points = 10): GradebookItem => ({
  lineage,
  title: lineage,
  points: points * 10_000,
  category: of,
  exempt: false,
  extra: false,
})

describe('weights', () => {
  it('are made 100 in proportion, those held kept: 95 of the demo', () => {
    const eight = [15, 15, 15, 10, 10, 10, 10, 10].map((weight, at) => category(`c${at}`, weight))
    const made = weightsOfHundred(eight, ['c2'], false)
    expect(made).toMatchObject({ c2: 150_000 })
    expect(Object.values(made).reduce((sum: number, weight) => sum + Number(weight), 0)).toBe(1_000_000)
  })
  it('make exactly 100.00 whatever they were, or say why they cannot', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 0, max: 60 }), { minLength: 1, maxLength: 9 }),
        fc.boolean(),
        (weights, equal) => {
          const all = weights.map((weight, at) => category(`c${at}`, weight))
          const made = weightsOfHundred(all, ['c0'], equal)
          if (typeof made === 'string')
            expect(weights[0] === 100 || weights.length > 1 ? weights[0]! > 100 : true).toBe(true)
          else expect(Object.values(made).reduce((sum, weight) => sum + weight, 0)).toBe(1_000_000)
        },
      ),
    )
  })
})
describe('the sample gradebook', () => {
  it('shows what changed rules make: a dropped score lifts who missed it', () => {
    const items = [item('a', 'logs'), item('b', 'logs'), item('c', 'logs'), item('none', null)]
    const students = [{ id: 's', name: 'S', scores: { a: '10', b: '9', c: '2', none: '1' } }]
    const result = (dropLowest: number) => {
      const told = gradesBy(plainRules, [category('logs', 100, { dropLowest })], items, students)
      return typeof told === 'string' ? told : told.students[0]?.result
    }
    expect([result(0), result(1)]).toEqual(['70.00', '95.00'])
  })
  it('has students of its own making, the same each time, with scores within the points', () => {
    const items = [item('a', 'x', 20), item('b', 'x', 5), item('c', 'x', 1)]
    expect(sampleStudents(items)).toEqual(sampleStudents(items))
    for (const { scores } of sampleStudents(items))
      for (const each of items)
        expect(Number(scores[each.lineage] ?? 0)).toBeLessThanOrEqual(each.points / 10_000)
  })
})
