import { dayOf } from '../calendar/day'
import { dateFields, dateVerbs } from '../course/dates'
import { dayText, yearsOf } from '../dates/words'
import { check } from './check'

/** A date on a day on which no class meets because of a closure. An opening there does no harm. */
export const datesClosure = check({
  title: 'Due in a closure',
  short: 'on a closure',
  grave: 'look',
  mends: 'Move it to the next or the last day with classes',
  knows: ['calendar'],
  find: ({ nodes, calendar: { term } }) =>
    nodes.flatMap(node =>
      dateFields
        .filter(field => field !== 'opens')
        .flatMap(field => {
          const at = node[field]
          const closure = at === null ? undefined : term.closureOn(dayOf(at))
          if (at === null || !closure) return []
          const sentence = `It ${dateVerbs[field]} on ${dayText(at, yearsOf(term))}: ${closure.name || 'no classes'}.`
          return [{ lineage: node.lineage, field, sentence }]
        }),
    ),
})
