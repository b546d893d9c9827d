import { wallOf } from '../../calendar/day'
import { bit, type Draft } from '../draft'

const now = (draft: Draft): number => draft.day * 1440 + draft.minute
const was = (draft: Draft): number => draft.from * 1440 + draft.fromMinute

/**
 * Keeps two slots of an item in the order the source had. `mover` is put at its source distance (in days) from the other,
 * its time kept; if that is still the wrong way round, it takes the other's date and time.
 */
function keepOrder(earlier: Draft, later: Draft, mover: 'earlier' | 'later'): void {
  const moving = mover === 'earlier' ? earlier : later
  if (was(earlier) > was(later)) {
    later.flags |= bit['source-inverted']
    later.reasons.push({
      slot: later.slot,
      code: 'source-inverted',
      before: wallOf(later.from, later.fromMinute),
      after: wallOf(later.day, later.minute),
      names: { other: earlier.slot },
    })
    return
  }
  if (now(earlier) <= now(later)) return
  const fixed = mover === 'earlier' ? later : earlier
  const before = wallOf(moving.day, moving.minute)
  moving.day = fixed.day + (moving.from - fixed.from)
  if (now(earlier) > now(later)) {
    moving.day = fixed.day
    moving.minute = fixed.minute
  }
  moving.flags |= bit.reordered
  moving.reasons.push({
    slot: moving.slot,
    code: 'reordered',
    before,
    after: wallOf(moving.day, moving.minute),
    names: { other: fixed.slot },
  })
}

/** opens ≤ due ≤ closes, where the source had it so: opens and closes give way to due; without a due date, closes to opens. */
export function order(opens: Draft | null, due: Draft | null, closes: Draft | null): void {
  if (due) {
    if (opens) keepOrder(opens, due, 'earlier')
    if (closes) keepOrder(due, closes, 'later')
  } else if (opens && closes) keepOrder(opens, closes, 'later')
}
