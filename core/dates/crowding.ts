import { dayOf, isoOf, type Day } from '../calendar/day'
import type { WallTime } from '../calendar/schema'
import { weekFirst, type Term } from '../calendar/term'
import { ease, type EaseConflict, type EaseItem } from './ease'
import type { Reason } from './reasons'
import { dayOrBlank } from './saying'

/** How much is too much, and what each kind weighs. */
export interface Crowding {
  /** At most so many items due on one day; null: no limit. */
  readonly perDay: number | null
  /** At most so much due in one week, in the weight of its items; null: no limit. */
  readonly perWeek: number | null
  /** At least so many days between one exam and the next; 0: no matter. */
  readonly minGap: number
  /** What an item of a kind weighs where it is not 1; what weighs nothing is not counted and never moved. */
  readonly weights: Readonly<Record<string, number>>
  /** Where Ease may put work: on usable days, or on the section's meeting days. */
  readonly days: 'usable' | 'meetings'
}
/** What a plan begins with (common practice, no source). */
export const usualCrowding: Crowding = {
  perDay: 3,
  perWeek: null,
  minGap: 0,
  weights: {},
  days: 'usable',
}
export interface CrowdItem {
  readonly id: string
  readonly kind: string
  readonly exam: boolean
  readonly due: WallTime | null
  /** Held by hand: Ease leaves it where it is. */
  readonly held: boolean
}
export const weightOf = ({ weights }: Pick<Crowding, 'weights'>, kind: string): number => weights[kind] ?? 1

/** What is due on a day or in a week (named by its first day). */
export interface Load {
  readonly first: Day
  readonly ids: readonly string[]
  readonly weight: number
}
function loads(
  items: readonly CrowdItem[],
  crowding: Pick<Crowding, 'weights'>,
  placeOf: (day: Day) => Day,
): Map<Day, Load> {
  const found = new Map<Day, { first: Day; ids: string[]; weight: number }>()
  for (const { id, kind, due } of items) {
    const weight = weightOf(crowding, kind)
    if (due === null || weight === 0) continue
    const first = placeOf(dayOf(due))
    const load = found.get(first) ?? { first, ids: [], weight: 0 }
    load.ids.push(id)
    load.weight += weight
    found.set(first, load)
  }
  return found
}
/** What is due on each day, by day; days with nothing due are absent. */
export const loadByDay = (items: readonly CrowdItem[], crowding: Pick<Crowding, 'weights'>): Map<Day, Load> =>
  loads(items, crowding, day => day)
/** What is due in each week, by the week's first day; weeks with nothing due are absent. */
export const loadByWeek = (
  items: readonly CrowdItem[],
  crowding: Pick<Crowding, 'weights'>,
  { weekStart }: Pick<Term, 'weekStart'>,
): Map<Day, Load> => loads(items, crowding, day => weekFirst(weekStart, day))

const inDayOrder = (found: Iterable<Load>): Load[] => [...found].sort((a, b) => a.first - b.first)
/** Days and weeks with more than the limits allow, in order. */
export function crowdedIn(
  items: readonly CrowdItem[],
  crowding: Crowding,
  term: Pick<Term, 'weekStart'>,
): { days: Load[]; weeks: Load[] } {
  const { perDay, perWeek } = crowding
  const days = [...loadByDay(items, crowding).values()]
  const weeks = [...loadByWeek(items, crowding, term).values()]
  return {
    days: inDayOrder(days.filter(({ ids }) => perDay !== null && ids.length > perDay)),
    weeks: inDayOrder(weeks.filter(({ weight }) => perWeek !== null && weight > perWeek)),
  }
}

/** A due day that Ease would change. `cost`: its weight times the days it moves. */
export interface EaseMove {
  readonly id: string
  readonly from: Day
  readonly to: Day
  readonly cost: number
  readonly reason: Reason
}
export type EaseProposal =
  | { readonly solved: true; readonly moves: readonly EaseMove[]; readonly cost: number }
  | { readonly solved: false; readonly conflict: Pick<EaseConflict, 'message'> }

/** What holds an item in its place: no number of other moves costs as much. */
const heldWeight = 1_000_000
/**
 * How a crowded plan could be eased (`docs/dates.md` §6): `items` in course order. Items keep the order of their due dates, those
 * of one moment their order in the course. Looked at is what is due within classes and weighs something; what is held stays, or it is said that it
 * cannot.
 */
export function proposeEase(
  items: readonly CrowdItem[],
  crowding: Crowding,
  term: Pick<Term, 'classes' | 'classDays'>,
  meetings: readonly Day[],
): EaseProposal {
  const { from, to } = term.classes
  const days = crowding.days === 'meetings' ? meetings : term.classDays
  const allowed = new Set(days)
  const eased = items
    .flatMap(({ id, kind, exam, due, held }) => {
      const weight = weightOf(crowding, kind)
      const day = due === null ? null : dayOf(due)
      if (due === null || day === null || weight === 0 || day < from || day > to) return []
      // What is held where no work may go is out of reach; it takes no other's place there.
      if (held && !allowed.has(day)) return []
      const item: EaseItem = { id, due: day, major: exam, weight: held ? heldWeight : weight }
      return [{ item, due, held }]
    })
    .sort((a, b) => Number(a.due > b.due) - Number(a.due < b.due))
  const solution = ease(
    eased.map(({ item }) => item),
    { days, perDay: crowding.perDay, minGap: crowding.minGap },
  )
  if (!solution.solved) return { solved: false, conflict: solution.conflict }
  const moves = eased.flatMap(({ item, held }, index): (EaseMove & { held: boolean })[] => {
    const day = solution.due[index]
    const reason = solution.reasons.get(item.id)
    if (day === undefined || !reason) return []
    const cost = (item.weight ?? 1) * Math.abs(day - item.due)
    return [{ id: item.id, from: item.due, to: day, cost, reason, held }]
  })
  const torn = moves.find(move => move.held)
  if (torn)
    return {
      solved: false,
      conflict: {
        message: `Too much is held around ${dayOrBlank(isoOf(torn.from))}. Let one of those dates go, or allow more on a day.`,
      },
    }
  return { solved: true, moves: moves.map(({ held: _, ...move }) => move), cost: solution.cost }
}

/**
 * Which of some pairs (before, after) are out of order: as few as possible, so that the others, taken in the order of `before`,
 * do not go back in `after`. (A longest run that does not fall: common knowledge, patience sorting.)
 */
export function outOfOrder<T extends { readonly before: string; readonly after: string }>(
  pairs: readonly T[],
): Set<T> {
  const sorted = [...pairs].sort((a, b) => {
    if (a.before !== b.before) return a.before < b.before ? -1 : 1
    return Number(a.after > b.after) - Number(a.after < b.after)
  })
  const ends: number[] = []
  const previous: number[] = []
  sorted.forEach(({ after }, index) => {
    let [low, high] = [0, ends.length]
    while (low < high) {
      const middle = (low + high) >> 1
      if ((sorted[ends[middle] ?? 0]?.after ?? '') <= after) low = middle + 1
      else high = middle
    }
    previous.push(ends[low - 1] ?? -1)
    ends[low] = index
  })
  const kept = new Set<T>()
  for (let at = ends.at(-1) ?? -1; at >= 0; at = previous[at] ?? -1) {
    const pair = sorted[at]
    if (pair) kept.add(pair)
  }
  return new Set(pairs.filter(pair => !kept.has(pair)))
}
