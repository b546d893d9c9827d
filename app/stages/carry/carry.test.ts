import { describe, expect, it } from 'vitest'
import { item, unit } from '~~/tests/support/outline'
import { countsBelow, countsByKind, isPartly, nodesWithWords, shouldCarry } from './carry'

const nodes = [
  unit('u', { title: 'Getting your bearings' }),
  item('a', { parent: 'u', unit: 'u', depth: 1, title: 'Reading a tide table' }),
  item('b', { parent: 'u', unit: 'u', depth: 1, title: 'First soundings', kind: 'quiz' }),
  item('c', { title: 'Tide log', kind: 'assignment' }),
]
const lineages = (text: string): string[] => nodesWithWords(nodes, text).map(node => node.lineage)

describe('Carry', () => {
  it('finds items by all their words, in any case and order, with the unit they stand in', () => {
    expect(lineages('TABLE  tide')).toEqual(['u', 'a'])
    expect(lineages('tide')).toEqual(['u', 'a', 'c'])
    expect(lineages('quiz')).toEqual(['u', 'b'])
    expect(lineages('nothing like this')).toEqual([])
    expect(lineages('  ')).toEqual(['u', 'a', 'b', 'c'])
  })
  it('counts what comes by unit and by kind, and only kinds that are there', () => {
    const carried = new Set(['u', 'a'])
    expect(countsBelow(nodes, carried).get('u')).toEqual({ items: 2, carried: 1 })
    expect(countsByKind(nodes, carried)).toEqual([
      { kind: 'assignment', items: 1, carried: 0 },
      { kind: 'quiz', items: 1, carried: 0 },
      { kind: 'page', items: 1, carried: 1 },
    ])
  })
  it('a box of which only a part comes takes all of it', () => {
    const part = { items: 2, carried: 1 }
    expect(isPartly(part)).toBe(true)
    expect(shouldCarry(part, false)).toBe(true)
    expect(isPartly({ items: 2, carried: 2 })).toBe(false)
    expect(shouldCarry({ items: 2, carried: 2 }, false)).toBe(false)
  })
})
