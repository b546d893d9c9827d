import { isoOf, type Day } from '../../calendar/day'
import { bit, type Crossing, type Draft, type Flag, type NameValue } from '../draft'
import type { Rule } from '../rule'

/** A step after placing, taken for every slot that has a date. */
export type SlotStep = (draft: Draft, rule: Rule, crossing: Crossing) => void

/** Moves a draft to another day, flags it and notes why. */
export function move(
  draft: Draft,
  day: Day,
  flag: Flag,
  code: string,
  names?: Record<string, NameValue>,
): void {
  const before = isoOf(draft.day)
  draft.day = day
  draft.flags |= bit[flag]
  draft.reasons.push({ slot: draft.slot, code, before, after: isoOf(day), names })
}
