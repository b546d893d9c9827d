import { dayOf, type Day } from '../calendar/day'
import { termOver, type Term } from '../calendar/term'
import { yearsOfAll, type Years, type ZoneRules } from '../calendar/zone'
import type { ItemDates } from '../course/dates'
import type { OutlineNode } from '../course/outline'
import {
  openingAlone,
  planDates,
  summarise,
  type DatedItem,
  type PlannedItem,
  type PlanInput,
  type Summary,
} from '../dates/plan'
import { yearsReached } from '../dates/years'
import { fileItems, type Filed } from '../grading/periods'
import type { Windows } from '../pairing/windows'
import { sourcesOf, type PlanBase } from './base'
import { bring, type Brought } from './bring'
import type { PlanDocument } from './document'
import { datedByPattern } from './undated'

/** What a plan is computed from, with what it brings. */
export interface CompileInput extends PlanBase {
  readonly zone: ZoneRules
  readonly brought: Brought
}
/** Makes a plan ready to be computed. `zoneOf`: what the target's zone does in some years. */
export function compileInputOf(
  base: PlanBase,
  zoneOf: (timeZone: string, years: Years) => ZoneRules,
): CompileInput {
  const brought = bring(base)
  return { ...base, brought, zone: zoneOf(base.target.term.timeZone, zoneYearsOf(base, brought)) }
}

/** A unit has a date too, on which it opens: its own rule, or that for its items, decides where it lands. */
const datedItem = ({ lineage, type, kind, unit, opens, due, closes }: OutlineNode): DatedItem => ({
  id: lineage,
  kind: kind ?? '',
  unit: type === 'unit' ? lineage : unit,
  opens,
  due,
  closes,
})
/** When students may enrol and enter once the plan is run. */
export const windowsOf = ({ document, target }: Pick<PlanBase, 'document' | 'target'>): Windows =>
  document.windows ?? target.windows
/** The days on which students may enter the new course, where both are set. */
function targetWindow(base: PlanBase): { from: Day; to: Day } | null {
  const { openFrom, openTo } = windowsOf(base)
  return openFrom !== null && openTo !== null ? { from: dayOf(openFrom), to: dayOf(openTo) } : null
}
/** The old term of a plan's first source: where somebody has said when the course ran, that. */
export const sourceTerm = ({ dates: { sourceSpan } }: PlanDocument, term: Term): Term =>
  sourceSpan ? termOver(term, sourceSpan) : term
/** A plan's carried units and items with its rules, as the date engine takes them: once for each source, since each has a calendar of its own. */
function sourceInputs(base: PlanBase, brought: Brought): Omit<PlanInput, 'zone'>[] {
  const { document, target } = base
  const items = groupedBySide(brought)
  // What is made in the plan has no old dates: it stands in the new term from the beginning.
  return [...sourcesOf(base), ...base.found, target].map((source, at) => ({
    source: at === 0 ? sourceTerm(document, source.term) : source.term,
    target: target.term,
    sourceMeetings: source.meetings,
    targetMeetings: target.meetings,
    targetWindow: targetWindow(base),
    rules: document.dates,
    items: items.get(at) ?? [],
  }))
}
function groupedBySide({ merged, carried }: Brought): Map<number, DatedItem[]> {
  const items = new Map<number, DatedItem[]>()
  for (const node of merged.nodes) {
    const side = merged.from.get(node.lineage)
    if (side === undefined || !carried.has(node.lineage)) continue
    const own = items.get(side)
    if (own) own.push(datedItem(node))
    else items.set(side, [datedItem(node)])
  }
  return items
}
export const ledgerInputs = (input: CompileInput): PlanInput[] =>
  sourceInputs(input, input.brought).map(each => ({ ...each, zone: input.zone }))
/** The years for which a plan needs to know its target's zone. */
export const zoneYearsOf = (base: PlanBase, brought: Brought): Years =>
  yearsOfAll(sourceInputs(base, brought).map(yearsReached))

/** Where every date of a plan lands. */
export interface PlanLedger {
  readonly items: PlannedItem[]
  readonly summary: Summary
}
/** The dates of a plan's carried units and items. The page shows these while one plans; Run computes them again. */
export function planLedger(input: CompileInput): PlanLedger {
  const { merged, carried } = input.brought
  const units = new Set(merged.nodes.flatMap(({ type, lineage }) => (type === 'unit' ? [lineage] : [])))
  const crossed = ledgerInputs(input)
    .flatMap(each => planDates(each).items)
    .map(item => (units.has(item.id) ? openingAlone(item) : item))
  const items = datedByPattern(input, merged, carried, crossed)
  return { items, summary: summarise(items) }
}

/** The grading period of every carried item that counts, given where all dates land; empty where the new term has none. */
export const filedIn = (
  { document, target }: Pick<PlanBase, 'document' | 'target'>,
  nodes: readonly OutlineNode[],
  dates: ReadonlyMap<string, Readonly<ItemDates>>,
): Map<string, Filed> =>
  fileItems({
    nodes: nodes.filter(node => dates.has(node.lineage)),
    dates,
    periods: target.term.gradingPeriods,
    chosen: document.dates.periods,
  })
