import { z } from 'zod'
import { isoOf } from '../../calendar/day'
import { bit } from '../flags'
import type { DateMethod } from '../method'
import { reason } from '../reason'
import { distanceText, dayOrBlank } from '../saying'
import { byWeek } from './keep-week'

const parameters = { milestone: z.string({ error: 'must name the key of a milestone' }) }
const around = { after: 'after', before: 'before', on: 'on the day of' }
const reasons = {
  anchor: reason<{ milestone: string; days: number; anchor: string }>({
    short: 'by milestone',
    sentence: ({ before, after, details: { milestone, days, anchor } }) =>
      `Was ${dayOrBlank(before)}, ${distanceText(days, around)} “${milestone}”. That is ${dayOrBlank(anchor)} now, which gives ${dayOrBlank(after)}.`,
  }),
  'no-milestone': reason<{ milestone: string; side: 'source' | 'target' }>({
    sentence: ({ details: { milestone, side } }) =>
      `The ${side === 'source' ? 'old' : 'new'} term has no milestone “${milestone}”, so the teaching week decides.`,
  }),
}

/** As many days from a milestone as it was from the same milestone of the source. */
export const anchor: DateMethod<'anchor', typeof parameters, typeof reasons> = {
  name: 'anchor',
  title: 'As far from a milestone',
  line: 'counts from a milestone of the term',
  parameters,
  reasons,
  asks: [{ as: 'milestone', name: 'milestone', words: 'from' }],
  beginsWith({ source, target }) {
    const shared = [...source.milestones.keys()].find(key => target.milestones.has(key))
    return shared === undefined ? null : { milestone: shared }
  },
  prepare(rule, crossing) {
    const source = crossing.source.milestones.get(rule.milestone)
    const target = crossing.target.milestones.get(rule.milestone)
    const fallBack = byWeek(rule, crossing)
    return draft => {
      const { field } = draft
      if (!source || !target) {
        const details = { milestone: rule.milestone, side: source ? 'target' : 'source' } as const
        draft.flags |= bit['no-milestone']
        draft.reasons.push({ field, code: 'no-milestone', before: null, after: null, details })
        return fallBack(draft)
      }
      const days = draft.from - source.date
      draft.day = target.date + days
      draft.reasons.push({
        field,
        code: 'anchor',
        before: isoOf(draft.from),
        after: isoOf(draft.day),
        details: { milestone: target.name, days, anchor: isoOf(target.date) },
      })
    }
  },
}
