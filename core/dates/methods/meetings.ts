import { z } from 'zod'
import { isoOf } from '../../calendar/day'
import type { Meeting } from '../../calendar/schema'
import type { Crossing } from '../draft'
import { bit } from '../flags'
import type { DateMethod } from '../method'
import { placeOutsideClasses } from '../phases'
import { reason } from '../reason'
import { residualText, dayOrBlank } from '../saying'
import { byWeek } from './keep-week'
import { dayAmong, indexAmong, share, type ShareDetails } from './stretch'

const parameters = {
  /** The third meeting stays the third, or the same share of all; null: by the patterns. */
  align: z
    .enum(['count', 'share'], { error: 'must be count or share' })
    .nullish()
    .transform(value => value ?? null),
}
const reasons = {
  meetings: reason<ShareDetails & { align: 'count' | 'share' }>({
    short: 'class meeting',
    sentence: ({ before, after, details: { residual, index, of, landing, ofTarget } }) =>
      `Was ${dayOrBlank(before)}, ${residualText(residual)}class meeting ${index} of ${of}. Meeting ${landing} of ${ofTarget} gives ${dayOrBlank(after)}.`,
  }),
  'no-meetings': reason<{ side: 'source' | 'target' }>({
    sentence: ({ details }) =>
      `The ${details.side === 'source' ? 'old' : 'new'} section has no class meetings, so the teaching week decides.`,
  }),
}

const weekdaysOf = (pattern: readonly Meeting[]): number => new Set(pattern.map(entry => entry.weekday)).size
/** By count where both patterns name equally many different weekdays, else by share. */
const alignOf = ({ sourceMeetings, targetMeetings }: Crossing): 'count' | 'share' =>
  weekdaysOf(sourceMeetings) === weekdaysOf(targetMeetings) ? 'count' : 'share'

/** Class meeting for class meeting: the third stays the third (`count`), or the same share of all (`share`). */
export const meetings: DateMethod<'meetings', typeof parameters, typeof reasons> = {
  name: 'meetings',
  title: 'Class meeting for class meeting',
  line: 'counts meetings',
  parameters,
  reasons,
  asks: [
    {
      as: 'choice',
      name: 'align',
      words: 'the third meeting becomes',
      options: { count: 'the third', share: 'the same share of all' },
      none: 'as the weekdays suggest',
    },
  ],
  needsMeetings: true,
  compared: { with: {}, rank: { same: 3, other: 2 } },
  prepare(rule, crossing) {
    const { sourceMeetingDays: from, targetMeetingDays: to } = crossing
    const align = rule.align ?? alignOf(crossing)
    const fallBack = byWeek(rule, crossing)
    return draft => {
      if (placeOutsideClasses(crossing, draft)) return
      const { field } = draft
      if (from.length === 0 || to.length === 0) {
        const side = from.length === 0 ? 'source' : 'target'
        draft.flags |= bit['no-meetings']
        draft.reasons.push({ field, code: 'no-meetings', before: null, after: null, details: { side } })
        return fallBack(draft)
      }
      const { index, residual } = indexAmong(from, draft.from)
      const wanted = align === 'count' ? index : share(index, from.length, to.length)
      const landing = Math.min(wanted, to.length - 1)
      if (landing < wanted) draft.flags |= bit['past-end']
      draft.day = dayAmong(to, landing, residual)
      const counts = { index: index + 1, of: from.length, landing: landing + 1, ofTarget: to.length }
      draft.reasons.push({
        field,
        code: 'meetings',
        before: isoOf(draft.from),
        after: isoOf(draft.day),
        details: { ...counts, residual, align },
      })
    }
  },
}
