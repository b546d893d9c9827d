import { wallOf } from '../../calendar/day'
import type { DateField } from '../../course/dates'
import type { Draft } from '../draft'
import { bit } from '../flags'
import { reason } from '../reason'
import { fieldWord, momentOrBlank } from '../saying'

export const orderReasons = {
  reordered: reason<{ other: DateField }>({
    short: 'kept in order',
    sentence: ({ field, before, after, details: { other } }) =>
      `${momentOrBlank(before)} would be ${field === 'opens' ? 'after' : 'before'} the ${fieldWord[other]}, so it keeps its old distance from it: ${momentOrBlank(after)}.`,
  }),
  'source-inverted': reason<{ other: DateField }>({
    sentence: ({ details: { other } }) =>
      `It was before the ${fieldWord[other]} in the old course already, and is left so.`,
  }),
}

const now = (draft: Draft): number => draft.day * 1440 + draft.minute
const was = (draft: Draft): number => draft.from * 1440 + draft.fromMinute

/**
 * Keeps two dates of an item in the order the source had. `mover` is put at its source distance (in days) from the other,
 * its time kept; if that is still the wrong way round, it takes the other's date and time.
 */
function keepOrder(earlier: Draft, later: Draft, mover: 'earlier' | 'later'): void {
  if (was(earlier) > was(later)) {
    later.flags |= bit['source-inverted']
    later.reasons.push({
      field: later.field,
      code: 'source-inverted',
      before: wallOf(later.from, later.fromMinute),
      after: wallOf(later.day, later.minute),
      details: { other: earlier.field },
    })
    return
  }
  if (now(earlier) <= now(later)) return
  const [moving, fixed] = mover === 'earlier' ? [earlier, later] : [later, earlier]
  const before = wallOf(moving.day, moving.minute)
  moving.day = fixed.day + (moving.from - fixed.from)
  if (now(earlier) > now(later)) {
    moving.day = fixed.day
    moving.minute = fixed.minute
  }
  moving.flags |= bit.reordered
  moving.reasons.push({
    field: moving.field,
    code: 'reordered',
    before,
    after: wallOf(moving.day, moving.minute),
    details: { other: fixed.field },
  })
}
/** opens ≤ due ≤ closes, where the source had it so: opens and closes give way to due; without a due date, closes to opens. */
export function order(opens: Draft | null, due: Draft | null, closes: Draft | null): void {
  if (due) {
    if (opens) keepOrder(opens, due, 'earlier')
    if (closes) keepOrder(due, closes, 'later')
  } else if (opens && closes) keepOrder(opens, closes, 'later')
}
