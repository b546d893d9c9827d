import { wallOf } from '../../calendar/day'
import { irregularAt, wallMinutes } from '../../calendar/zone'
import { bit } from '../flags'
import { reason } from '../reason'
import { momentOrBlank } from '../saying'
import type { Step } from './step'

interface Clocks {
  minutes: number
  timeZone: string
}
export const zoneReasons = {
  'dst-gap': reason<Clocks>({
    sentence: ({ before, after, details: { timeZone } }) =>
      `Clocks skip ${momentOrBlank(before)} in ${timeZone}, so it is ${momentOrBlank(after)}.`,
  }),
  'dst-overlap': reason<Clocks>({
    sentence: ({ after, details: { timeZone } }) =>
      `${momentOrBlank(after)} occurs twice in ${timeZone}; it is the earlier.`,
  }),
}

/** A wall-clock time that the target's zone skips moves later by the gap; one that occurs twice is the earlier. */
export const zone: Step = (draft, _rule, crossing) => {
  const odd = irregularAt(crossing.zone, wallMinutes(draft.day, draft.minute))
  if (!odd) return
  const before = wallOf(draft.day, draft.minute)
  if (odd.kind === 'gap') {
    const moved = wallMinutes(draft.day, draft.minute) + odd.minutes
    draft.day = Math.floor(moved / 1440)
    draft.minute = moved - draft.day * 1440
  }
  const code = odd.kind === 'gap' ? 'dst-gap' : 'dst-overlap'
  const details = { minutes: odd.minutes, timeZone: crossing.zone.timeZone }
  draft.flags |= bit[code]
  draft.reasons.push({ field: draft.field, code, before, after: wallOf(draft.day, draft.minute), details })
}
