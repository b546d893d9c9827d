import { computed, ref } from 'vue'
import { describe, expect, it } from 'vitest'
import type { OutlineNode } from '~~/core/course/outline'
import { inCourseOrder } from '~~/core/course/outline'
import { ledgerOf } from '~~/tests/support/carry-world'
import { item, unit } from '~~/tests/support/outline'
import { alike, countsBelow, countsByKind, isPartly, lossesIn, shouldCarry, useShownRows } from './carry'

const nodes = inCourseOrder([
  unit('u', { title: 'Getting your bearings' }),
  item('a', { parent: 'u', title: 'Reading a tide table' }),
  item('b', { parent: 'u', position: 1, title: 'First soundings', kind: 'quiz' }),
  item('c', { position: 1, title: 'Tide log', kind: 'assignment' }),
])
const rowsWith = (shell: OutlineNode[] = []) => ledgerOf({ shell: inCourseOrder(shell), bases: [] }, nodes)
function shownBy(given: {
  text?: string
  settleOnly?: boolean
  collapsed?: string[]
  shell?: OutlineNode[]
}): string[] {
  const rows = useShownRows({
    rows: computed(() => rowsWith(given.shell)),
    carried: ref(new Set(nodes.map(node => node.lineage))),
    text: ref(given.text ?? ''),
    settleOnly: ref(given.settleOnly ?? false),
    isOpen: row => row.settle,
    collapsed: ref(new Set(given.collapsed)),
    from: () => null,
  })
  return rows.value.map(row => row.lineage)
}

describe('Carry', () => {
  it('finds items by all their words, in any case and order, with the unit they stand in', () => {
    expect(shownBy({ text: 'TABLE  tide' })).toEqual(['u', 'a'])
    expect(shownBy({ text: 'tide' })).toEqual(['u', 'a', 'c'])
    expect(shownBy({ text: 'quiz' })).toEqual(['u', 'b'])
    expect(shownBy({ text: 'nothing like this' })).toEqual([])
    expect(shownBy({ text: '  ' })).toEqual(['u', 'a', 'b', 'c'])
  })
  it('folds units, and shows only what is to settle', () => {
    expect(shownBy({ collapsed: ['u'] })).toEqual(['u', 'c'])
    // A search looks into folded units too.
    expect(shownBy({ collapsed: ['u'], text: 'table' })).toEqual(['u', 'a'])
    const mine = item('mine', { title: 'Tide log', kind: 'assignment' })
    expect(shownBy({ settleOnly: true, shell: [mine] })).toEqual(['c'])
  })
  it('counts what comes by unit and by kind, and only kinds that are there', () => {
    const carried = new Set(['u', 'a'])
    expect(countsBelow(rowsWith(), carried).get('u')).toEqual({ items: 2, carried: 1 })
    expect(countsByKind(rowsWith(), carried)).toEqual([
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
  it('names rows that one choice can be made for, and everything that would be lost', () => {
    const shell = [
      item('m1', { title: 'Tide log', kind: 'assignment' }),
      item('m2', { position: 1, title: 'First soundings', kind: 'quiz' }),
      item('p', { position: 2, title: 'Place', holds: ['recording'], madeBy: 'template' }),
    ]
    const rows = rowsWith(shell)
    const log = rows.find(row => row.source?.lineage === 'c')!
    expect(alike(rows, log).map(row => row.source?.lineage)).toEqual(['b'])
    expect(lossesIn(rows).map(row => row.key)).toEqual(['p'])
  })
})
