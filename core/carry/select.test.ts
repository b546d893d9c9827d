import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { inCourseOrder, subtree, type PlacedRow } from '../course/outline'
import * as outline from '../../tests/support/outline'
import type { CarriedBase } from './base'
import { carriedOf, setCarried, staysUnasked } from './select'

/** A random tree: each row's parent is an earlier row or none; units hold anything, items hold items. */
const anyTree = fc.array(fc.tuple(fc.boolean(), fc.nat()), { minLength: 1, maxLength: 25 }).map(rows => {
  const made: PlacedRow[] = []
  rows.forEach(([wantsUnit, n], at) => {
    const parent = at === 0 || n % (at + 1) === at ? null : made[n % at]!
    const type = wantsUnit && parent?.type !== 'item' ? 'unit' : 'item'
    made.push({ lineage: `n${at}`, parent: parent?.lineage ?? null, position: at, type })
  })
  return inCourseOrder(made)
})

describe('what comes across', () => {
  it('everything, when nothing is left; nothing that is left or lies in an item that is left', () => {
    fc.assert(
      fc.property(
        anyTree.chain(nodes => fc.tuple(fc.constant(nodes), fc.subarray(nodes.map(node => node.lineage)))),
        ([nodes, leave]) => {
          expect(carriedOf(nodes, new Set()).size).toBe(nodes.length)
          const left = new Set(leave)
          const carried = carriedOf(nodes, left)
          const byLineage = new Map(nodes.map(node => [node.lineage, node]))
          for (const node of nodes) {
            if (!carried.has(node.lineage)) continue
            if (node.type === 'item') expect(left.has(node.lineage)).toBe(false)
            // What comes always finds its parent there.
            if (node.parent !== null) expect(carried.has(node.parent)).toBe(true)
            if (node.parent !== null && byLineage.get(node.parent)!.type === 'item')
              expect(left.has(node.parent)).toBe(false)
          }
        },
      ),
    )
  })
  it('leaving a subtree and taking it back is as before', () => {
    fc.assert(
      fc.property(anyTree, fc.nat(), (nodes, n) => {
        const lineages = subtree(nodes, nodes[n % nodes.length]!.lineage)
        const left = setCarried(nodes, [], lineages, false)
        expect(lineages.every(lineage => !carriedOf(nodes, new Set(left)).has(lineage))).toBe(true)
        expect(setCarried(nodes, left, lineages, true)).toEqual([])
      }),
    )
  })
})

describe('what stays behind unless somebody asks for it', () => {
  const base = (source: string, how: CarriedBase['how'], lineage = source): CarriedBase => ({
    source,
    lineage,
    type: 'item',
    how,
    parts: {
      title: null,
      text: null,
      settings: null,
      points: null,
      category: null,
      dates: null,
      place: null,
      state: null,
    },
  })
  const stays = (
    given: Partial<Parameters<typeof staysUnasked>[1]>,
    nodes = [outline.unit('u'), outline.item('a', { parent: 'u' }), outline.item('b', { parent: 'u' })],
  ) => Object.fromEntries(staysUnasked(nodes, { nodes: [], bases: [], deleted: new Set(), ...given }))
  it('is what was deleted in the shell and is not there again, with all below it', () => {
    expect(stays({ deleted: new Set(['u']) })).toEqual({
      u: 'removed-here',
      a: 'removed-here',
      b: 'removed-here',
    })
    expect(stays({ deleted: new Set(['a']), nodes: [outline.item('a')] })).toEqual({})
    expect(stays({ bases: [base('a', 'carried', 'gone')] })).toEqual({ a: 'removed-here' })
    expect(stays({ bases: [base('a', 'carried', 'there')], nodes: [outline.item('there')] })).toEqual({})
  })
  it('is what was left before, or went into another’s place, unless it goes there again', () => {
    expect(stays({ bases: [base('a', 'left'), base('b', 'into')] })).toEqual({
      a: 'left-before',
      b: 'went-into',
    })
    expect(stays({ bases: [base('b', 'into')], goesInto: new Set(['b']) })).toEqual({})
    // What a template brought says nothing of what comes.
    expect(stays({ bases: [base('a', 'template')] })).toEqual({})
  })
  it('is what was announced, deleted in the source, or an empty place', () => {
    const nodes = [
      outline.item('news', { kind: 'announcement' }),
      outline.item('gone', { state: 'deleted' }),
      outline.item('place', { holds: ['page'] }),
    ]
    expect(stays({}, nodes)).toEqual({ news: 'announced', gone: 'deleted', place: 'empty' })
  })
})
