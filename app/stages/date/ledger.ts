import { dayOf } from '~~/core/calendar/day'
import { teachingWeek, type Term } from '~~/core/calendar/term'
import { dateFields, type DateField } from '~~/core/course/dates'
import type { OutlineNode } from '~~/core/course/outline'
import type { Outcome } from '~~/core/dates/flags'
import { phaseOf } from '~~/core/dates/phases'
import type { Finding } from '~~/core/checks/finding'
import type { PlannedItem } from '~~/core/dates/plan'
import type { Filed } from '~~/core/grading/periods'
import { shortHow } from '~~/core/dates/reasons'
import { dayText, shortDay } from '~~/core/dates/words'
import { fieldName } from '~/composables/words'

export interface LedgerItem {
  type: 'item'
  lineage: string
  node: OutlineNode
  planned: PlannedItem
  outcomes: Record<DateField, Outcome>
  settle: boolean
  held: boolean
  /** What is to be looked at in dates that stand. */
  findings: readonly Finding[]
  /** The grading period it is filed under; null: the term has none, or it is not filed. */
  filed: Filed | null
  /** Of a unit: the line over its items, which says when it opens. */
  head?: LedgerHead
}
export interface LedgerHead {
  readonly number: number
  readonly dated: number
  readonly undated: number
}
/** The line over the items of a unit that opens on no date, or over those outside the units. */
export interface LedgerUnit extends LedgerHead {
  type: 'unit'
  lineage: string
  title: string
}
export type LedgerRow = LedgerItem | LedgerUnit

/** A carried unit or item with its old and new dates. */
export function ledgerItem(
  node: OutlineNode,
  planned: PlannedItem,
  {
    findings = [],
    filed = null,
  }: { findings?: readonly Finding[] | undefined; filed?: Filed | null | undefined } = {},
): LedgerItem {
  const { opens, due, closes } = planned.crossed
  const outcomes = { opens: opens.outcome, due: due.outcome, closes: closes.outcome }
  return {
    type: 'item',
    lineage: node.lineage,
    node,
    planned,
    outcomes,
    settle: Object.values(outcomes).includes('settle'),
    held: planned.flags.includes('set-by-hand'),
    findings,
    filed,
  }
}
/** Whether it is a unit, of which only the opening is a date. */
export const isUnit = ({ node }: LedgerItem): boolean => node.type === 'unit'
/** The dates that it can have. */
export const fieldsOf = (item: LedgerItem): readonly DateField[] => (isUnit(item) ? ['opens'] : dateFields)
export const isDated = ({ outcomes }: LedgerItem): boolean =>
  dateFields.some(field => outcomes[field] !== 'empty')

/** Whether a person must say under which grading period it is filed. */
export const asksPeriod = ({ filed }: Pick<LedgerItem, 'filed'>): boolean => filed?.period === null
/** Whether the ledger has a row for it where what has no date is left out: a person must say something of it, if not when. */
export const isRow = (item: LedgerItem): boolean => isDated(item) || asksPeriod(item)

/** The title of each unit of the plan, of what comes and of the shell. */
export const unitTitles = (
  nodes: readonly Pick<OutlineNode, 'type' | 'lineage' | 'title'>[],
): Map<string, string> =>
  new Map(nodes.flatMap(node => (node.type === 'unit' ? [[node.lineage, node.title] as const] : [])))

/**
 * Rows in course order (`shellUnits`: titles of units that the shell alone has, by lineage): a line for each unit that opens on a date or shows
 * something, then its items. `shown`: the units and items in view.
 */
export function ledgerRows(
  nodes: readonly OutlineNode[],
  shown: readonly LedgerItem[],
  withUndated: boolean,
  shellUnits: ReadonlyMap<string, string> = new Map(),
): LedgerRow[] {
  const units = nodes.filter(node => node.type === 'unit')
  const numbers = new Map(units.map(({ lineage }, at) => [lineage, at + 1]))
  const titles = unitTitles(units)
  const groups = new Map<string | null, { opening: LedgerItem | null; items: LedgerItem[] }>()
  const groupOf = (unit: string | null) => {
    const there = groups.get(unit) ?? { opening: null, items: [] }
    groups.set(unit, there)
    return there
  }
  for (const item of shown) {
    if (isUnit(item)) groupOf(item.lineage).opening = item
    else groupOf(item.node.unit).items.push(item)
  }
  return [...groups].flatMap(([unit, { opening, items }]): LedgerRow[] => {
    const dated = items.filter(isDated).length
    const rows = withUndated ? items : items.filter(isRow)
    const head = { number: numbers.get(unit ?? '') ?? 0, dated, undated: items.length - dated }
    if (opening && (withUndated || isDated(opening))) return [{ ...opening, head }, ...rows]
    if (rows.length === 0) return []
    const title = titles.get(unit ?? '') ?? shellUnits.get(unit ?? '') ?? 'Outside the units'
    return [{ type: 'unit', lineage: unit ?? 'outside', title, ...head }, ...rows]
  })
}

/** The field that tells most of an item: when it was due, else when it opened, else when it closed; null where it had no date. */
export const tellingField = (node: OutlineNode): DateField | null =>
  (['due', 'opens', 'closes'] as const).find(field => node[field] !== null) ?? null

const pastWords: Record<DateField, string> = { opens: 'opened ', due: '', closes: 'closed ' }
function phaseText(source: Term, at: string): string {
  const day = dayOf(at)
  const phase = phaseOf(source, day)
  if (phase !== 'classes') return phase
  const { week, after } = teachingWeek(source, day)
  return after > 0 ? 'break' : `wk ${week}`
}
/** Where an item stood in the old term: `wk 3 · Fri 11 Sep`. */
export function wasText(node: OutlineNode, source: Term | null): string {
  const field = tellingField(node)
  const at = field && node[field]
  if (!field || !at || !source) return '–'
  const day = field === 'due' ? dayText(at, yearsOf(source)) : shortDay(at)
  return `${phaseText(source, at)} · ${pastWords[field]}${day}`
}
/** How the date that wants looking at came to be; without one, the telling date. */
export function howText({ planned, outcomes, node, findings, filed }: LedgerItem): string {
  const [found] = findings
  if (found) return `look: ${found.short}`
  const odd = (['settle', 'moved'] as const)
    .map(outcome => dateFields.find(field => outcomes[field] === outcome))
    .find(field => field !== undefined)
  if (asksPeriod({ filed }) && !Object.values(outcomes).includes('settle')) return 'Grading period to choose'
  const field = odd ?? tellingField(node) ?? (node.type === 'unit' ? 'opens' : 'closes')
  const words = shortHow(planned.crossed[field].reasons)
  if (!odd || (odd === 'due' && outcomes.due === 'moved')) return words
  // `Opens in Study week`, `Due past the end`, `Closes: kept in order`.
  return `${fieldName(odd)}${/^(in|on|past|before|after) /.test(words) ? ' ' : ': '}${words}`
}
