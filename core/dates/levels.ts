import { methodOf, ruleFor, type Rule, type RuleSet } from './rule'

/** For what a rule stands: the whole course, every item of a kind, a unit, or some items (by kind, or by lineage key). */
export type RuleScope =
  | { readonly level: 'course' }
  | { readonly level: 'kind' | 'unit'; readonly key: string }
  | { readonly level: 'items'; readonly keys: readonly string[] }
export const wholeCourse: RuleScope = { level: 'course' }
const lists = { kind: 'kindRules', unit: 'unitRules', items: 'itemRules' } as const

interface Placed {
  readonly id: string
  readonly unit: string | null
  readonly kind: string
}
type Rules = Readonly<Record<string, Rule>>
const same = (a: Rule | undefined, b: Rule | undefined): boolean =>
  a === b || JSON.stringify(a) === JSON.stringify(b)
/** Dates that were set by hand stay where several items get a rule at once. */
const isHeld = (rules: Rules, key: string): boolean => {
  const rule = rules[key]
  return rule !== undefined && methodOf(rule).byHand === true
}
/** Those of some items that a rule for all of them is for: of one alone, that one, held or not. */
const meant = (rules: Rules, keys: readonly string[]): readonly string[] =>
  keys.length === 1 ? keys : keys.filter(key => !isHeld(rules, key))

/** The rule that stands for a scope itself; null where it has none of its own, or its items have several. */
export function ruleAt(rules: RuleSet, scope: RuleScope): Rule | null {
  if (scope.level === 'course') return rules.rule
  if (scope.level !== 'items') return rules[lists[scope.level]][scope.key] ?? null
  const [first, ...others] = meant(rules.itemRules, scope.keys).map(key => rules.itemRules[key])
  return first && others.every(other => same(first, other)) ? first : null
}
/** The rules with another one for a scope; null: it has none of its own any more, and the wider one decides. */
export function withRuleAt<R extends RuleSet>(rules: R, scope: RuleScope, rule: Rule | null): R {
  if (scope.level === 'course') return rule ? { ...rules, rule } : rules
  const list = lists[scope.level]
  const keys = scope.level === 'items' ? meant(rules.itemRules, scope.keys) : [scope.key]
  const next = { ...rules[list] }
  for (const key of keys) {
    if (rule) next[key] = rule
    else delete next[key]
  }
  return { ...rules, [list]: next }
}
/** Whether an item is among those that a scope names. */
export function isWithin(scope: RuleScope, item: Placed): boolean {
  if (scope.level === 'course') return true
  if (scope.level === 'items') return scope.keys.includes(item.id)
  return item[scope.level] === scope.key
}
/** Whether a rule for a scope decides for an item: it is among those named, and no nearer rule stands for it. */
export function reaches(rules: RuleSet, scope: RuleScope, item: Placed): boolean {
  if (!isWithin(scope, item)) return false
  if (scope.level === 'items') return meant(rules.itemRules, scope.keys).includes(item.id)
  const probe: Rule = { ...rules.rule }
  return ruleFor(withRuleAt(rules, scope, probe), item) === probe
}
/** The rule that decides for a scope where it has none of its own; of several items, that of the first. */
export const widerRule = (rules: RuleSet, scope: RuleScope, items: readonly Placed[]): Rule => {
  const without = withRuleAt(rules, scope, null)
  const item = scope.level === 'items' ? items.find(each => isWithin(scope, each)) : undefined
  return item ? ruleFor(without, item) : rules.rule
}
/** Scopes that have a rule of their own, the whole course aside: kinds, then units, then items that have the same one. */
export function ownScopes(rules: RuleSet): Exclude<RuleScope, { level: 'course' }>[] {
  const alike = new Map<string, string[]>()
  for (const [key, rule] of Object.entries(rules.itemRules)) {
    const told = JSON.stringify(rule)
    alike.set(told, [...(alike.get(told) ?? []), key])
  }
  return [
    ...(['kind', 'unit'] as const).flatMap(level =>
      Object.keys(rules[lists[level]]).map(key => ({ level, key })),
    ),
    ...[...alike.values()].map(keys => ({ level: 'items' as const, keys })),
  ]
}
