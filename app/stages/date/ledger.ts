import { dayOf } from '~~/core/calendar/day'
import { teachingWeek, type Term } from '~~/core/calendar/term'
import { dateFields, type DateField } from '~~/core/course/dates'
import type { OutlineNode } from '~~/core/course/outline'
import type { Outcome } from '~~/core/dates/flags'
import { phaseOf } from '~~/core/dates/phases'
import { shortNote, type Note } from '~~/core/dates/notes'
import type { PlannedItem } from '~~/core/dates/plan'
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
  notes: readonly Note[]
}
export interface LedgerUnit {
  type: 'unit'
  lineage: string
  title: string
  number: number
  dated: number
  undated: number
}
export type LedgerRow = LedgerItem | LedgerUnit

/** A carried item with its old and new dates. */
export function ledgerItem(node: OutlineNode, planned: PlannedItem, notes: readonly Note[] = []): LedgerItem {
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
    notes,
  }
}
export const isDated = ({ outcomes }: LedgerItem): boolean =>
  dateFields.some(field => outcomes[field] !== 'empty')

/** The title of each unit of the plan, of what comes and of the shell. */
export const unitTitles = (
  nodes: readonly Pick<OutlineNode, 'type' | 'lineage' | 'title'>[],
): Map<string, string> =>
  new Map(nodes.flatMap(node => (node.type === 'unit' ? [[node.lineage, node.title] as const] : [])))

/** Rows in course order (`shellUnits`: titles of units that the shell alone has, by lineage): a head for each unit that shows something, then its items. */
export function ledgerRows(
  nodes: readonly OutlineNode[],
  items: readonly LedgerItem[],
  withUndated: boolean,
  shellUnits: ReadonlyMap<string, string> = new Map(),
): LedgerRow[] {
  const units = nodes.filter(node => node.type === 'unit')
  const byUnit = new Map<string | null, LedgerItem[]>()
  for (const item of items) byUnit.set(item.node.unit, [...(byUnit.get(item.node.unit) ?? []), item])
  return [...byUnit].flatMap(([unit, list]): LedgerRow[] => {
    const dated = list.filter(isDated)
    const shown = withUndated ? list : dated
    if (shown.length === 0) return []
    const at = units.findIndex(node => node.lineage === unit)
    const head: LedgerUnit = {
      type: 'unit',
      lineage: unit ?? 'outside',
      title: units[at]?.title ?? shellUnits.get(unit ?? '') ?? 'Outside the units',
      number: at + 1,
      dated: dated.length,
      undated: list.length - dated.length,
    }
    return [head, ...shown]
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
  const day = field === 'due' ? dayText(at) : shortDay(at)
  return `${phaseText(source, at)} · ${pastWords[field]}${day}`
}
/** How the date that wants looking at came to be; without one, the telling date. */
export function howText({ planned, outcomes, node, notes }: LedgerItem): string {
  const [note] = notes
  if (note) return `look: ${shortNote(note.code)}`
  const odd = (['settle', 'moved'] as const)
    .map(outcome => dateFields.find(field => outcomes[field] === outcome))
    .find(field => field !== undefined)
  const field = odd ?? tellingField(node) ?? 'closes'
  const words = shortHow(planned.crossed[field].reasons)
  if (!odd || (odd === 'due' && outcomes.due === 'moved')) return words
  // `Opens in Study week`, `Due past the end`, `Closes: kept in order`.
  return `${fieldName(odd)}${/^(in|on|past|before|after) /.test(words) ? ' ' : ': '}${words}`
}
