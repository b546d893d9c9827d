/** An exact number: a ratio of two whole ones, in lowest terms, `below` above 0. */
export interface Fraction {
  readonly above: bigint
  readonly below: bigint
}
const commonDivisor = (one: bigint, other: bigint): bigint => {
  let [a, b] = [one < 0n ? -one : one, other]
  while (b > 0n) [a, b] = [b, a % b]
  return a
}
/** @throws where it is divided by nothing */
export function fraction(above: bigint, below = 1n): Fraction {
  if (below === 0n) throw new RangeError('divided by nothing')
  const sign = below < 0n ? -1n : 1n
  const shared = commonDivisor(above, below * sign) || 1n
  return { above: (above * sign) / shared, below: (below * sign) / shared }
}
export const zero = fraction(0n)
export const plus = (one: Fraction, other: Fraction): Fraction =>
  fraction(one.above * other.below + other.above * one.below, one.below * other.below)
export const minus = (one: Fraction, other: Fraction): Fraction =>
  plus(one, { above: -other.above, below: other.below })
export const times = (one: Fraction, other: Fraction): Fraction =>
  fraction(one.above * other.above, one.below * other.below)
/** @throws where it is divided by nothing */
export const over = (one: Fraction, other: Fraction): Fraction =>
  fraction(one.above * other.below, one.below * other.above)
export const sum = (all: readonly Fraction[]): Fraction => all.reduce(plus, zero)
/** Below 0: `one` is less; 0: they are equal; above 0: it is more. */
export function compare(one: Fraction, other: Fraction): number {
  const difference = one.above * other.below - other.above * one.below
  return difference < 0n ? -1 : difference > 0n ? 1 : 0
}
/** The largest whole number that is not above it; of what is not negative. */
export const whole = ({ above, below }: Fraction): bigint => above / below

/** A decimal text without a sign, such as `17.5`, exactly. Null where it is none, or has more than four digits after the point. */
export function decimal(text: string): Fraction | null {
  const [, units, digits = ''] = /^(\d+)(?:\.(\d{1,4}))?$/.exec(text) ?? []
  return units === undefined ? null : fraction(BigInt(units + digits), 10n ** BigInt(digits.length))
}
/** Rounded half up to so many digits after the point; of what is not negative. */
export const rounded = (value: Fraction, decimals: number): Fraction => {
  const scale = 10n ** BigInt(decimals)
  return fraction(whole(plus(times(value, fraction(scale)), fraction(1n, 2n))), scale)
}
/** Rounded half up, and written with just so many digits after the point. */
export function decimalText(value: Fraction, decimals: number): string {
  const scale = 10n ** BigInt(decimals)
  const digits = String(whole(times(rounded(value, decimals), fraction(scale)))).padStart(decimals + 1, '0')
  return decimals === 0 ? digits : `${digits.slice(0, -decimals)}.${digits.slice(-decimals)}`
}
/** Of what has four digits after the point at most: two of them, and further ones only as needed. */
export const weightText = (value: Fraction): string => decimalText(value, 4).replace(/0{1,2}$/, '')
