import { ruleFor, type Rule, type RuleSet } from './rule'

/** For what a rule stands: the whole course, every item of a kind, a unit, or one item (by kind, or by lineage key). */
export type RuleScope =
  { readonly level: 'course' } | { readonly level: 'kind' | 'unit' | 'item'; readonly key: string }
export const wholeCourse: RuleScope = { level: 'course' }
const lists = { kind: 'kindRules', unit: 'unitRules', item: 'itemRules' } as const

interface Placed {
  readonly id: string
  readonly unit: string | null
  readonly kind: string
}
/** The rule that stands for a scope itself; null where it has none of its own. */
export const ruleAt = (rules: RuleSet, scope: RuleScope): Rule | null =>
  scope.level === 'course' ? rules.rule : (rules[lists[scope.level]][scope.key] ?? null)
/** The rules with another one for a scope; null: it has none of its own any more, and the wider one decides. */
export function withRuleAt<R extends RuleSet>(rules: R, scope: RuleScope, rule: Rule | null): R {
  if (scope.level === 'course') return rule ? { ...rules, rule } : rules
  const list = lists[scope.level]
  const { [scope.key]: _, ...others } = rules[list]
  return { ...rules, [list]: rule ? { ...others, [scope.key]: rule } : others }
}
/** Whether an item is among those that a scope names. */
export function isWithin(scope: RuleScope, item: Placed): boolean {
  if (scope.level === 'course') return true
  const keys = { kind: item.kind, unit: item.unit, item: item.id }
  return keys[scope.level] === scope.key
}
/** Whether a rule for a scope decides for an item: it is among those named, and no nearer rule stands for it. */
export function reaches(rules: RuleSet, scope: RuleScope, item: Placed): boolean {
  if (!isWithin(scope, item)) return false
  const probe: Rule = { ...rules.rule }
  return ruleFor(withRuleAt(rules, scope, probe), item) === probe
}
/** The rule that decides for a scope where it has none of its own. */
export const widerRule = (rules: RuleSet, scope: RuleScope, items: readonly Placed[]): Rule => {
  const without = withRuleAt(rules, scope, null)
  const item = scope.level === 'item' ? items.find(each => each.id === scope.key) : undefined
  return item ? ruleFor(without, item) : rules.rule
}
/** Scopes that have a rule of their own, the whole course aside: kinds, then units, then items. */
export const ownScopes = (rules: RuleSet): Exclude<RuleScope, { level: 'course' }>[] =>
  (['kind', 'unit', 'item'] as const).flatMap(level =>
    Object.keys(rules[lists[level]]).map(key => ({ level, key })),
  )
