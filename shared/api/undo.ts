import { z } from 'zod'
import { studentDataNames } from '../../core/student-data/student-data'
import { courseLine, id, lineage } from './courses'

/** What happened in a course since a run, or since it was undone: what going back would take away. */
export const since = z.object({
  /** Changes that were made in the course itself, the latest first. */
  edits: z.array(z.object({ id, by: z.string(), at: z.string(), words: z.string() })),
  /** What students did on items that go, item by item. */
  work: z.array(
    z.object({
      lineage,
      title: z.string(),
      kinds: z.array(z.object({ kind: z.enum(studentDataNames), rows: z.int() })),
    }),
  ),
  /** Whose work that is, by name. */
  students: z.array(z.string()),
  /** Students who were there before and did more since: in place their old work and the new cannot be told apart. */
  mixed: z.array(z.string()),
})
export type Since = z.infer<typeof since>
const held = z.object({ units: z.int(), items: z.int() })
/** What undoing a run, or putting an undone one back, would do. */
export const undoReply = z.object({
  does: z.enum(['undo', 'redo']),
  /** Why it cannot be done; null where it can. */
  barred: z.object({ title: z.string(), detail: z.string() }).nullable(),
  /** The run into the course since, where that is why. */
  later: z.object({ id, by: z.string(), at: z.string() }).nullable(),
  mayRun: z.boolean(),
  course: courseLine,
  /** Sections that show the course's content: what they show changes with it. */
  sections: z.array(z.string()),
  planId: id,
  /** What the course holds, and what it will hold. */
  now: held,
  then: held,
  since,
  /** Rows about students that the run cleared and that are put back; null of those that are kept no longer. */
  cleared: z.int().nullable(),
  days: z.int(),
  /** Stands for all of this: what somebody consents to. */
  fingerprint: z.string(),
  history: z.array(z.object({ kind: z.enum(['undo', 'redo']), by: z.string(), at: z.string() })),
})
export type UndoReply = z.infer<typeof undoReply>
export const undoRequest = z.object({
  fingerprint: z.string(),
  /** Students' work is kept aside; without this an undo that would touch any is refused. */
  keepAside: z.boolean().default(false),
})
export type UndoRequest = z.infer<typeof undoRequest>
