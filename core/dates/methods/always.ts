import type { DateMethod, NoParameters } from '../method'
import { reason } from '../reason'
import { momentOrBlank } from '../saying'
import { byWeek } from './keep-week'
import { undate } from './none'

const reasons = {
  'always-open': reason({
    short: 'always open',
    sentence: ({ before }) => `Was ${momentOrBlank(before)}. The rule keeps this always open.`,
  }),
}

/** Always open: no opening and no closing date; the due date keeps its week. */
export const always: DateMethod<'always', NoParameters, typeof reasons> = {
  name: 'always',
  title: 'Always open',
  line: 'keeps the due date only',
  parameters: {},
  reasons,
  prepare(rule, crossing) {
    const place = byWeek(rule, crossing)
    return draft => (draft.field === 'due' ? place(draft) : undate(draft, 'always-open'))
  },
}
