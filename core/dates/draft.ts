import { weekdayOf, type Day, type Weekday } from '../calendar/day'
import type { Meeting } from '../calendar/schema'
import { meetingDays, type Term } from '../calendar/term'
import type { ZoneRules } from '../calendar/zone'
import type { DateField } from '../course/dates'
import type { Reason } from './reasons'

/** A date on its way. Methods and steps change it in place: a plan makes tens of thousands of them. */
export interface Draft {
  readonly field: DateField
  /** Source day and minutes after midnight. */
  readonly from: Day
  readonly fromMinute: number
  /** ISO weekday of the source date. */
  readonly weekday: Weekday
  day: Day
  minute: number
  /** Bit mask of flags. */
  flags: number
  readonly reasons: Reason[]
  /** False once a rule takes the date away. */
  dated: boolean
  /** False where the placed day stands as it is: neither the bounds of classes nor closures move it. */
  movable: boolean
}

/** Everything about the two terms and sections that does not change from item to item. */
export interface Crossing {
  readonly source: Term
  readonly target: Term
  readonly sourceMeetings: readonly Meeting[]
  readonly targetMeetings: readonly Meeting[]
  readonly sourceMeetingDays: readonly Day[]
  readonly targetMeetingDays: readonly Day[]
  /** The first and the last day on which students may enter the new course, where that is known. */
  readonly targetWindow: { readonly from: Day; readonly to: Day } | null
  /** Wall-clock irregularities of the target's zone. */
  readonly zone: ZoneRules
}
export const crossingOf = (
  input: Omit<Crossing, 'sourceMeetingDays' | 'targetMeetingDays' | 'targetWindow'> &
    Partial<Pick<Crossing, 'targetWindow'>>,
): Crossing => ({
  source: input.source,
  target: input.target,
  sourceMeetings: input.sourceMeetings,
  targetMeetings: input.targetMeetings,
  sourceMeetingDays: meetingDays(input.source, input.sourceMeetings),
  targetMeetingDays: meetingDays(input.target, input.targetMeetings),
  targetWindow: input.targetWindow ?? null,
  zone: input.zone,
})

export const newDraft = (field: DateField, day: Day, minute: number): Draft => ({
  field,
  from: day,
  fromMinute: minute,
  weekday: weekdayOf(day),
  day,
  minute,
  flags: 0,
  reasons: [],
  dated: true,
  movable: true,
})
