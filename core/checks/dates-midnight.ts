import { dayOf, isoOf } from '../calendar/day'
import { dayText } from '../dates/words'
import { check } from './check'

/** Due at 00:00: which day do students think it is? (Common practice, no source.) */
export const datesMidnight = check({
  title: 'Due at midnight',
  short: 'at midnight',
  grave: 'look',
  mends: 'Make it 23:59 the day before',
  knows: [],
  find: ({ nodes }) =>
    nodes.flatMap(({ lineage, due }) => {
      if (due?.slice(11) !== '00:00') return []
      const before = dayText(isoOf(dayOf(due) - 1))
      const sentence = `It is due ${dayText(due)} at 00:00: students may think that it is due at the end of that day, not of ${before}.`
      return [{ lineage, field: 'due' as const, sentence }]
    }),
})
