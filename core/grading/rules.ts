import type { TenThousandths } from './points'

/** How a course's grades are reckoned (docs/grades.md), but for its categories. */
export interface GradeRules {
  readonly by: 'weights' | 'points'
  /** What is not graded yet: left out, or counted as nothing. */
  readonly ungraded: 'skip' | 'zero'
  readonly decimals: number
  /** From the best letter down to one that begins at 0; empty: no letters. */
  readonly scale: readonly { readonly from: TenThousandths; readonly letter: string }[]
}
export const plainRules: GradeRules = { by: 'weights', ungraded: 'skip', decimals: 2, scale: [] }

/** How a category's items make its result. */
export interface CategoryRules {
  readonly within: 'points' | 'equal'
  readonly dropLowest: number
  readonly dropHighest: number
  readonly exempt: boolean
}
export const plainCategory: CategoryRules = {
  within: 'points',
  dropLowest: 0,
  dropHighest: 0,
  exempt: false,
}
/** A category as a course has it, in column order. */
export interface CategoryLine extends CategoryRules {
  /** The identifier it had in the file it came from. */
  readonly identifier: string | null
  readonly lineage: string
  readonly title: string
  readonly weight: TenThousandths | null
  /** The institution's: no rollover changes it. */
  readonly fixed: boolean
}
