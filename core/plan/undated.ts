import { unitNumber } from '../carry/regroup'
import { dateFields } from '../course/dates'
import { subtree, type OutlineNode } from '../course/outline'
import { patternDates } from '../dates/pattern'
import type { PlannedItem } from '../dates/plan'
import type { PlanBase } from './base'
import type { ZoneRules } from '../calendar/zone'
import type { MergedSources } from './sources'

/** An item without a date, of a kind that the pattern is for, and without a rule of its own. */
export const isUndated = (node: OutlineNode): boolean =>
  node.type === 'item' && dateFields.every(field => node[field] === null)

/**
 * Units at the top by the teaching week that they stand for: the number in their titles, where most have one of their own; else their order.
 * The key at 0 is that of unit 1; a gap is an empty text.
 */
export function unitsByWeek(units: readonly Pick<OutlineNode, 'lineage' | 'title'>[]): string[] {
  const numbered = units.flatMap(unit => {
    const number = unitNumber(unit.title)
    return number === null || number < 1 || number > 200 ? [] : [{ lineage: unit.lineage, number }]
  })
  const numbers = new Map(numbered.map(({ lineage, number }) => [number, lineage]))
  if (numbers.size !== numbered.length || numbered.length * 2 < units.length)
    return units.map(unit => unit.lineage)
  const last = Math.max(0, ...numbers.keys())
  return Array.from({ length: last }, (_, at) => numbers.get(at + 1) ?? '')
}
/** The top units that come, in the order that the shell will have, under the names that they will have there. */
function unitsThatCome(
  { document: { places } }: Pick<PlanBase, 'document'>,
  { nodes }: MergedSources,
  carried: ReadonlySet<string>,
): OutlineNode[] {
  const units = nodes.filter(node => node.type === 'unit' && node.depth === 0 && carried.has(node.lineage))
  for (const [lineage, after] of Object.entries(places.after)) {
    const at = units.findIndex(unit => unit.lineage === lineage)
    if (at < 0 || (after !== null && !units.some(unit => unit.lineage === after))) continue
    const [unit] = units.splice(at, 1)
    if (unit) units.splice(units.findIndex(each => each.lineage === after) + 1, 0, unit)
  }
  return units.map(unit => ({ ...unit, title: places.titles[unit.lineage] ?? unit.title }))
}

/** The same dates, with those of the pattern for work that never had any and has no rule of its own. */
export function datedByPattern(
  input: Pick<PlanBase, 'document' | 'target'> & { readonly zone: ZoneRules },
  merged: MergedSources,
  carried: ReadonlySet<string>,
  planned: PlannedItem[],
): PlannedItem[] {
  const { document, target, zone } = input
  const { pattern, itemRules, rule } = document.dates
  if (!pattern) return planned
  const units = unitsThatCome(input, merged, carried)
  const unitOf = new Map(
    units.flatMap(unit => subtree(merged.nodes, unit.lineage).map(lineage => [lineage, unit.lineage])),
  )
  const kinds = new Set<string>(pattern.kinds)
  const isMeant = new Set(
    merged.nodes
      .filter(
        node => isUndated(node) && kinds.has(node.kind ?? '') && !Object.hasOwn(itemRules, node.lineage),
      )
      .map(node => node.lineage),
  )
  const dated = patternDates({
    target: target.term,
    meetings: target.meetings,
    zone,
    pattern,
    units: unitsByWeek(units),
    items: planned
      .filter(item => isMeant.has(item.id))
      .map(({ id }) => ({ id, unit: unitOf.get(id) ?? null })),
    ...('closures' in rule && { closures: rule.closures }),
  })
  const byId = new Map(dated.map(item => [item.id, item]))
  return planned.map(item => byId.get(item.id) ?? item)
}
