import { dayOf, isoOf } from '../../calendar/day'
import { dateFields } from '../../course/dates'
import { dayText, momentText } from '../words'
import { noteCheck, type Found } from './note'

const verbs = { opens: 'opens', due: 'is due', closes: 'closes' }

/** A date on which students may not enter the course. What opens before they may does no harm. */
export const outsideWindows = noteCheck({
  short: 'students cannot enter',
  look: (item, { window: { from, to } }) =>
    dateFields.flatMap((field): Found[] => {
      const at = item[field]
      if (at === null) return []
      const day = dayOf(at)
      if (to !== null && day > to)
        return [
          {
            field,
            message: `It ${verbs[field]} ${momentText(at)}; students can enter to ${dayText(isoOf(to))}.`,
          },
        ]
      if (from !== null && day < from && field !== 'opens')
        return [
          {
            field,
            message: `It ${verbs[field]} ${momentText(at)}; students can enter from ${dayText(isoOf(from))}.`,
          },
        ]
      return []
    }),
})
