import { dayOf } from '../calendar/day'
import type { Term } from '../calendar/term'
import { dateFields, type DateField } from '../course/dates'
import { isFarFrom } from '../dates/far'
import type { Saying } from './saying'

/** When a course was taught. */
export type Taught = Pick<Term, 'classes' | 'exams'>
/** A date that cannot be meant: it lies more than two years from the term. */
export interface FarDate extends Pick<Saying, 'file' | 'where' | 'title'> {
  readonly field: DateField
  readonly value: string
}
/** Sayings without the dates in them that cannot be meant, and those; null: it is not known when the course was taught. */
export function withoutFar(
  sayings: readonly Saying[],
  taught: Taught | null,
): { sayings: readonly Saying[]; far: readonly FarDate[] } {
  if (taught === null) return { sayings, far: [] }
  const far = sayings.flatMap(({ file, where, title, values }): FarDate[] =>
    dateFields.flatMap(field => {
      const value = values[field]
      return value && isFarFrom(taught, dayOf(value)) ? [{ file, where, title, field, value }] : []
    }),
  )
  if (far.length === 0) return { sayings, far }
  const isFar = (saying: Saying, field: string): boolean =>
    far.some(each => each.field === field && each.file === saying.file && each.where === saying.where)
  return {
    sayings: sayings.map(saying => ({
      ...saying,
      values: Object.fromEntries(Object.entries(saying.values).filter(([field]) => !isFar(saying, field))),
    })),
    far,
  }
}
