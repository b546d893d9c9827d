import { z } from 'zod'
import { lookedSchema, traceSchema } from '../../core/student-data/traces/trace'

/** What was found of students in what a plan carries. `none`: the plan was run, and its record tells. */
export const tracesReply = z.object({
  state: z.enum(['searching', 'done', 'none']),
  found: z.array(traceSchema),
  looked: lookedSchema.nullable(),
})
export type TracesReply = z.infer<typeof tracesReply>
