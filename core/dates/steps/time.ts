import { minuteOf, wallOf } from '../../calendar/day'
import { lastAtOrBefore } from '../../calendar/term'
import type { Crossing, Draft } from '../draft'
import type { SlotStep } from './step'

function meetingMinute(crossing: Crossing, draft: Draft, end: boolean): number | null {
  const days = crossing.targetMeetingDays
  const at = lastAtOrBefore(days, draft.day)
  if (at < 0 || days[at] !== draft.day) return null
  const weekday = crossing.target.timetableWeekday(draft.day)
  let earliest: { start: string; end: string } | null = null
  for (const entry of crossing.targetMeetings)
    if (entry.weekday === weekday && (!earliest || entry.start < earliest.start)) earliest = entry
  return earliest && minuteOf(end ? earliest.end : earliest.start, 0)
}

/** The time of day: kept, given, or that of the class meeting on that date. */
export const time: SlotStep = (draft, rule, crossing) => {
  const policy = rule.times[draft.slot]
  const kept = rule.method === 'span' ? (draft.slot === 'opens' ? 0 : 1439) : draft.fromMinute
  let minute = kept
  let code = 'time-kept'
  if (policy === 'class-start' || policy === 'class-end') {
    const met = meetingMinute(crossing, draft, policy === 'class-end')
    minute = met ?? kept
    code = met === null ? 'no-meeting-that-day' : policy
  } else if (policy !== 'keep') {
    minute = minuteOf(policy, 0)
    code = 'time-given'
  } else if (rule.method === 'span') code = 'time-of-span'
  const before = wallOf(draft.day, draft.fromMinute)
  draft.minute = minute
  draft.reasons.push({
    slot: draft.slot,
    code,
    before,
    after: minute === draft.fromMinute ? before : wallOf(draft.day, minute),
  })
}
