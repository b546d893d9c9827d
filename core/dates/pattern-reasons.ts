import { reason } from './reason'
import { fieldWord, dayOrBlank, momentOrBlank } from './saying'
import { weekdayName } from './words'

/** Why a date that a pattern made is what it is. `wanted`: the teaching week the pattern asks for, `week` the one there is. */
export const patternReasons = {
  pattern: reason<{
    unit: number
    week: number
    wanted: number
    weekday: number
    weekStarts: string
    time: string
  }>({
    short: 'by pattern',
    sentence: ({ field, after, details: { unit, week, wanted, weekday, weekStarts } }) => {
      const place =
        wanted === week
          ? `teaching week ${week}`
          : `teaching week ${week}, the last, in place of week ${wanted}`
      return `Unit ${unit}: ${fieldWord[field]} on the ${weekdayName(weekday)} of ${place}, which starts ${dayOrBlank(weekStarts)}: ${momentOrBlank(after)}.`
    },
  }),
}
