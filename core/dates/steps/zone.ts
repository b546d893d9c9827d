import { wallOf } from '../../calendar/day'
import { irregularAt, wallMinutes } from '../../calendar/zone'
import { bit } from '../draft'
import type { SlotStep } from './step'

/** A wall-clock time that the target's zone skips moves later by the gap; one that occurs twice is the earlier. */
export const zone: SlotStep = (draft, _rule, crossing) => {
  const odd = irregularAt(crossing.zone, wallMinutes(draft.day, draft.minute))
  if (!odd) return
  const before = wallOf(draft.day, draft.minute)
  if (odd.kind === 'gap') {
    const moved = wallMinutes(draft.day, draft.minute) + odd.minutes
    draft.day = Math.floor(moved / 1440)
    draft.minute = moved - draft.day * 1440
  }
  const flag = odd.kind === 'gap' ? 'dst-gap' : 'dst-overlap'
  draft.flags |= bit[flag]
  draft.reasons.push({
    slot: draft.slot,
    code: flag,
    before,
    after: wallOf(draft.day, draft.minute),
    names: { minutes: odd.minutes, timeZone: crossing.zone.timeZone },
  })
}
