import { dayOf } from '../../calendar/day'
import { dateFields } from '../../course/dates'
import { dayText } from '../words'
import { noteCheck } from './note'

const verbs = { opens: 'opens', due: 'is due', closes: 'closes' }

/** A date on a day on which no class meets because of a closure. An opening there does no harm. */
export const inClosure = noteCheck({
  short: 'on a closure',
  look: (item, { term }) =>
    dateFields
      .filter(field => field !== 'opens')
      .flatMap(field => {
        const at = item[field]
        const closure = at === null ? undefined : term.closureOn(dayOf(at))
        if (at === null || !closure) return []
        return [{ field, message: `It ${verbs[field]} on ${dayText(at)}: ${closure.name || 'no classes'}.` }]
      }),
})
