import type { DateField } from '../course/dates'
import type { Windows } from '../pairing/windows'

/** `must`: students would be harmed or misled; `look`: a person should say whether it is meant. */
export type Grave = 'must' | 'look'
/** What a finding is about: a thing of the course by its key, or (null) the course itself; and which of its dates. */
export interface Where {
  readonly lineage: string | null
  readonly field: DateField | keyof Windows | null
}
/** Something that a check noticed: it changes nothing and bars nothing. */
export interface Finding {
  /** By which check, and what that finds in a word or two, for a row. */
  readonly check: string
  readonly short: string
  readonly grave: Grave
  readonly where: Where
  readonly sentence: string
  /** What mends it, as one would tell it: `Put the dates in order`. */
  readonly mends: string
}
/** What a check says of one finding; the rest is the check's own. */
export interface Found {
  readonly lineage: string | null
  readonly field?: Where['field']
  readonly sentence: string
  /** Where one is graver than the check's others, or has a shorter name of its own. */
  readonly grave?: Grave
  readonly short?: string
}
