import { compare, fraction, minus, over, sum, times, whole, zero, type Fraction } from './fraction'
import type { Category, Rescale } from './scheme'

/** Weights by category, exempt ones 0; and why they could not be made to reach what was wished (they are then as given). */
export interface Weights {
  readonly of: ReadonlyMap<string, Fraction>
  readonly sum: Fraction
  readonly conflict: string | null
}
const unit = fraction(1n, 100n)

const asGiven = (categories: readonly Category[]): Map<string, Fraction> =>
  new Map(categories.map(each => [each.key, each.exempt ? zero : each.weight]))
const told = (of: ReadonlyMap<string, Fraction>, conflict: string | null): Weights => ({
  of,
  sum: sum([...of.values()]),
  conflict,
})

/**
 * Gives out so many units in proportion to some shares by largest remainder: each gets its part rounded down, then the units left over go
 * one each to those with the largest remainder, earlier ones first among equals.
 */
export function largestRemainder(units: bigint, shares: readonly Fraction[]): bigint[] {
  const total = sum(shares)
  const exact = shares.map(share => over(times(fraction(units), share), total))
  const given = exact.map(whole)
  const left = Number(units - given.reduce((all, each) => all + each, 0n))
  const byRemainder = exact
    .map((part, at) => ({ at, remainder: minus(part, fraction(whole(part))) }))
    .sort((one, other) => compare(other.remainder, one.remainder) || one.at - other.at)
  for (const { at } of byRemainder.slice(0, left)) given[at] = (given[at] ?? 0n) + 1n
  return given
}

/** Weights as given, or made to reach a sum exactly in units of 0.01 (docs/grades.md, section 2). */
export function weightsOf(categories: readonly Category[], rescale: Rescale | null): Weights {
  const given = asGiven(categories)
  if (!rescale) return told(given, null)
  const held = new Set(rescale.hold)
  const taking = categories.filter(each => !each.exempt)
  const others = taking.filter(each => !held.has(each.key))
  const kept = sum(taking.filter(each => held.has(each.key)).map(each => each.weight))
  const rest = minus(rescale.to, kept)
  if (compare(rest, zero) < 0)
    return told(given, 'The weights that are held are more than the sum that is wished.')
  if (others.length === 0)
    return compare(rest, zero) === 0
      ? told(given, null)
      : told(
          given,
          'The weights that are held do not make the sum that is wished, and there is no other to take the rest.',
        )
  const weights = others.map(each => each.weight)
  const inEqualParts = rescale.equal || compare(sum(weights), zero) === 0
  const parts = largestRemainder(
    whole(over(rest, unit)),
    inEqualParts ? others.map(() => fraction(1n)) : weights,
  )
  for (const [at, each] of others.entries()) given.set(each.key, times(fraction(parts[at] ?? 0n), unit))
  return told(given, null)
}
