import { describe, expect, it } from 'vitest'
import { joinFaults, type HeldBySection, type SectionToJoin } from './sections'

const section = (more: Partial<SectionToJoin> = {}): SectionToJoin => ({
  codeKey: 'HYD 240',
  term: '2027-spring',
  instructors: ['a', 'b'],
  ...more,
})
const nothing: HeldBySection = { overlap: 0, own: [], work: 0, shown: 0 }

describe('sections that share one content', () => {
  it('are one course in one term with the same staff, whoever is named first', () =>
    expect(joinFaults(section(), section({ instructors: ['b', 'a'] }), nothing)).toEqual([]))
  it.each<[Partial<SectionToJoin>, Partial<HeldBySection>, RegExp]>([
    [{ codeKey: 'HYD 241' }, {}, /another course/],
    [{ term: '2027-summer' }, {}, /another term/],
    [{ instructors: ['a'] }, {}, /other people/],
    [{}, { overlap: 1 }, /1 student is on both/],
    [{}, { overlap: 3 }, /3 students are/],
    [{}, { own: ['Welcome'] }, /of its own \(“Welcome”\)$/],
    [{}, { own: ['A', 'B', 'C', 'D', 'E'] }, /\(“A”, “B”, “C” and 2 more\)$/],
    [{}, { shown: 2 }, /2 sections show its/],
    [{}, { work: 1 }, /worked there \(1 record\)/],
  ])('may not: %o %o', (more, held, words) => {
    expect(joinFaults(section(), section(more), { ...nothing, ...held }).map(fault => fault.message)).toEqual(
      [expect.stringMatching(words)],
    )
  })
})
