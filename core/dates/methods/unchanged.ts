import type { DateMethod, NoParameters } from '../method'
import { reason } from '../reason'
import { momentOrBlank } from '../saying'

const reasons = {
  unchanged: reason({
    short: 'as it was',
    sentence: ({ after }) => `The rule leaves it as it was, ${momentOrBlank(after)}.`,
  }),
}

/** Every date as it was. */
export const unchanged: DateMethod<'unchanged', NoParameters, typeof reasons> = {
  name: 'unchanged',
  title: 'Every date as it was',
  line: 'keeps every date, and its year',
  parameters: {},
  reasons,
  leavesDates: true,
  flag: null,
  state(_rule, field, was) {
    const at = was[field]
    return { at, reason: at === null ? null : { field, code: 'unchanged', before: at, after: at } }
  },
}
