import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { defaultRule, type Rule } from '../dates/rule'
import { recommendedPlan, type PlanDocument } from './document'
import { mergePlans } from './merge'

const plan = (change: {
  leave?: string[]
  held?: Record<string, string>
  title?: string | null
  rule?: Rule
}): PlanDocument => {
  const base = recommendedPlan()
  return {
    ...base,
    carry: { leave: change.leave ?? [] },
    names: { ...base.names, title: change.title ?? null },
    dates: {
      ...base.dates,
      rule: change.rule ?? base.dates.rule,
      itemRules: Object.fromEntries(
        Object.entries(change.held ?? {}).map(([key, due]) => [
          key,
          { ...defaultRule, method: 'set', opens: null, due, closes: null } as unknown as Rule,
        ]),
      ),
    },
  }
}
const held = (document: PlanDocument) =>
  Object.fromEntries(
    Object.entries(document.dates.itemRules).map(([key, rule]) => [key, (rule as { due?: string }).due]),
  )

describe('two people at one plan', () => {
  it('keep what each changed', () => {
    const { document, clashes } = mergePlans(
      plan({ leave: ['x'] }),
      plan({ leave: [], held: { a: '2027-01-11T10:00' } }),
      plan({ leave: ['x', 'y'], held: { b: '2027-01-12T10:00' }, title: 'Tides' }),
    )
    expect(clashes).toEqual([])
    expect(document.carry.leave).toEqual(['y'])
    expect(held(document)).toEqual({ a: '2027-01-11T10:00', b: '2027-01-12T10:00' })
    expect(document.names.title).toBe('Tides')
  })
  it('are told where both changed one thing, and where one takes back what the other changed', () => {
    const base = plan({ held: { a: '1', b: '1' } })
    expect(
      mergePlans(base, plan({ held: { a: '2', b: '1' } }), plan({ held: { a: '3', b: '1' } })).clashes,
    ).toEqual(['dates.itemRules.a'])
    expect(mergePlans(base, plan({ held: { a: '1' } }), plan({ held: { a: '1', b: '2' } })).clashes).toEqual([
      'dates.itemRules.b',
    ])
  })
  it('lose nothing of either where no two changes are of one thing, and it does not matter who comes first', () => {
    const changes = fc.dictionary(fc.constantFrom('a', 'b', 'c'), fc.constantFrom('1', '2'))
    const others = fc.dictionary(fc.constantFrom('d', 'e', 'f'), fc.constantFrom('1', '2'))
    const leaves = fc.subarray(['x', 'y', 'z'])
    fc.assert(
      fc.property(changes, others, leaves, leaves, leaves, (mine, theirs, was, left, right) => {
        const [base, a, b] = [
          plan({ leave: was }),
          plan({ leave: left, held: mine }),
          plan({ leave: right, held: theirs }),
        ]
        const [one, two] = [mergePlans(base, a, b), mergePlans(base, b, a)]
        expect(one.clashes).toEqual([])
        expect(held(one.document)).toEqual({ ...mine, ...theirs })
        expect([...one.document.carry.leave].sort()).toEqual([...two.document.carry.leave].sort())
        for (const key of ['x', 'y', 'z'])
          if (left.includes(key) === right.includes(key))
            expect(one.document.carry.leave.includes(key)).toBe(left.includes(key))
      }),
    )
  })
})
