import { ownScopes, ruleAt, type RuleScope } from '~~/core/dates/levels'
import type { OutlineNode } from '~~/core/course/outline'
import { itemKinds, type ItemKind } from '~~/core/course/model'
import { methodOf, type RuleSet } from '~~/core/dates/rule'
import { kindWords } from '~/composables/words'

/** Something that a rule can be for, as it is chosen. `value` stands for the scope in a list. */
export interface ScopeChoice {
  readonly value: string
  readonly label: string
  readonly scope: RuleScope
}
export function scopeValue(scope: RuleScope): string {
  if (scope.level === 'course') return 'course'
  return `${scope.level} ${scope.level === 'items' ? scope.keys.join(' ') : scope.key}`
}
const choice = (scope: RuleScope, label: string): ScopeChoice => ({ value: scopeValue(scope), label, scope })

const onlyText = ({ type, title }: Pick<OutlineNode, 'type' | 'title'>): string =>
  type === 'unit' ? `only the opening of ${title}` : `only ${title}`
/** What a rule can be for: the course, each kind that stands there, each unit, the selected item, and those that are chosen. */
export function scopeChoices(
  nodes: readonly OutlineNode[],
  selected: Pick<OutlineNode, 'lineage' | 'type' | 'title'> | null,
  chosen: readonly string[] = [],
): ScopeChoice[] {
  const kinds = new Set(nodes.map(node => node.kind))
  return [
    choice({ level: 'course' }, 'the whole course'),
    ...itemKinds
      .filter(kind => kinds.has(kind))
      .map(kind => choice({ level: 'kind', key: kind }, `every ${kindWords(kind)[0]}`)),
    ...nodes
      .filter(node => node.type === 'unit')
      .map(unit => choice({ level: 'unit', key: unit.lineage }, `the unit ${unit.title}`)),
    ...(selected ? [choice({ level: 'items', keys: [selected.lineage] }, onlyText(selected))] : []),
    ...(chosen.length > 1
      ? [choice({ level: 'items', keys: chosen }, `the ${chosen.length} chosen rows`)]
      : []),
  ]
}
/** Rules that stand for something narrower than the course, items that are held by hand aside. */
export function ownRules(
  rules: RuleSet,
  nodes: readonly OutlineNode[],
): (ScopeChoice & { readonly method: string })[] {
  const titles = new Map(nodes.map(node => [node.lineage, node.title]))
  return ownScopes(rules).flatMap(scope => {
    const rule = ruleAt(rules, scope)
    if (!rule || methodOf(rule).byHand) return []
    const told = { method: methodOf(rule).title }
    if (scope.level !== 'items') {
      const title = titles.get(scope.key)
      const words =
        scope.level === 'kind' ? `every ${kindWords(scope.key as ItemKind)[0]}` : title && `the unit ${title}`
      // A rule for what is not there any more decides nothing.
      return words === undefined ? [] : [{ ...choice(scope, words), ...told }]
    }
    const there = scope.keys.filter(key => titles.has(key))
    const [first] = there
    if (first === undefined) return []
    const words = there.length > 1 ? `${there.length} items` : (titles.get(first) ?? '')
    return [{ ...choice(scope, words), ...told }]
  })
}
