import { isoOf, type Day } from '../../calendar/day'
import type { Crossing, Draft } from '../draft'
import { bit, type Flag } from '../flags'
import type { NoParameters, PlacingMethod } from '../method'
import type { ReasonDefinitions } from '../reason'
import type { RuleCommon } from '../rule-common'

/** What a step needs to know of the method that placed a date. */
export type Placing = Pick<PlacingMethod<string, NoParameters, ReasonDefinitions>, 'ownDays'>
/** A step after placing, taken for every date there is. */
export type Step = (draft: Draft, rule: RuleCommon, crossing: Crossing, method: Placing) => void

/** Moves a draft to another day and flags it; returns the day before and after for the reason that follows. */
export function move(draft: Draft, day: Day, flag: Flag): { before: string; after: string } {
  const before = isoOf(draft.day)
  draft.day = day
  draft.flags |= bit[flag]
  return { before, after: isoOf(day) }
}
