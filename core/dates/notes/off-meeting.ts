import { dayOf } from '../../calendar/day'
import { dayText } from '../words'
import { noteCheck } from './note'

/** Others of its kind are due on days on which the section meets, and this one is not. */
export const offMeeting = noteCheck({
  short: 'no meeting that day',
  look: ({ kind, due }, { kindsOnMeetings, isMeetingDay }) => {
    if (due === null || !kindsOnMeetings.has(kind) || isMeetingDay(dayOf(due))) return []
    return [
      {
        field: 'due',
        message: `Others of its kind are due when the class meets; on ${dayText(due)} it does not.`,
      },
    ]
  },
})
