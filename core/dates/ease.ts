import { isoOf, type Day } from '../calendar/day'
import type { Reason } from './reasons'
import { dayOrBlank } from './saying'

/** An item with its placed due day. `weight` (≥ 0, at most four decimals, 1 if absent) is what moving it by a day costs. */
export interface EaseItem {
  readonly id: string
  readonly due: Day
  readonly major?: boolean
  readonly weight?: number
}
export interface EaseLimits {
  /** Days on which items may be due, ascending: usable days within classes, or the section's meeting days. */
  readonly days: readonly Day[]
  /** At most so many on one day; null: no limit. */
  readonly perDay: number | null
  /** At least so many days between one major item and the next; 0 or 1 days apart are all the same for `minGap` ≤ 0. */
  readonly minGap: number
}
/** A constraint that cannot hold, with numbers to say so and, where one exists, the nearest limit that could. */
export interface EaseConflict {
  readonly constraint: 'days' | 'perDay' | 'minGap' | 'together'
  readonly message: string
  readonly couldBe: { perDay: number | null; minGap: number | null }
}
export type Eased =
  | {
      readonly solved: true
      readonly due: Day[]
      readonly cost: number
      readonly reasons: Map<string, Reason>
    }
  | { readonly solved: false; readonly conflict: EaseConflict }

/** A number of a row of numbers, at a place that is in it. Not for `solve`: one function for rows of several types is twice as slow there. */
const at = (numbers: ArrayLike<number>, place: number): number => numbers[place]!
// Costs are summed as whole ten-thousandths: equal costs are then exactly equal.
const scale = 10_000

/**
 * Cheapest completions, from the last day back: `best[k][i][r]` is the least cost of placing items i… on days k…, where the
 * next major item must wait r more days. Each day takes a block of consecutive items, which keeps their order by itself.
 * Time grows with days × items × (minGap + 1) × perDay at most (without a limit per day, that factor falls away), and blocks
 * that cost more than the best so far are not tried.
 */
function solve(
  items: readonly EaseItem[],
  { days, perDay, minGap }: EaseLimits,
): { due: Day[]; cost: number } | null {
  const n = items.length
  const gap = Math.max(0, items.filter(item => item.major).length > 1 ? minGap : 0)
  const wait = gap + 1
  const most = Math.min(perDay ?? n, n)
  const weights = items.map(item => Math.round((item.weight ?? 1) * scale))
  const layer = (n + 1) * wait
  const best = new Float64Array((days.length + 1) * layer).fill(Infinity)
  const taken = new Int32Array(days.length * layer)
  for (let r = 0; r < wait; r++) best[days.length * layer + n * wait + r] = 0

  for (let k = days.length - 1; k >= 0; k--) {
    const day = days[k]!
    const step = k + 1 < days.length ? days[k + 1]! - day : gap
    const here = k * layer
    const next = here + layer
    const afterMajor = Math.max(0, gap - step)
    // From the last item back: with no limit per day, what follows on the same day is known already.
    for (let i = n; i >= 0; i--) {
      for (let r = 0; r < wait; r++) {
        const waiting = Math.max(0, r - step)
        let least = best[next + i * wait + waiting]!
        let block = 0
        if (most >= n) {
          const held = i < n && items[i]!.major && gap > 0
          if (i < n && !(held && r > 0)) {
            const rest = here + (i + 1) * wait + (held ? gap : r)
            const total = weights[i]! * Math.abs(day - items[i]!.due) + best[rest]!
            if (total <= least && total < Infinity) {
              least = total
              block = 1 + taken[rest]!
            }
          }
        } else {
          let cost = 0
          let majors = 0
          for (let t = 1; t <= most && i + t <= n; t++) {
            const item = items[i + t - 1]!
            if (item.major && gap > 0) {
              if (r > 0 || majors > 0) break
              majors = 1
            }
            cost += weights[i + t - 1]! * Math.abs(day - item.due)
            if (cost > least) break
            const total = cost + best[next + (i + t) * wait + (majors ? afterMajor : waiting)]!
            // Among equals the larger block: it puts more items on the earlier day.
            if (total <= least && total < Infinity) {
              least = total
              block = t
            }
          }
        }
        best[here + i * wait + r] = least
        taken[here + i * wait + r] = block
      }
    }
  }
  const cost = best[0]!
  if (cost === Infinity) return null
  const due: Day[] = []
  let r = 0
  for (let k = 0, i = 0; k < days.length && i < n; k++) {
    const block = taken[k * layer + i * wait + r]!
    const step = k + 1 < days.length ? days[k + 1]! - days[k]! : gap
    let majors = false
    for (let t = 0; t < block; t++) {
      due.push(days[k]!)
      if (items[i + t]!.major && gap > 0) majors = true
    }
    i += block
    r = majors ? Math.max(0, gap - step) : Math.max(0, r - step)
  }
  return { due, cost: cost / scale }
}

