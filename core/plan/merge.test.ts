import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { defaultRule, ruleBy, type Rule } from '../dates/rule'
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
    carry: { ...base.carry, leave: change.leave ?? [] },
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
    const { document, clashes } = mergePlans({
      from: plan({ leave: ['x'] }),
      mine: plan({ leave: [], held: { a: '2027-01-11T10:00' } }),
      theirs: plan({ leave: ['x', 'y'], held: { b: '2027-01-12T10:00' }, title: 'Tides' }),
    })
    expect(clashes).toEqual([])
    expect(document.carry.leave).toEqual(['y'])
    expect(held(document)).toEqual({ a: '2027-01-11T10:00', b: '2027-01-12T10:00' })
    expect(document.names.title).toBe('Tides')
  })
  it('are told where both changed one thing, and where one takes back what the other changed', () => {
    const [was, friday, monday] = ['2027-02-04T10:00', '2027-02-05T10:00', '2027-02-08T10:00']
    const from = plan({ held: { a: was, b: was } })
    const clash = (mine: Record<string, string>, theirs: Record<string, string>) =>
      mergePlans({ from, mine: plan({ held: mine }), theirs: plan({ held: theirs }) }).clashes
    expect(clash({ a: friday, b: was }, { a: monday, b: was })).toEqual([
      { path: 'dates.itemRules.a', mine: 'due Fri 5 Feb 10:00', theirs: 'due Mon 8 Feb 10:00' },
    ])
    expect(clash({ a: was }, { a: was, b: monday })).toEqual([
      {
        path: 'dates.itemRules.b',
        mine: 'no rule of its own',
        theirs: 'no opening, due Mon 8 Feb 10:00, no closing',
      },
    ])
    const later = clash({ a: friday, b: was }, { a: '2028-02-05T10:00', b: was })
    expect(later[0]?.theirs).toBe('due Sat 5 Feb 2028 10:00')
  })
  it('have what was chosen of each thing, and both of all else', () => {
    const from = plan({})
    const mine = plan({ title: 'Mine', held: { a: '2027-01-11T10:00' } })
    const theirs = plan({ title: 'Theirs', held: { a: '2027-01-12T10:00', b: '2027-01-13T10:00' } })
    const { document, clashes } = mergePlans({ from, mine, theirs }, { 'names.title': 'theirs' })
    expect(clashes.map(({ path }) => path).sort()).toEqual(['dates.itemRules.a', 'names.title'])
    expect(document.names.title).toBe('Theirs')
    expect(held(document)).toEqual({ a: '2027-01-11T10:00', b: '2027-01-13T10:00' })
  })
  it('see in words what tells two rules for the whole course apart', () => {
    const rule = { ...defaultRule, times: { ...defaultRule.times, due: '23:59' } }
    const other = {
      ...defaultRule,
      times: { ...defaultRule.times, due: 'class-start' },
      closures: { ...defaultRule.closures, due: 'previous' as const },
    }
    const told = (mine: Rule, theirs: Rule) => {
      const { clashes } = mergePlans({
        from: plan({}),
        mine: plan({ rule: mine }),
        theirs: plan({ rule: theirs }),
      })
      return [clashes[0]?.mine, clashes[0]?.theirs]
    }
    expect(told(rule, other)).toEqual([
      'due at 23:59, due on a closure: the next usable day',
      'due at the start of class, due on a closure: the usable day before',
    ])
    expect(told(rule, ruleBy('offset', { days: 5 }))).toEqual([
      'Same week and weekday',
      'Same distance from the first day',
    ])
    expect(told(ruleBy('offset', { days: 5 }), ruleBy('offset', { wholeWeeks: true }))).toEqual([
      'by 5 days',
      'by the first days of classes, in whole weeks',
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
        const [one, two] = [
          mergePlans({ from: base, mine: a, theirs: b }),
          mergePlans({ from: base, mine: b, theirs: a }),
        ]
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
