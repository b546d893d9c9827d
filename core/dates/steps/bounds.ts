import { isoOf } from '../../calendar/day'
import { move, type SlotStep } from './step'

/** What was within the source's classes stays within the target's: due and closes not before them, nothing after them. */
export const bounds: SlotStep = (draft, _rule, { source, target }) => {
  if (draft.from < source.classes.from || draft.from > source.classes.to) return
  if (draft.slot !== 'opens' && draft.day < target.classes.from)
    move(draft, target.classDays[0]!, 'before-start', 'before-start', { start: isoOf(target.classes.from) })
  if (draft.day > target.classes.to)
    move(draft, target.classDays.at(-1)!, 'past-end', 'past-end', { end: isoOf(target.classes.to) })
}
