import { describe, expect, it } from 'vitest'
import { makeCatalogue } from '../../tests/support/catalogue'
import { codePattern, type CodePattern } from './codes'
import { indexSources, suggestSource, suggestSources, type Candidate, type CodeKnowledge } from './suggest'

const course = (id: string, more: Partial<Candidate>): Candidate => ({
  id,
  code: 'HYD 240',
  section: '01',
  title: 'Tidal Hydrography',
  termStarts: '2026-09-02',
  instructors: ['m'],
  items: 90,
  ...more,
})
const shell = course('shell', { termStarts: '2027-01-06', items: 0 })
const suggest = (courses: Candidate[], knowledge?: CodeKnowledge) =>
  suggestSource(shell, indexSources([shell, ...courses], knowledge))

describe('a suggested source', () => {
  it('is the latest course of the same code and instructor, never an empty or a later one', () => {
    const found = suggest([
      course('old', { termStarts: '2025-09-02' }),
      course('last', {}),
      course('empty', { items: 0, termStarts: '2026-12-01' }),
      course('later', { termStarts: '2027-05-10' }),
    ])
    expect(found).toMatchObject({
      source: 'last',
      sureness: 'sure',
      reasons: ['same code, HYD 240', 'same title', 'same instructor', 'same section, 01'],
    })
  })
  it('goes as far back as it did last time: a line that passes over the term before is rolled from the same season a year ago', () => {
    const line = [
      course('a', { termStarts: '2025-01-07' }),
      course('b', { termStarts: '2025-09-02' }),
      course('c', { termStarts: '2026-01-07', filledFrom: 'a' }),
      course('d', { termStarts: '2026-09-02', filledFrom: 'b' }),
    ]
    expect(suggest(line)).toMatchObject({
      source: 'c',
      reasons: expect.arrayContaining(['as old as the source last time']) as string[],
    })
    expect(suggest(line.map(each => (each.id === 'd' ? { ...each, filledFrom: 'c' } : each)))).toMatchObject({
      source: 'd',
    })
  })
  it('is less sure the fewer signs there are; without any there is none', () => {
    const chance = (more: Partial<Candidate>): number => suggest([course('a', more)])?.chance ?? 0
    const chances = [
      chance({}),
      chance({ title: 'Tides and Hydrography', code: 'HYD-240', instructors: ['x'] }),
      chance({ title: 'Tides and Hydrography', code: 'HYD 140' }),
      chance({ title: 'Else', code: 'HYD 140', instructors: ['x'] }),
    ]
    expect(chances[0]).toBeGreaterThan(0.97)
    expect(chances).toEqual([...chances].sort((a, b) => b - a))
    expect(chances.at(-1)).toBe(0)
  })
  it('knows a course by its old number where the office has mapped it, and says so', () => {
    const knowledge = {
      patterns: [codePattern('{subject} {number}', {}) as CodePattern],
      mapped: [{ from: 'HYD 140', to: 'HYD-240' }],
    }
    const old = course('old', { code: 'HYD140', title: 'Water Levels' })
    const without = suggest([old])?.chance ?? 0
    expect(suggest([old], knowledge)).toMatchObject({
      source: 'old',
      reasons: expect.arrayContaining(['HYD140 is its old code']) as string[],
    })
    expect(suggest([old], knowledge)!.chance).toBeGreaterThan(without + 0.3)
  })
  it('of sections of one course in one term any will do; the others are named after it', () => {
    const found = suggestSources(
      shell,
      indexSources([course('two', { section: '02' }), course('one', {}), course('three', { section: '03' })]),
    )
    expect(found.map(entry => entry.source)).toEqual(['one', 'three', 'two'])
    expect(found[0]!.chance).toBeGreaterThan(0.95)
  })
  it('on a made-up catalogue is mostly right, and its chance says how often', () => {
    const { courses, shells, knowledge } = makeCatalogue(99, 600)
    const index = indexSources([...courses, ...shells.map(entry => entry.shell)], knowledge)
    const suggested = shells.flatMap(({ shell: each, right }) => {
      const found = suggestSource(each, index)
      return found ? [{ ...found, right: right.has(found.source) }] : []
    })
    const share = (list: typeof suggested): number => list.filter(entry => entry.right).length / list.length
    expect(share(suggested)).toBeGreaterThan(0.9)
    expect(share(suggested.filter(entry => entry.sureness === 'sure'))).toBeGreaterThan(0.97)
    const mean = suggested.reduce((sum, entry) => sum + entry.chance, 0) / suggested.length
    expect(Math.abs(mean - share(suggested))).toBeLessThan(0.04)
  })
})
