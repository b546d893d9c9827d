import { weekdayOf, type Day, type Weekday } from '../calendar/day'
import type { Meeting } from '../calendar/schema'
import type { Term } from '../calendar/term'
import type { ZoneRules } from '../calendar/zone'
import type { Rule, SlotName } from './rule'

/** What a step or method noticed. Alphabetical: the order in which a set of them is written. */
export const flagNames = [
  'before-start',
  'break-week',
  'closure-moved',
  'dst-gap',
  'dst-overlap',
  'no-exam-period',
  'no-meetings',
  'no-milestone',
  'on-closure',
  'past-end',
  'reordered',
  'set-by-hand',
  'source-inverted',
  'swap-day',
] as const
export type Flag = (typeof flagNames)[number]
/** Sets of flags are bit masks inside the engine. */
export const bit = Object.fromEntries(flagNames.map((name, at) => [name, 1 << at])) as Readonly<
  Record<Flag, number>
>
const written = new Map<number, readonly Flag[]>()
/** The flags of a mask in alphabetical order. The lists are shared; do not change one. */
export function flagsOf(mask: number): readonly Flag[] {
  let flags = written.get(mask)
  if (!flags) written.set(mask, (flags = Object.freeze(flagNames.filter((_, at) => mask & (1 << at)))))
  return flags
}

export type NameValue = string | number | null
/**
 * One step that made a date: a code, the date (or date-time) before and after it, and the names involved.
 * `core/dates/sentences.ts` writes it as a sentence.
 */
export interface Reason {
  readonly slot: SlotName
  readonly code: string
  readonly before: string | null
  readonly after: string | null
  readonly names?: Readonly<Record<string, NameValue>>
}

/** A slot on its way. Methods and steps change it in place: a plan makes tens of thousands of them. */
export interface Draft {
  readonly slot: SlotName
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
  /** False once a rule gives this slot no date. */
  dated: boolean
}

/** Everything about the two terms and sections that does not change from item to item. */
export interface Crossing {
  readonly source: Term
  readonly target: Term
  readonly sourceMeetings: readonly Meeting[]
  readonly targetMeetings: readonly Meeting[]
  readonly sourceMeetingDays: readonly Day[]
  readonly targetMeetingDays: readonly Day[]
  readonly zone: ZoneRules
}

/** Places one slot: sets `day` (and may flag, note a reason, or take the date away). */
export type Place = (draft: Draft) => void
/** A method: made ready once for a rule and a crossing, then applied to every slot under that rule. */
export type Prepare<R extends Rule> = (rule: R, crossing: Crossing) => Place

/** What weekday w becomes under a rule's table. */
export const turned = (rule: Rule, weekday: Weekday): Weekday => rule.weekdays[`${weekday}`] ?? weekday

export const newDraft = (slot: SlotName, day: Day, minute: number): Draft => ({
  slot,
  from: day,
  fromMinute: minute,
  weekday: weekdayOf(day),
  day,
  minute,
  flags: 0,
  reasons: [],
  dated: true,
})
