import { decimalText, times, weightText, type Fraction } from './fraction'
import { studentResult } from './result'
import { hundred, type GradeCase } from './scheme'
import { weightsOf } from './weights'

/** What a case of grades comes to, as text (docs/grades.md, section 5). */
export interface GradesTold {
  weights: { key: string; weight: string }[]
  sum: string
  conflict: string | null
  students: {
    id: string
    categories: Record<string, string | null>
    dropped: string[]
    result: string | null
    letter: string | null
  }[]
}
/** Reckons a case: the weights as given or made to reach a sum, and what each student comes to. Rounded only where it is written. */
export function reckon({ scheme, rescale, students }: GradeCase): GradesTold {
  const weights = weightsOf(scheme.categories, rescale)
  const percent = (result: Fraction | null): string | null =>
    result && decimalText(times(result, hundred), scheme.decimals)
  return {
    weights: [...weights.of].map(([key, weight]) => ({ key, weight: weightText(weight) })),
    sum: weightText(weights.sum),
    conflict: weights.conflict,
    students: students.map(student => {
      const { categories, dropped, result, letter } = studentResult(scheme, weights, student)
      return {
        id: student.id,
        categories: Object.fromEntries(categories.map(each => [each.category.key, percent(each.result)])),
        dropped: [...dropped],
        result: percent(result),
        letter,
      }
    }),
  }
}
