import { compare, fraction, over, plus, rounded, sum, times, zero, type Fraction } from './fraction'
import { hundred, type Category, type Item, type Scheme, type Student } from './scheme'
import type { Weights } from './weights'

/** An item that counts for a student, with the points for it. */
interface Scored {
  readonly item: Item
  /** By its place among the items. */
  readonly column: number
  readonly score: Fraction
}
/** What one category comes to for one student. */
export interface CategoryResult {
  readonly category: Category
  readonly kept: readonly Scored[]
  readonly extra: readonly Scored[]
  readonly dropped: readonly Scored[]
  /** As a part of 1; null: nothing was kept. May pass 1. */
  readonly result: Fraction | null
}
/** What a student comes to. */
export interface StudentResult {
  readonly categories: readonly CategoryResult[]
  readonly dropped: readonly string[]
  /** As a part of 1; null: there is none. */
  readonly result: Fraction | null
  readonly letter: string | null
}

const ratio = ({ item, score }: Scored): Fraction => over(score, item.max)
const points = (all: readonly Scored[]): Fraction => sum(all.map(each => each.score))
const maxima = (all: readonly Scored[]): Fraction => sum(all.map(each => each.item.max))

/** What a student has in a category: without exempt items, without those they are excused from; ungraded ones as the scheme says. */
function scoredIn({ items, ungraded }: Scheme, category: Category, { scores }: Student): Scored[] {
  return items.flatMap((item, column) => {
    if (item.category !== category.key || item.exempt) return []
    const score = Object.hasOwn(scores, item.id) ? scores[item.id] : null
    if (score === 'excused') return []
    if (score !== null && score !== undefined) return [{ item, column, score }]
    return ungraded === 'zero' ? [{ item, column, score: zero }] : []
  })
}
/** Takes away so many, the first by an order, one by one and only while more than one is left. */
function drop(
  all: readonly Scored[],
  howMany: number,
  order: (one: Scored, other: Scored) => number,
): Scored[] {
  const most = Math.max(0, Math.min(howMany, all.length - 1))
  return [...all].sort(order).slice(0, most)
}
const without = (all: readonly Scored[], some: readonly Scored[]): Scored[] =>
  all.filter(each => !some.includes(each))
const laterFirst = (one: Scored, other: Scored): number => other.column - one.column
const lowestFirst = (one: Scored, other: Scored): number =>
  compare(ratio(one), ratio(other)) || laterFirst(one, other)
const highestFirst = (one: Scored, other: Scored): number =>
  compare(ratio(other), ratio(one)) || laterFirst(one, other)

/** A category's result for one student (docs/grades.md, section 3). */
function categoryResult(scheme: Scheme, category: Category, student: Student): CategoryResult {
  const all = scoredIn(scheme, category, student)
  const extra = all.filter(each => each.item.extra)
  const counted = without(all, extra)
  const lowest = drop(counted, category.dropLowest, lowestFirst)
  const highest = drop(without(counted, lowest), category.dropHighest, highestFirst)
  const dropped = [...lowest, ...highest]
  const kept = without(counted, dropped)
  return { category, kept, extra, dropped, result: kept.length === 0 ? null : within(category, kept, extra) }
}
function within({ within: how }: Category, kept: readonly Scored[], extra: readonly Scored[]): Fraction {
  if (how === 'points') return over(plus(points(kept), points(extra)), maxima(kept))
  const beside = extra.map(({ item, score }) =>
    over(score, compare(item.max, zero) === 0 ? hundred : item.max),
  )
  return over(plus(sum(kept.map(ratio)), sum(beside)), fraction(BigInt(kept.length)))
}

/** The course's result from those of its categories (docs/grades.md, section 4). */
function courseResult(
  scheme: Scheme,
  weights: Weights,
  categories: readonly CategoryResult[],
): Fraction | null {
  const having = categories.filter(each => each.kept.length > 0)
  if (scheme.by === 'points') {
    if (having.length === 0) return null
    const scores = having.map(each => plus(points(each.kept), points(each.extra)))
    return over(sum(scores), sum(having.map(each => maxima(each.kept))))
  }
  const taking = scheme.ungraded === 'zero' ? categories : having
  const weightOf = (each: CategoryResult): Fraction => weights.of.get(each.category.key) ?? zero
  const total = sum(taking.map(weightOf))
  if (compare(total, zero) === 0) return null
  return over(sum(taking.map(each => times(weightOf(each), each.result ?? zero))), total)
}
/** The letter of a result: by the percentage as it is written. */
function letterOf({ scale, decimals }: Scheme, result: Fraction | null): string | null {
  if (result === null) return null
  const percentage = rounded(times(result, hundred), decimals)
  return scale.find(each => compare(each.from, percentage) <= 0)?.letter ?? null
}

/** What a student comes to under a scheme. */
export function studentResult(scheme: Scheme, weights: Weights, student: Student): StudentResult {
  const categories = scheme.categories
    .filter(category => !category.exempt)
    .map(category => categoryResult(scheme, category, student))
  const dropped = new Set(categories.flatMap(each => each.dropped.map(({ item }) => item.id)))
  const result = courseResult(scheme, weights, categories)
  return {
    categories,
    dropped: scheme.items.map(item => item.id).filter(id => dropped.has(id)),
    result,
    letter: letterOf(scheme, result),
  }
}
