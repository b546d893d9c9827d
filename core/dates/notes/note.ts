import type { Day } from '../../calendar/day'
import type { Meeting } from '../../calendar/schema'
import type { Term } from '../../calendar/term'
import type { DateField, ItemDates } from '../../course/dates'

/** An item as it stands, with what the checks must know of it. */
export interface StandingItem extends ItemDates {
  readonly id: string
  readonly kind: string
}
/** What dates are looked at against. */
export interface NoteContext {
  readonly term: Term
  readonly meetings: readonly Meeting[]
  /** The days on which students may enter; null ends are open. */
  readonly window: { readonly from: Day | null; readonly to: Day | null }
  /** Kinds of which nearly all items are due on meeting days. */
  readonly kindsOnMeetings: ReadonlySet<string>
  readonly isMeetingDay: (day: Day) => boolean
}
/** Something to look at in a date that stands; it moves nothing and bars nothing. */
export interface Found {
  readonly field: DateField
  readonly message: string
}
/** One way of looking at an item's dates (`docs/dates.md` §5, checks of what stands). */
export interface NoteCheck {
  /** In a word or two, for a row. */
  readonly short: string
  readonly look: (item: StandingItem, context: NoteContext) => Found[]
}
export const noteCheck = (check: NoteCheck): NoteCheck => check
