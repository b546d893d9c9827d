import { isoOf } from '../../calendar/day'
import { reason } from '../reason'
import { dayOrBlank } from '../saying'
import { move, type Step } from './step'

export const boundsReasons = {
  'before-start': reason<{ start: string }>({
    short: 'before the start',
    sentence: ({ before, after, details: { start } }) =>
      `${dayOrBlank(before)} is before classes start on ${dayOrBlank(start)}, so it is ${dayOrBlank(after)}, the first class day.`,
  }),
  'past-end': reason<{ end: string }>({
    short: 'past the end',
    sentence: ({ before, after, details: { end } }) =>
      `${dayOrBlank(before)} is after classes end on ${dayOrBlank(end)}, so it is ${dayOrBlank(after)}, the last class day.`,
  }),
}

/** What was within the source's classes stays within the target's: due and closes not before them, nothing after them. */
export const bounds: Step = (draft, _rule, { source, target }) => {
  if (!draft.movable) return
  if (draft.from < source.classes.from || draft.from > source.classes.to) return
  const { field } = draft
  if (field !== 'opens' && draft.day < target.classes.from) {
    const details = { start: isoOf(target.classes.from) }
    const days = move(draft, target.firstClassDay, 'before-start')
    draft.reasons.push({ field, code: 'before-start', ...days, details })
  }
  if (draft.day > target.classes.to) {
    const details = { end: isoOf(target.classes.to) }
    const days = move(draft, target.lastClassDay, 'past-end')
    draft.reasons.push({ field, code: 'past-end', ...days, details })
  }
}
