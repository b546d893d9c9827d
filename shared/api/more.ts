import { z } from 'zod'
import { courseLine, lineage } from './courses'

/** What of the course that a shell was filled from is not in it yet. */
export const moreReply = z.object({
  source: courseLine.nullable(),
  units: z.array(z.object({ lineage, title: z.string(), items: z.int() })),
})
export type MoreReply = z.infer<typeof moreReply>
export const moreWanted = z.object({ unit: lineage })
