import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { inCourseOrder, type OutlineNode } from '../course/outline'
import { category, item, unit } from '../../tests/support/outline'
import { mergeSources, sameContent } from './sources'

const row = (lineage: string, type: 'unit' | 'item', parent: string | null, position: number) =>
  (type === 'unit' ? unit : item)(lineage, { parent, position })
const source = (nodes: OutlineNode[], categories: string[] = []) => ({
  nodes: inCourseOrder(nodes),
  categories: categories.map(lineage => category(lineage)),
})

describe('two sources that hold the same content', () => {
  const titled = (prefix: string, titles: string[]) =>
    source(titles.map((title, at) => ({ ...row(`${prefix}${at}`, 'item', null, at), title })))
  const titles = ['Syllabus', 'Lab 1', 'Lab 2', 'Lab 3', 'Lab 4', 'Lab 5']
  it('are seen: a course and its own package, whose items have other keys', () => {
    const course = titled('a', titles)
    const itsPackage = titled('b', [...titles.slice(0, 5), 'LAB  5', 'Cover letter'])
    expect(sameContent([course, itsPackage])).toEqual([{ at: 1, as: 0, items: 6, of: 7 }])
    expect(sameContent([titled('c', ['Other']), course, itsPackage])).toEqual([
      { at: 2, as: 1, items: 6, of: 7 },
    ])
  })
  it('are not made of what comes once anyhow, nor of a few titles that many courses have', () => {
    expect(sameContent([titled('a', titles), titled('a', titles)])).toEqual([])
    expect(
      sameContent([titled('a', titles), titled('b', ['Syllabus', 'Lab 1', 'X', 'Y', 'Z', 'Q'])]),
    ).toEqual([])
  })
})

describe('several sources in one plan', () => {
  it('come in their order; what both hold comes once, from the first; extras go below what a unit holds', () => {
    const master = source(
      [row('u1', 'unit', null, 0), row('a', 'item', 'u1', 0), row('u2', 'unit', null, 1)],
      ['c1'],
    )
    const extras = source(
      [
        row('u1', 'unit', null, 0),
        row('a', 'item', 'u1', 0),
        row('b', 'item', 'u1', 1),
        row('u3', 'unit', null, 1),
      ],
      ['c1', 'c2'],
    )
    const merged = mergeSources([master, extras])
    expect(
      merged.nodes.map(node => [node.lineage, node.parent, node.position, merged.from.get(node.lineage)]),
    ).toEqual([
      ['u1', null, 0, 0],
      ['a', 'u1', 0, 0],
      ['b', 'u1', 1, 1],
      ['u2', null, 1, 0],
      ['u3', null, 2, 1],
    ])
    expect(merged.categories.map(entry => [entry.lineage, merged.from.get(entry.lineage)])).toEqual([
      ['c1', 0],
      ['c2', 1],
    ])
  })
  it('lose nothing and double nothing, whatever they share', () => {
    const keys = fc.uniqueArray(fc.integer({ min: 0, max: 20 }), { maxLength: 12 })
    fc.assert(
      fc.property(fc.array(keys, { minLength: 1, maxLength: 4 }), lists => {
        const merged = mergeSources(
          lists.map(list => source(list.map((key, at) => row(`i${key}`, 'item', null, at)))),
        )
        expect(merged.nodes.map(node => node.lineage).sort()).toEqual(
          [...new Set(lists.flat().map(key => `i${key}`))].sort(),
        )
        for (const node of merged.nodes)
          expect(lists.findIndex(list => list.includes(Number(node.lineage.slice(1))))).toBe(
            merged.from.get(node.lineage),
          )
      }),
    )
  })
})
