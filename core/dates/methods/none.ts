import { wallOf } from '../../calendar/day'
import type { Draft } from '../draft'
import type { DateMethod, NoParameters } from '../method'
import { reason } from '../reason'
import { momentOrBlank } from '../saying'

const reasons = {
  none: reason({
    short: 'no dates',
    sentence: ({ before, field }) =>
      `Was ${momentOrBlank(before)}. The rule gives no dates.${field === 'opens' ? ' The item arrives hidden, so that it does not open by accident.' : ''}`,
  }),
}

/** Takes a date away, and says so. */
export function undate(draft: Draft, code: 'none' | 'always-open'): void {
  draft.dated = false
  const before = wallOf(draft.from, draft.fromMinute)
  draft.reasons.push({ field: draft.field, code, before, after: null })
}

/** No dates at all. */
export const none: DateMethod<'none', NoParameters, typeof reasons> = {
  name: 'none',
  title: 'No dates',
  line: 'takes every date away; what opened on one arrives hidden, announcements wait',
  parameters: {},
  reasons,
  waits: true,
  compared: { with: {}, rank: null },
  prepare: () => draft => undate(draft, 'none'),
}
