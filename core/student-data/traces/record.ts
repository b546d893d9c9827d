import { z } from 'zod'
import { tracePlaceNames } from './markup'
import { lookedSchema } from './trace'

/** What a run's record says of traces of students. It names none of them. */
export const traceRecord = z.object({
  looked: lookedSchema.omit({ passedOver: true, unseen: true }),
  /** Files that came though they could not be looked into, why they could not, how many bytes they have, and who said so. */
  unseen: z
    .array(z.object({ title: z.string(), why: z.string(), size: z.int(), by: z.string() }))
    .default([]),
  /** How many were taken out, or became “a student”. */
  out: z.int(),
  /** How many stay that are probably only words, or somebody else. */
  passed: z.int().default(0),
  /** Those that stay, where, and why. */
  kept: z.array(
    z.object({ title: z.string(), place: z.enum(tracePlaceNames), because: z.string(), by: z.string() }),
  ),
  /** Found when the shell's text was searched again, beside those that stay: 0 but for what somebody wrote in the plan. */
  left: z.int(),
  /** Tables that were asked for rows about last term’s students, and how many such rows stand in the course, none of them new. */
  tables: z.object({ asked: z.int(), rows: z.int() }).default({ asked: 0, rows: 0 }),
})
export type TraceRecord = z.infer<typeof traceRecord>
