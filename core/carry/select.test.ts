import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { inCourseOrder, subtree, type PlacedRow } from '../course/outline'
import { carriedOf, setCarried } from './select'

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
