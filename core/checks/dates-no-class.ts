import { dayOf } from '../calendar/day'
import { dayText } from '../dates/words'
import { check } from './check'

/** Others of its kind are due on days on which the section meets, and this one is not. */
export const datesNoClass = check({
  title: 'Due on a day without a meeting',
  short: 'no meeting that day',
  grave: 'look',
  mends: 'Move it to its nearest meeting',
  knows: ['calendar'],
  find: ({ nodes, calendar: { kindsOnMeetings, isMeetingDay } }) =>
    nodes.flatMap(({ lineage, kind, due }) =>
      due === null || !kindsOnMeetings.has(kind ?? '') || isMeetingDay(dayOf(due))
        ? []
        : [
            {
              lineage,
              field: 'due' as const,
              sentence: `Others of its kind are due when the class meets; on ${dayText(due)} it does not.`,
            },
          ],
    ),
})
