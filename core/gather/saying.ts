import type { WallTime } from '../calendar/day'
import { dateFields, usualTimes, type DateField } from '../course/dates'

/** What several files may each say of an item. */
export const saidFields = [...dateFields, 'points', 'category', 'gradingPeriod'] as const
export type SaidField = (typeof saidFields)[number]
export const saidFieldWords: Readonly<Record<SaidField, string>> = {
  opens: 'opens',
  due: 'due',
  closes: 'closes',
  points: 'points',
  category: 'category',
  gradingPeriod: 'grading period',
}
/** Dates as wall times, or as days where a file gives no time; points as a decimal, categories and grading periods by their titles. Null: the file says that there is none. */
export type SaidValues = Readonly<Partial<Record<SaidField, string | null>>>

/** What kind of file says something, from the one that wins to the one that gives way where two say different things. */
export const sayingKinds = ['sheet', 'course-json', 'line-items', 'package'] as const
export type SayingKind = (typeof sayingKinds)[number]
export type SaidBy = Readonly<Partial<Record<SaidField, SayingKind>>>
/** What one line of one file says of one item. */
export interface Saying {
  readonly kind: SayingKind
  readonly file: string
  /** Where it stands in the file: a sourcedId, a row, an identifier; once in a file. */
  readonly where: string
  /** The identifier by which it names the item; null: by its title alone. */
  readonly identifier: string | null
  readonly title: string
  readonly values: SaidValues
}
/** A saying's key among all of them. */
export const sayingKey = ({ file, where }: Pick<Saying, 'file' | 'where'>): string => `${file}\n${where}`

/** Stands for a course itself among the files that say something of its items. */
export const courseItself = 'the course'
/** An item of a package, or of a course that is there, as sayings meet it. */
export interface GatheredItem {
  readonly identifier: string
  readonly resource: string | null
  readonly title: string
  readonly kind: string
  readonly values: SaidValues
  /** Fields that somebody changed in the course since a file brought them: there the course stands first. */
  readonly touched?: readonly SaidField[]
  /** What kind of file brought a field of an item of a course: one that counts less does not take its place unasked. */
  readonly by?: SaidBy
}
export const isDay = (value: string): boolean => /^\d{4}-\d\d-\d\d$/.test(value)
/** A date with its time of day: a usual one where the file gives none. */
export const asWall = (field: DateField, value: string): WallTime =>
  (isDay(value) ? `${value}T${usualTimes[field]}` : value) as WallTime
/** Whether two files say the same: a day alone agrees with any time of that day. */
export function saysSame(a: string | null, b: string | null): boolean {
  if (a === null || b === null) return a === b
  return isDay(a) || isDay(b) ? a.slice(0, 10) === b.slice(0, 10) : a === b
}
