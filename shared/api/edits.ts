import { z } from 'zod'
import { madeThing } from '../../core/carry/added'
import { filledLine } from '../../core/text'
import { id, lineage, wall } from './courses'

/** One change of what a course holds, made in the course itself. */
export const courseEdit = z.discriminatedUnion('does', [
  z.object({
    does: z.literal('rename'),
    /** New names, by lineage. */
    titles: z
      .record(lineage, filledLine(500, 'Give it a name.'))
      .refine(titles => Object.keys(titles).length > 0, 'Name at least one thing.'),
  }),
  z.object({
    does: z.literal('move'),
    lineage,
    /** The unit that it stands in then; null: outside the units. */
    parent: lineage.nullable(),
    /** What it stands right after there; null: before all others. */
    after: lineage.nullable(),
  }),
  z.object({
    does: z.literal('add'),
    thing: madeThing,
    parent: lineage.nullable(),
    category: lineage.nullable().default(null),
    opens: wall.default(null),
    due: wall.default(null),
  }),
])
export type CourseEdit = z.output<typeof courseEdit>
export type NewCourseEdit = z.input<typeof courseEdit>
export const editDone = z.object({
  id,
  /** The key of what was added, or of what was moved; null for new names. */
  lineage: lineage.nullable(),
})
export type EditDone = z.infer<typeof editDone>
export const editsReply = z.object({
  /** The latest first; those that were taken back are left out. */
  edits: z.array(z.object({ id, at: z.string(), by: z.string(), words: z.string() })),
})
export type EditsReply = z.infer<typeof editsReply>
