import { ownScopes, type RuleScope } from '~~/core/dates/levels'
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
export const scopeValue = (scope: RuleScope): string =>
  scope.level === 'course' ? 'course' : `${scope.level} ${scope.key}`
const choice = (scope: RuleScope, label: string): ScopeChoice => ({ value: scopeValue(scope), label, scope })

const onlyWords = ({ type, title }: Pick<OutlineNode, 'type' | 'title'>): string =>
  type === 'unit' ? `only the opening of ${title}` : `only ${title}`
/** What a rule can be for: the course, each kind that stands there, each unit, and the selected item. */
export function scopeChoices(
  nodes: readonly OutlineNode[],
  selected: Pick<OutlineNode, 'lineage' | 'type' | 'title'> | null,
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
    ...(selected ? [choice({ level: 'item', key: selected.lineage }, onlyWords(selected))] : []),
  ]
}
/** Rules that stand for something narrower than the course, items that are held by hand aside. */
export function ownRules(
  rules: RuleSet,
  nodes: readonly OutlineNode[],
): (ScopeChoice & { readonly method: string })[] {
  const titles = new Map(nodes.map(node => [node.lineage, node.title]))
  const lists = { kind: rules.kindRules, unit: rules.unitRules, item: rules.itemRules }
  return ownScopes(rules).flatMap(scope => {
    const rule = lists[scope.level][scope.key]
    if (!rule || methodOf(rule).byHand) return []
    const title = titles.get(scope.key)
    const words = {
      kind: () => `every ${kindWords(scope.key as ItemKind)[0]}`,
      unit: () => `the unit ${title ?? ''}`,
      item: () => title ?? '',
    }
    // A rule for what is not there any more decides nothing.
    if (scope.level !== 'kind' && title === undefined) return []
    return [{ ...choice(scope, words[scope.level]()), method: methodOf(rule).title }]
  })
}
