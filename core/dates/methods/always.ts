import type { Prepare } from '../draft'
import type { RuleOf } from '../rule'
import { keepWeek } from './keep-week'
import { undate } from './none'

/** Always open: no opening and no closing date; the due date keeps its week. */
export const always: Prepare<RuleOf<'always'>> = (rule, crossing) => {
  const byWeek = keepWeek(rule, crossing)
  return draft => (draft.slot === 'due' ? byWeek(draft) : undate(draft, 'always-open'))
}
