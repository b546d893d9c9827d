import { NIL } from 'uuid'
import { z } from 'zod'
import { counted } from '../dates/words'

/**
 * Grace allowances: how often a student may hand in later without asking, how much later that is each time, and whether several may be
 * spent on one item. At a count of 0 there are none. Common practice, no source: some ten a term, a day each, on ten items or all on one.
 */
export const graceSchema = z.object({
  count: z.int().min(0, 'Not below 0.').max(200, 'At most 200.'),
  /** Civil days that one of them lasts. */
  days: z.int().min(1, 'At least a day.').max(60, 'At most 60 days.'),
  addsUp: z.boolean(),
})
/** Stands where something in a course has a lineage key: a course has them once. */
export const graceKey = NIL
export type Grace = z.output<typeof graceSchema>
export const usualGrace: Grace = { count: 10, days: 1, addsUp: true }

/** `10 allowances of a day each, any number on one item`; null: nothing else was decided. */
export function graceText(grace: Grace | null | undefined): string {
  if (!grace) return 'as the old course has it'
  if (grace.count === 0) return 'none'
  const each = grace.days === 1 ? 'a day' : counted(grace.days, 'day')
  const number = counted(grace.count, 'allowance')
  return `${number} of ${each} each, ${grace.addsUp ? 'any number' : 'at most one'} on one item`
}
