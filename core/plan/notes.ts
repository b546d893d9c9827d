import { dayOf } from '../calendar/day'
import { dateFields, type ItemDates } from '../course/dates'
import { notesOf, type Note } from '../dates/notes'
import type { PlannedItem } from '../dates/plan'
import { windowsOf, type PlanBase } from './compile'
import type { MergedSources } from './sources'

const dayOrNull = (date: string | null): number | null => (date === null ? null : dayOf(date))

/** Whether a date lies on a day on which students may not enter; `from` and `to` are days, null ends are open. */
const liesOutside = (item: Readonly<ItemDates>, from: string | null, to: string | null): boolean =>
  dateFields.some(field => {
    const at = item[field]
    return at !== null && ((to !== null && at.slice(0, 10) > to) || (from !== null && at < from))
  })

/**
 * What is to be looked at in the dates that a plan will write, by item. Dates set by hand are looked at in every way; those
 * that a rule made have their flags, and are looked at only against the days on which students may enter.
 */
export function planNotes(
  base: PlanBase,
  { nodes }: MergedSources,
  planned: readonly PlannedItem[],
): Map<string, Note[]> {
  const kinds = new Map(nodes.map(node => [node.lineage, node.kind ?? '']))
  const { openFrom, openTo } = windowsOf(base)
  const held = new Set(planned.filter(item => item.flags.includes('set-by-hand')).map(item => item.id))
  const standing = planned.map(({ id, opens, due, closes }) => ({
    id,
    kind: kinds.get(id) ?? '',
    opens,
    due,
    closes,
  }))
  const { term, meetings } = base.target
  const window = { from: dayOrNull(openFrom), to: dayOrNull(openTo) }
  // Of thousands that a rule placed, only those are looked at that lie outside the windows: the rest is known to be in order.
  const isLooked = (item: (typeof standing)[number]): boolean =>
    held.has(item.id) || liesOutside(item, openFrom, openTo)
  const notes = [...notesOf(standing, { term, meetings, window }, isLooked)].map(
    ([id, found]) =>
      [id, held.has(id) ? found : found.filter(note => note.code === 'outside-windows')] as const,
  )
  return new Map(notes.filter(([, found]) => found.length > 0))
}
