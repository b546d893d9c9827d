import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { item } from '../../tests/support/outline'
import { brokenBy, closureOf, needsIn, type Need } from './needs'

const link = (from: string, to: string): Need => ({ from, to, why: 'link' })
const keys = ['a', 'b', 'c', 'd', 'e', 'f']
const anyNeeds = fc.array(
  fc.tuple(fc.constantFrom(...keys), fc.constantFrom(...keys)).map(([from, to]) => link(from, to)),
  { maxLength: 12 },
)
const known = (lineage: string): boolean => lineage !== 'f'

describe('what needs what', () => {
  it('is read from links, conditions, categories, rubrics and groups', () => {
    const nodes = [
      item('a', { category: 'cat', rubric: 'rub', group: 'grp' }),
      item('b', { release: [{ after: 'a', needs: 'handed-in', least: null }] }),
    ]
    expect(
      needsIn(nodes, [link('b', 'c'), link('b', 'b')]).map(need => `${need.from} ${need.why} ${need.to}`),
    ).toEqual(['b link c', 'a category cat', 'a rubric rub', 'a group grp', 'b release a'])
  })
  it('brings the least closed set: all that is needed, cycles too, and nothing more', () => {
    fc.assert(
      fc.property(anyNeeds, fc.subarray(keys), (needs, chosen) => {
        const closed = closureOf(chosen, needs, known)
        for (const lineage of chosen.filter(known)) expect(closed).toContain(lineage)
        for (const { from, to } of needs) if (closed.has(from) && known(to)) expect(closed).toContain(to)
        // Least: without any one that was not chosen it is not closed any more.
        for (const lineage of closed)
          if (!chosen.includes(lineage))
            expect(needs.some(({ from, to }) => to === lineage && from !== lineage && closed.has(from))).toBe(
              true,
            )
        expect(closureOf(closed, needs, known)).toEqual(closed)
        expect(brokenBy(closed, needs, lineage => !known(lineage))).toEqual([])
      }),
    )
  })
  it('says what breaks where something is left behind, and who needs it', () => {
    const needs = [link('a', 'c'), link('b', 'c'), link('a', 'd'), link('e', 'a')]
    expect(brokenBy(new Set(['a', 'b']), needs, lineage => lineage === 'd')).toEqual([
      {
        needed: 'c',
        by: [
          { lineage: 'a', why: 'link' },
          { lineage: 'b', why: 'link' },
        ],
      },
    ])
  })
})
