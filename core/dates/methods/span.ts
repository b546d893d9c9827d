import { z } from 'zod'
import { isoOf } from '../../calendar/day'
import type { DateField } from '../../course/dates'
import type { DateMethod } from '../method'
import { reason } from '../reason'
import { dayOrBlank } from '../saying'

const parameters = {
  /** Through classes, or through the days on which students may enter the course. */
  basis: z
    .enum(['classes', 'course'], { error: 'must be classes or course' })
    .nullish()
    .transform(value => value ?? ('classes' as const)),
}
const verbs: Record<DateField, string> = { opens: 'Opens', due: 'Due', closes: 'Closes' }
const reasons = {
  span: reason<{ basis: 'classes' | 'course' }>({
    short: 'all term',
    sentence: ({ field, after, details: { basis } }) => {
      const end = field === 'opens' ? 'first' : 'last'
      const day =
        basis === 'classes' ? `${end} day of classes` : `${end} day on which students may enter the course`
      return `${verbs[field]} on the ${day}, ${dayOrBlank(after)}.`
    },
  }),
}

/** Open throughout: opens on the first day of classes (or of the course), due and closed on the last. */
export const span: DateMethod<'span', typeof parameters, typeof reasons> = {
  name: 'span',
  title: 'Open all term',
  line: 'opens on the first day, due on the last',
  parameters,
  reasons,
  asks: [
    {
      as: 'choice',
      name: 'basis',
      words: 'through',
      options: { classes: 'classes', course: 'the days on which students may enter' },
    },
  ],
  ownDays: { minutes: { opens: 0, due: 23 * 60 + 59, closes: 23 * 60 + 59 } },
  prepare(rule, { target, targetWindow }) {
    const window = rule.basis === 'course' ? targetWindow : null
    const { from, to } = window ?? target.classes
    const details = { basis: window ? 'course' : 'classes' } as const
    return draft => {
      draft.day = draft.field === 'opens' ? from : to
      draft.movable = window === null
      const [before, after] = [isoOf(draft.from), isoOf(draft.day)]
      draft.reasons.push({ field: draft.field, code: 'span', before, after, details })
    }
  },
}
