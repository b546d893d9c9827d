import { describe, expect, it } from 'vitest'
import { defaultRule, ruleBy } from '../dates/rule'
import { planDifferences } from './differences'
import { recommendedPlan } from './document'

describe('plans for two shells of one set', () => {
  const base = recommendedPlan()
  it('differ in nothing where they decide the same, whatever their shells are called', () => {
    const renamed = { ...base, names: { title: 'Tides', label: 'Evening' } }
    expect(planDifferences(base, renamed)).toEqual([])
  })
  it('say what each decides: 08:30 here, 23:59 there', () => {
    const at = (due: string) => ({ ...defaultRule, times: { ...defaultRule.times, due } })
    const here = {
      ...base,
      dates: { ...base.dates, rule: at('08:30') },
      carry: { ...base.carry, leave: ['x'] },
    }
    const held = ruleBy('set', { due: '2027-02-05T23:59' })
    const there = { ...base, dates: { ...base.dates, rule: at('23:59'), itemRules: { a: held } } }
    expect(planDifferences(here, there)).toEqual([
      { path: 'carry', here: '1 left behind', there: '0 left behind' },
      { path: 'dates.rule', here: 'due at 08:30', there: 'due at 23:59' },
      {
        path: 'dates.itemRules.a',
        here: 'no rule of its own',
        there: 'no opening, due Fri 5 Feb 23:59, no closing',
      },
    ])
  })
})
