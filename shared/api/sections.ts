import { z } from 'zod'
import { itemKinds } from '../../core/course/model'
import { courseLine, lineage } from './courses'

/** A thing of a section that goes when it shows another's content. */
export const leaving = z.object({
  lineage,
  title: z.string(),
  type: z.enum(['unit', 'item']),
  kind: z.enum(itemKinds).nullable(),
})
/** Sections that show one content, and those that could. */
export const sectionsReply = z.object({
  /** The course whose content it is. */
  content: courseLine,
  shown: z.array(z.object({ course: courseLine, mayUnlink: z.boolean() })),
  could: z.array(z.object({ course: courseLine, faults: z.array(z.string()), leaves: z.array(leaving) })),
})
export type SectionsReply = z.infer<typeof sectionsReply>
export const linkRequest = z.object({
  /** Keys of all that goes from the section: what the person has seen. */
  agreed: z.array(lineage).max(20_000, 'At most 20 000 things.'),
})
