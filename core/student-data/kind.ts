import type { z } from 'zod'
import type { WallTime } from '../calendar/schema'
import type { Row } from '../formats/oneroster/tables'

/** What the columns of student data hold; a `?` after it: may be empty. */
interface ColumnValues {
  /** A stamp of the database, in UTC. */
  instant: string
  'civil date': string
  'wall time': WallTime
  /** Points as the database keeps them: text with four decimals. */
  decimal: string
  'whole number': number
  text: string
}
type ColumnType = keyof ColumnValues | `${keyof ColumnValues}?`
export type Columns = Readonly<Record<string, ColumnType>>
type ValueOf<T extends ColumnType> = T extends `${infer Full extends keyof ColumnValues}?`
  ? ColumnValues[Full] | null
  : T extends keyof ColumnValues
    ? ColumnValues[T]
    : never
/** The values of some columns, by their names. */
export type ValuesOf<C extends Columns> = { [Name in keyof C]: ValueOf<C[Name]> }

/** One thing a student did or was given, before it is known which enrolment and which item it is about. */
export interface StudentRecord<C extends Columns = Columns> {
  /** sourcedId of the student. */
  readonly student: string
  /** Identifier of the item in the file it came from; null: it is about the course. */
  readonly item: string | null
  readonly values: ValuesOf<C>
  /** What the student wrote: kept as a body. */
  readonly text?: string
}
export interface RecordContext {
  /** A wall-clock date-time of the course as a stamp of the database. */
  readonly instant: (wall: WallTime) => string
}

interface Common<C extends Columns> {
  /** Its name in the API and in course JSON, and the name of its table. */
  readonly name: string
  readonly words: readonly [one: string, many: string]
  /** Why it does not belong in a new term: what would go wrong. */
  readonly why: string
  /** Whether one student may have several of them for one item. Then its rows have an id of their own. */
  readonly several: boolean
  /** Whether each is about an item, or may be about the course as a whole. */
  readonly about: 'item' | 'course'
  /** Columns of its table beyond `enrolment_id` and `item_lineage` (and `id`, and `body_hash` where it has a text). */
  readonly columns: C
  /** Whether what the student wrote is kept as a body. */
  readonly text: boolean
}
/** A kind that a course JSON carries, under its name. */
export interface FromCourseJson<C extends Columns, E extends z.ZodType> extends Common<C> {
  readonly from: 'course JSON'
  readonly entry: E
  readonly read: (entry: z.output<E>, context: RecordContext) => StudentRecord<C>
}
/** A kind that a OneRoster bundle carries, as results of line items. */
export interface FromResults<C extends Columns> extends Common<C> {
  readonly from: 'results.csv'
  readonly read: (result: Row<'results'>) => ValuesOf<C>
}

/** What the types of rows are made of: kept as the very values that a definition says. */
interface Literals {
  readonly name: string
  readonly several: boolean
  readonly about: 'item' | 'course'
  readonly text: boolean
}
/** A kind of student data that course JSON carries. None of any kind crosses in a rollover. */
export const fromCourseJson = <const L extends Literals, const C extends Columns, E extends z.ZodType>(
  kind: Omit<FromCourseJson<C, E>, 'from'> & L,
) => ({ ...kind, from: 'course JSON' as const })
/** A kind of student data that a OneRoster bundle carries. */
export const fromResults = <const L extends Literals, const C extends Columns>(
  kind: Omit<FromResults<C>, 'from'> & L,
) => ({ ...kind, from: 'results.csv' as const })
