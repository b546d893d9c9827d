import { countsOf, totalOf, type StudentDataCounts } from '~~/core/student-data/student-data'
import type { PlanReply } from '~~/shared/api/plans'

/** What all sources of a plan together hold about students; what a course that is only shared holds is not told. */
export function studentDataHeld({ source, more }: Pick<PlanReply, 'source' | 'more'>): {
  counts: StudentDataCounts
  total: number
} {
  const sides = [source, ...more]
  const counts = countsOf(kind => sides.reduce((sum, side) => sum + side.studentData[kind], 0))
  return { counts, total: totalOf(counts) }
}
