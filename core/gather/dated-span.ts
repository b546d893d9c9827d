import { dayOf } from '../calendar/day'

/** Days from the middle one within which a course's dates lie: one that lies further off is a slip, not its first day or its last. */
const daysAround = 366
/** First and last of the days on which a course has something (ISO days, in any order), but for those far from the rest; null: there is none. */
export function datedSpan(days: readonly string[]): { from: string; to: string } | null {
  const sorted = [...days].sort()
  const middle = sorted[Math.floor(sorted.length / 2)]
  if (middle === undefined) return null
  const near = sorted.filter(day => Math.abs(dayOf(day) - dayOf(middle)) <= daysAround)
  const [from, to] = [near[0], near.at(-1)]
  return from && to ? { from, to } : null
}
