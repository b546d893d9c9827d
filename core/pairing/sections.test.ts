import { describe, expect, it } from 'vitest'
import { joinFaults, type SectionToJoin } from './sections'

const section = (more: Partial<SectionToJoin> = {}): SectionToJoin => ({
  codeKey: 'HYD 240',
  term: '2027-spring',
  instructors: ['a', 'b'],
  items: 0,
  ...more,
})
describe('sections that share one content', () => {
  it('are one course in one term with the same staff, whoever is named first', () =>
    expect(
      joinFaults(section({ items: 5 }), section({ instructors: ['b', 'a'] }), 0).map(fault => fault.message),
    ).toEqual([]))
  it.each<[Partial<SectionToJoin>, number, RegExp]>([
    [{ codeKey: 'HYD 241' }, 0, /another course/],
    [{ term: '2027-summer' }, 0, /another term/],
    [{ instructors: ['a'] }, 0, /other people/],
    [{}, 1, /1 student is on both/],
    [{}, 3, /3 students are/],
    [{ items: 2 }, 0, /of its own/],
  ])('may not: %o', (more, overlap, words) => {
    expect(joinFaults(section(), section(more), overlap).map(fault => fault.message)).toEqual([
      expect.stringMatching(words),
    ])
  })
})
