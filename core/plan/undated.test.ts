import { describe, expect, it } from 'vitest'
import { unitsByWeek } from './undated'

const units = (...titles: string[]) => titles.map((title, at) => ({ lineage: `u${at}`, title }))

describe('the teaching week of a unit', () => {
  it('is the number in its title where most have one of their own', () => {
    expect(unitsByWeek(units('Start here', 'Week 1', 'Week 2: Song', 'Week 4'))).toEqual([
      'u1',
      'u2',
      '',
      'u3',
    ])
  })
  it('is its place where few have a number, or two have the same', () => {
    expect(unitsByWeek(units('Ebb', 'Flood', 'Week 3'))).toEqual(['u0', 'u1', 'u2'])
    expect(unitsByWeek(units('Week 1', 'Week 1 again'))).toEqual(['u0', 'u1'])
    expect(unitsByWeek([])).toEqual([])
  })
})
