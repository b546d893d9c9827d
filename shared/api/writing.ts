import { z } from 'zod'

/** How far a run is, in its order. `waits`: nobody has begun it yet. */
export const runSteps = ['waits', 'reads', 'writes', 'checks'] as const
export type RunStep = (typeof runSteps)[number]
/** Who writes into a course, since when, and how far that is: so many of so many things. */
export const writingNow = z
  .object({
    by: z.string(),
    since: z.string(),
    step: z.enum(runSteps),
    done: z.int(),
    total: z.int(),
    /** By which plan; and whether a mail tells when it is done. */
    plan: z.uuid(),
    mails: z.boolean(),
  })
  .nullable()
export type WritingNow = z.infer<typeof writingNow>
/** What came of a run that wrote nothing: it failed, or somebody stopped it. */
export const runOutcome = z
  .object({ state: z.enum(['failed', 'cancelled']), title: z.string(), detail: z.string(), at: z.string() })
  .nullable()
export type RunOutcome = z.infer<typeof runOutcome>
