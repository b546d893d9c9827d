import { isoOf } from '../../calendar/day'
import { bit, type Prepare } from '../draft'
import type { RuleOf } from '../rule'
import { placeOutsideClasses } from '../zones'
import { keepWeek } from './keep-week'
import { dayAmong, indexAmong, share } from './stretch'

/** Class meeting for class meeting: the third stays the third (`count`), or the same share of all (`share`). */
export const meetings: Prepare<RuleOf<'meetings'>> = (rule, crossing) => {
  const { sourceMeetingDays: from, targetMeetingDays: to } = crossing
  const weekdays = (pattern: readonly { weekday: number }[]) =>
    new Set(pattern.map(entry => entry.weekday)).size
  const align =
    rule.align ??
    (weekdays(crossing.sourceMeetings) === weekdays(crossing.targetMeetings) ? 'count' : 'share')
  const byWeek = keepWeek(rule, crossing)
  return draft => {
    if (placeOutsideClasses(crossing, draft)) return
    if (from.length === 0 || to.length === 0) {
      draft.flags |= bit['no-meetings']
      draft.reasons.push({
        slot: draft.slot,
        code: 'no-meetings',
        before: null,
        after: null,
        names: { side: from.length === 0 ? 'source' : 'target' },
      })
      return byWeek(draft)
    }
    const { index, residual } = indexAmong(from, draft.from)
    let landing = align === 'count' ? index : share(index, from.length, to.length)
    if (landing > to.length - 1) {
      landing = to.length - 1
      draft.flags |= bit['past-end']
    }
    draft.day = dayAmong(to, landing, residual)
    draft.reasons.push({
      slot: draft.slot,
      code: 'meetings',
      before: isoOf(draft.from),
      after: isoOf(draft.day),
      names: {
        index: index + 1,
        of: from.length,
        landing: landing + 1,
        ofTarget: to.length,
        residual,
        align,
      },
    })
  }
}
