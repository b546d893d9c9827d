import { describe, expect, it } from 'vitest'
import { isWithin, ownScopes, reaches, ruleAt, wholeCourse, widerRule, withRuleAt } from './levels'
import { defaultRule, ruleBy, ruleFor, type RuleSet } from './rule'

const item = { id: 'i1', unit: 'u1', kind: 'quiz' }
const [kind, unit, one] = [
  { level: 'kind', key: 'quiz' },
  { level: 'unit', key: 'u1' },
  { level: 'items', keys: ['i1'] },
] as const
const none: RuleSet = { rule: defaultRule, kindRules: {}, unitRules: {}, itemRules: {} }
const [offset, stretch] = [ruleBy('offset'), ruleBy('stretch')]

describe('rules at their levels', () => {
  it('stand for a scope, are taken away again, and leave all others as they are', () => {
    const both = withRuleAt(withRuleAt(none, kind, offset), unit, stretch)
    expect([ruleAt(both, kind), ruleAt(both, unit), ruleAt(both, one)]).toEqual([offset, stretch, null])
    expect(ownScopes(both)).toEqual([kind, unit])
    expect(ruleFor(both, item)).toBe(stretch)
    expect(withRuleAt(withRuleAt(both, unit, null), kind, null)).toEqual(none)
    // A course always has a rule.
    expect(withRuleAt(none, wholeCourse, null)).toBe(none)
  })
  it('reach the items for which no nearer rule stands', () => {
    const rules = withRuleAt(none, unit, stretch)
    expect(isWithin(kind, item)).toBe(true)
    expect(reaches(rules, kind, item)).toBe(false)
    expect(reaches(rules, kind, { ...item, unit: null })).toBe(true)
    expect(reaches(rules, unit, item)).toBe(true)
    expect(reaches(rules, one, item)).toBe(true)
    expect(reaches(rules, { level: 'kind', key: 'page' }, { ...item, unit: null })).toBe(false)
  })
  it('stand for several items at once, but for those that are held; what has the same one is told together', () => {
    const some = { level: 'items', keys: ['i1', 'i2', 'i3'] } as const
    const held = withRuleAt(none, { level: 'items', keys: ['i2'] }, ruleBy('set'))
    const rules = withRuleAt(held, some, offset)
    expect(rules.itemRules).toEqual({ i1: offset, i2: ruleBy('set'), i3: offset })
    expect(ruleAt(rules, some)).toBe(offset)
    expect(ruleAt(withRuleAt(rules, one, stretch), some)).toBeNull()
    expect(['i1', 'i2', 'i4'].map(id => reaches(rules, some, { ...item, id }))).toEqual([true, false, false])
    expect(ownScopes(rules)).toEqual([
      { level: 'items', keys: ['i2'] },
      { level: 'items', keys: ['i1', 'i3'] },
    ])
    expect(withRuleAt(rules, some, null)).toEqual(held)
    // One item alone gets its rule though it is held.
    expect(withRuleAt(held, { level: 'items', keys: ['i2'] }, offset).itemRules).toEqual({ i2: offset })
  })
  it('say what decides where a scope has none of its own', () => {
    const rules = withRuleAt(withRuleAt(none, kind, offset), one, stretch)
    expect(widerRule(rules, one, [item])).toBe(offset)
    expect(widerRule(rules, unit, [item])).toBe(defaultRule)
  })
})
