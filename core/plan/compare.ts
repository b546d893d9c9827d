import { compareMethods, offeredMethods, ruleToBegin, type Fits } from '../dates/fit'
import { ruleAt, widerRule, withRuleAt, type RuleScope } from '../dates/levels'
import type { MethodName } from '../dates/rule'
import type { PlanBase } from './base'
import { ledgerInputs, type CompileInput } from './ledger'

const offered = offeredMethods.map(method => method.name)

/** What each method would leave to settle of the dates for which a rule for `scope` decides, and how many items it would put elsewhere. */
export interface Comparison {
  scope: RuleScope
  /** How many units and items are compared. */
  items: number
  told: Partial<Record<MethodName, { readonly settles: number; readonly moves: number }>>
  suggested: MethodName
  because: Fits['because']
}
/** Each source has a calendar of its own; what a method moves and leaves to settle is that of all together, and the first one's best is suggested. */
export function comparePlan(input: CompileInput, scope: RuleScope): Comparison | null {
  const comparisons = ledgerInputs(input).map(each => compareMethods(each, offered, scope))
  const told: Comparison['told'] = {}
  for (const { fits } of comparisons)
    for (const { method, summary, moves } of fits) {
      const { settles, moves: before } = told[method] ?? { settles: 0, moves: 0 }
      told[method] = { settles: settles + summary.settle, moves: before + moves }
    }
  const items = comparisons.reduce((sum, each) => sum + each.items, 0)
  const [first] = comparisons
  return first ? { scope, items, told, suggested: first.suggested, because: first.because } : null
}

/** The plan with a rule of another method for a scope; null where the terms give that method nothing to go by. */
export function withMethod<B extends PlanBase>(base: B, scope: RuleScope, method: MethodName): B | null {
  const { dates } = base.document
  const now = ruleAt(dates, scope) ?? widerRule(dates, scope, [])
  const rule = ruleToBegin(method, now, { source: base.source.term, target: base.target.term })
  return rule && { ...base, document: { ...base.document, dates: withRuleAt(dates, scope, rule) } }
}
