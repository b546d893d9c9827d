import { z } from 'zod'
import { id } from './courses'

/** What happened in a shell since a run, or since it was undone: what an undo would take away. */
export const since = z.object({
  /** Changes that were made in the course itself, the latest first. */
  edits: z.array(z.object({ by: z.string(), at: z.string(), words: z.string() })),
  /** What students did on what would go, item by item. */
  work: z.array(
    z.object({
      item: z.string(),
      kinds: z.array(z.object({ kind: z.string(), rows: z.int(), students: z.int() })),
    }),
  ),
  /** Names of the students whose work that is. */
  students: z.array(z.string()),
})
export type Since = z.infer<typeof since>
void id
