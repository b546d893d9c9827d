import { isoOf } from '../../calendar/day'
import { bit, type Prepare } from '../draft'
import type { RuleOf } from '../rule'
import { keepWeek } from './keep-week'

/** As many days from a milestone as it was from the same milestone of the source. */
export const anchor: Prepare<RuleOf<'anchor'>> = (rule, crossing) => {
  const source = crossing.source.milestones.get(rule.milestone)
  const target = crossing.target.milestones.get(rule.milestone)
  const byWeek = keepWeek(rule, crossing)
  return draft => {
    if (!source || !target) {
      draft.flags |= bit['no-milestone']
      draft.reasons.push({
        slot: draft.slot,
        code: 'no-milestone',
        before: null,
        after: null,
        names: { milestone: rule.milestone, side: source ? 'target' : 'source' },
      })
      return byWeek(draft)
    }
    draft.day = target.date + (draft.from - source.date)
    draft.reasons.push({
      slot: draft.slot,
      code: 'anchor',
      before: isoOf(draft.from),
      after: isoOf(draft.day),
      names: { milestone: target.name, days: draft.from - source.date, anchor: isoOf(target.date) },
    })
  }
}
