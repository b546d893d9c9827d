import { weekdayOf, type Day, type Weekday } from '../../calendar/day'
import type { Meeting } from '../../calendar/schema'
import type { Term } from '../../calendar/term'
import type { NoDate } from './no-date'

/** What a typed date is understood by. */
export interface TypedContext {
  /** The term that the date is for; null where a field belongs to none. */
  readonly term: Term | null
  /** When the section meets. */
  readonly meetings: readonly Meeting[]
  /** What stands in the field: its time is kept, and `+2d` counts from it. */
  readonly was: { readonly day: Day; readonly minute: number } | null
  /** The time of day where none stands and none is typed; null where the field holds a day without a time. */
  readonly usualMinute: number | null
  readonly today: Day
}

/** What was understood of a text, before it counts. */
export type Understood =
  | {
      readonly is: 'date'
      readonly day: Day
      /** Minutes after midnight; null for a day without a time. */
      readonly minute: number | null
      /** Whether that time stood there before. */
      readonly kept: boolean
      /** Whether the day is so far from the term that one is asked twice. */
      readonly unlikely: boolean
    }
  /** The text says that there be no date. */
  | { readonly is: 'none' }
  /** Day and month can be read either way. */
  | { readonly is: 'which'; readonly days: readonly [Day, Day]; readonly minute: number | null }
  | { readonly is: 'no-date'; readonly why: NoDate }

/** What one way of saying a day comes to. `minute`: a time that goes with it, unless another was typed. */
export type Said =
  | { readonly day: Day; readonly minute?: number }
  | { readonly days: readonly [Day, Day] }
  | { readonly why: NoDate }

/** Understands one way of saying a day; null for a text that says it in another. The text is in lower case, single-spaced, without a time. */
export type DayReader = (text: string, context: TypedContext) => Said | null

const weekdayWords = ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun']
/** A weekday as people write it: `fri`, `Friday`, `thurs`. */
export const weekdayPattern =
  '(mon(?:day)?|tues?(?:day)?|wed(?:nesday)?|thu(?:rs?)?(?:day)?|fri(?:day)?|sat(?:urday)?|sun(?:day)?)'
export const weekdayOfWord = (word: string): Weekday =>
  (weekdayWords.indexOf(word.slice(0, 3)) + 1) as Weekday

/** The first day from `from` on that is a weekday. */
export const onOrAfter = (from: Day, weekday: Weekday): Day => from + ((weekday - weekdayOf(from) + 7) % 7)
export const onOrBefore = (from: Day, weekday: Weekday): Day => from - ((weekdayOf(from) - weekday + 7) % 7)
