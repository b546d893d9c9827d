import { minuteOf, wallOf } from '../../calendar/day'
import { lastAtOrBefore } from '../../calendar/term'
import type { Crossing, Draft } from '../draft'
import { reason } from '../reason'
import type { TimePolicy } from '../rule-common'
import { timeOrBlank } from '../saying'
import type { Placing, Step } from './step'

export const timeReasons = {
  'time-kept': reason({ sentence: ({ after }) => `The time is kept, ${timeOrBlank(after)}.` }),
  'time-given': reason({ sentence: ({ after }) => `The rule sets the time, ${timeOrBlank(after)}.` }),
  'time-of-span': reason({
    sentence: ({ after }) => `From the first minute to the last: ${timeOrBlank(after)}.`,
  }),
  'class-start': reason({ sentence: ({ after }) => `Class starts at ${timeOrBlank(after)} that day.` }),
  'class-end': reason({ sentence: ({ after }) => `Class ends at ${timeOrBlank(after)} that day.` }),
  'no-meeting-that-day': reason({
    sentence: ({ after }) =>
      `There is no class meeting that day, so the time is kept, ${timeOrBlank(after)}.`,
  }),
}

/** When the earliest class meeting of a day starts or ends, in minutes after midnight; null where there is none. */
function meetingMinute(crossing: Crossing, draft: Draft, end: 'start' | 'end'): number | null {
  const days = crossing.targetMeetingDays
  if (days[lastAtOrBefore(days, draft.day)] !== draft.day) return null
  const weekday = crossing.target.timetableWeekday(draft.day)
  const [earliest] = crossing.targetMeetings
    .filter(meeting => meeting.weekday === weekday)
    .sort((a, b) => (a.start < b.start ? -1 : 1))
  return earliest ? minuteOf(earliest[end], 0) : null
}

interface Chosen {
  minute: number
  code: keyof typeof timeReasons
}
function chosenTime(policy: TimePolicy, draft: Draft, crossing: Crossing, method: Placing): Chosen {
  const kept = method.ownDays ? method.ownDays.minutes[draft.field] : draft.fromMinute
  if (policy === 'keep') return { minute: kept, code: method.ownDays ? 'time-of-span' : 'time-kept' }
  if (policy !== 'class-start' && policy !== 'class-end')
    return { minute: minuteOf(policy, 0), code: 'time-given' }
  const met = meetingMinute(crossing, draft, policy === 'class-end' ? 'end' : 'start')
  return met === null ? { minute: kept, code: 'no-meeting-that-day' } : { minute: met, code: policy }
}

/** The time of day: kept, given, or that of the class meeting on that date. */
export const time: Step = (draft, rule, crossing, method) => {
  const { minute, code } = chosenTime(rule.times[draft.field], draft, crossing, method)
  const before = wallOf(draft.day, draft.fromMinute)
  draft.minute = minute
  const after = minute === draft.fromMinute ? before : wallOf(draft.day, minute)
  draft.reasons.push({ field: draft.field, code, before, after })
}