/**
 * Repairs a crowded plan exactly (`docs/dates.md` §6): new due days that keep the items' order, fall on allowed days, hold
 * both limits, and move as little as possible (least Σ weight·|days moved|); among the best the earliest dates, compared item
 * by item from the first. Without a solution it says which constraint cannot hold, and nothing is changed.
 * `items` are in course order. @throws RangeError for limits or weights that make no sense.
 */
export function ease(items: readonly EaseItem[], limits: EaseLimits): Eased {
  if (limits.perDay !== null && (!Number.isInteger(limits.perDay) || limits.perDay < 1))
    throw new RangeError('perDay must be a whole number of at least 1')
  if (!Number.isInteger(limits.minGap) || limits.minGap < 0)
    throw new RangeError('minGap must be a whole number of days, 0 or more')
  for (const { id, weight = 1 } of items)
    if (!(weight >= 0 && weight <= 1_000_000))
      throw new RangeError(`the weight of ${id} must be between 0 and 1000000`)
  if (items.length === 0) return { solved: true, due: [], cost: 0, reasons: new Map() }
  const solution = solve(items, limits)
  if (!solution) return { solved: false, conflict: explain(items, limits) }
  const crowd = new Map<Day, number>()
  for (const item of items) crowd.set(item.due, (crowd.get(item.due) ?? 0) + 1)
  const allowed = new Set(limits.days)
  const reasons = new Map<string, Reason>()
  items.forEach((item, at) => {
    const due = solution.due[at]
    if (due === undefined || due === item.due) return
    const sameDay = crowd.get(item.due) ?? 1
    const crowded = limits.perDay !== null && sameDay > limits.perDay
    const making = crowded ? 'crowd' : 'room'
    const why = allowed.has(item.due) ? making : 'day'
    reasons.set(item.id, {
      field: 'due',
      code: 'eased',
      before: isoOf(item.due),
      after: isoOf(due),
      details: { why, sameDay, perDay: limits.perDay, days: due - item.due },
    })
  })
  return { solved: true, ...solution, reasons }
}

const plural = (n: number, one: string): string => `${n} ${one}${n === 1 ? '' : 's'}`

/** Whether limits can be held at all: items as early as they can be. */
function feasible(items: readonly EaseItem[], { days, perDay, minGap }: EaseLimits): boolean {
  let k = 0
  let count = 0
  let free = -Infinity
  const gap = Math.max(0, minGap)
  for (const item of items) {
    while (k < days.length && ((perDay !== null && count >= perDay) || (item.major && at(days, k) < free))) {
      k++
      count = 0
    }
    if (k >= days.length) return false
    count++
    if (item.major) free = at(days, k) + gap
  }
  return true
}

function explain(items: readonly EaseItem[], limits: EaseLimits): EaseConflict {
  const { days, perDay, minGap } = limits
  const majors = items.filter(item => item.major).length
  if (days.length === 0)
    return {
      constraint: 'days',
      message: 'There is no day that work may be due on.',
      couldBe: { perDay: null, minGap: null },
    }
  // The smallest limit per day and the largest gap that could hold with everything else as it is.
  const least = (holds: (n: number) => boolean, from: number, to: number): number | null => {
    if (from > to || !holds(to)) return null
    while (from < to) {
      const middle = (from + to) >> 1
      if (holds(middle)) to = middle
      else from = middle + 1
    }
    return from
  }
  const span = days.at(-1)! - at(days, 0) + 1
  const more =
    perDay === null ? null : least(n => feasible(items, { ...limits, perDay: n }), perDay + 1, items.length)
  const less = least(n => feasible(items, { ...limits, minGap: minGap - n }), 1, minGap)
  const couldBe = { perDay: more, minGap: less === null ? null : minGap - less }
  const advice = [
    more !== null && `${more} a day`,
    less !== null && plural(minGap - less, 'day') + ' between major items',
  ]
    .filter(Boolean)
    .join(', or ')
  const would = advice ? ` It would go with ${advice}.` : ''
  if (perDay !== null && !feasible(items, { ...limits, minGap: 0 }))
    return {
      constraint: 'perDay',
      message: `${plural(items.length, 'item')} at ${perDay} a day need ${plural(Math.ceil(items.length / perDay), 'day')}, and there are ${days.length}.${would}`,
      couldBe,
    }
  if (!feasible(items, { ...limits, perDay: null }))
    return {
      constraint: 'minGap',
      message: `${plural(majors, 'major item')} with ${plural(minGap, 'day')} between one and the next do not fit into the ${plural(span, 'day')} from ${dayOrBlank(isoOf(at(days, 0)))} to ${dayOrBlank(isoOf(days.at(-1)!))}.${would}`,
      couldBe,
    }
  return {
    constraint: 'together',
    message: `${perDay} a day and ${plural(minGap, 'day')} between major items cannot both hold in this order.${would}`,
    couldBe,
  }
}
