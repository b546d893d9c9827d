import type { TenThousandths } from '../grading/points'

/** How work is marked: criteria, each with levels and what they are worth. Nothing in it is about a student. */
export interface Rubric {
  readonly lineage: string
  readonly identifier: string
  readonly title: string
  readonly criteria: readonly Criterion[]
}
export interface Criterion {
  readonly title: string
  readonly levels: readonly { readonly title: string; readonly points: TenThousandths }[]
}
/** A group that work is for, by its name. Who is in it is student data and no part of a course's content. */
export interface WorkGroup {
  readonly lineage: string
  readonly identifier: string
  readonly title: string
}

/** What stands around the units of a course, in the order shown; of some a course has one alone. */
export const furnishings = {
  home: { words: 'home page', isOne: true },
  navigation: { words: 'navigation', isOne: true },
  contact: { words: 'contact card', isOne: true },
  reference: { words: 'reference page', isOne: false },
  picture: { words: 'course picture', isOne: true },
  syllabus: { words: 'syllabus', isOne: true },
  material: { words: 'required material', isOne: false },
} as const
export type FurnishingName = keyof typeof furnishings
export const furnishingNames = Object.keys(furnishings) as FurnishingName[]
/** One thing around the units: the item it shows, where it shows one, and what else is known of it by name. */
export interface Furnishing {
  readonly lineage: string
  readonly part: FurnishingName
  readonly title: string
  /** Lineage key of the page or file that it is. */
  readonly item: string | null
  readonly details: Readonly<Record<string, string>>
}
