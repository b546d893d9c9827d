import { z } from 'zod'
import { keptDays } from '../../core/student-data/clearing'
import { studentDataNames } from '../../core/student-data/student-data'
import { courseLine, id, lineage } from './courses'

/** What of student data may be cleared in the course that a plan writes, row by row and person by person. */
export const clearingReply = z.object({
  rows: z.array(
    z.object({
      kind: z.enum(studentDataNames),
      item: lineage.nullable(),
      enrolment: id,
      isStudent: z.boolean(),
      rows: z.int(),
    }),
  ),
  people: z.array(
    z.object({
      enrolment: id,
      name: z.string(),
      origin: z.enum(['registrar', 'hand']),
      isGone: z.boolean(),
    }),
  ),
  /** How many days what is cleared is kept aside. */
  days: z.int(),
})
export type ClearingReply = z.infer<typeof clearingReply>
export const clearingsReply = z.object({
  clearings: z.array(
    z.object({
      id,
      by: z.string(),
      clearedAt: z.string(),
      keepUntil: z.string(),
      state: z.enum(['kept', 'restored', 'destroyed']),
      endedAt: z.string().nullable(),
      rows: z.int(),
      people: z.int(),
    }),
  ),
})
export type ClearingsReply = z.infer<typeof clearingsReply>

export const keepRules = z.object({
  days: z
    .int('Give a whole number of days.')
    .min(keptDays.least, `At least ${keptDays.least} days.`)
    .max(keptDays.most, `At most ${keptDays.most} days.`),
})
export const keepRulesReply = z.object({
  revision: z.int(),
  days: z.int(),
  by: z.object({ name: z.string(), at: z.string() }).nullable(),
})
export type KeepRules = z.infer<typeof keepRulesReply>
/** Courses that were rolled in place, in which last term's students still stand. */
export const sweepReply = z.object({
  courses: z.array(z.object({ course: courseLine, students: z.int(), rows: z.int() })),
  days: z.int(),
})
export type SweepReply = z.infer<typeof sweepReply>
export const sweepRequest = z.object({
  courses: z.array(id).min(1, 'Choose a course.').max(500, 'At most five hundred courses.'),
})
export const sweepDone = z.object({ courses: z.int(), people: z.int() })
