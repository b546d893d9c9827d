import { z } from 'zod'
import type { FromCourseJson, FromResults, Columns } from './kind'
import { studentDataKinds } from './kinds'

type Kinds = typeof studentDataKinds
export type StudentDataName = keyof Kinds
/** A kind where it does not matter which. */
export type AnyStudentDataKind = (FromCourseJson<Columns, z.ZodType> | FromResults<Columns>) & {
  readonly name: StudentDataName
}

/** The names of all kinds, in the order shown. */
export const studentDataNames = Object.keys(studentDataKinds) as StudentDataName[]
/** All kinds, in the order shown. */
export const allStudentData = Object.values(studentDataKinds) as unknown as AnyStudentDataKind[]

type Counted = StudentDataName | 'students'
/** How much of each kind there is, and how many students are on the roster. */
export type StudentDataCounts = Record<Counted, number>
/** Something for every kind and for the roster, each as `of` says. */
export const mapCounts = <T>(of: (name: Counted) => T): Record<Counted, T> =>
  Object.fromEntries((['students', ...studentDataNames] as const).map(name => [name, of(name)])) as Record<
    Counted,
    T
  >
/** Counts of every kind, each as `count` says. */
export const countsOf = (count: (name: Counted) => number): StudentDataCounts => mapCounts(count)
/** Things that are known of students, all kinds together; the roster is not among them. */
export const totalOf = (counts: StudentDataCounts): number =>
  studentDataNames.reduce((sum, name) => sum + counts[name], 0)

type NameFromJson = {
  [N in StudentDataName]: Kinds[N] extends { from: 'course JSON' } ? N : never
}[StudentDataName]
type EntryOf<N extends NameFromJson> = Kinds[N]['entry']
/** The lists that a course JSON may hold, one for each kind that it carries. */
export const courseJsonLists = Object.fromEntries(
  allStudentData.flatMap(kind =>
    kind.from === 'course JSON' ? [[kind.name, z.array(kind.entry).default([])]] : [],
  ),
) as unknown as { [N in NameFromJson]: z.ZodDefault<z.ZodArray<EntryOf<N>>> }

/** What a count of some kind is called, for one and for many. */
export const studentDataWords = (name: StudentDataName): readonly [one: string, many: string] =>
  studentDataKinds[name].words
