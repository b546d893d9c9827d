import { dayOf } from '../calendar/day'
import { notesOf, type Note } from '../dates/notes'
import type { PlannedItem } from '../dates/plan'
import { windowsOf, type PlanBase } from './compile'
import type { MergedSources } from './sources'

const dayOrNull = (date: string | null): number | null => (date === null ? null : dayOf(date))

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
  const notes = [...notesOf(standing, { term, meetings, window })].map(
    ([id, found]) =>
      [id, held.has(id) ? found : found.filter(note => note.code === 'outside-windows')] as const,
  )
  return new Map(notes.filter(([, found]) => found.length > 0))
}
