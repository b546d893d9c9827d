import { z } from 'zod'
import { saidFields, sayingKinds } from '../../core/gather/saying'
import { filledLine, line } from '../../core/text'
import { id } from './courses'

const label = (what: string, most: number) => filledLine(most, `Give ${what}.`)
const key = z.string().max(1000)
/** A package as a course, alone or together with other files of the person. */
export const courseImport = z.object({
  as: z.literal('course'),
  term: label('the term', 190),
  code: label('a code', 40),
  section: line(40),
  title: label('a title', 500),
  /** Files that say more of it. */
  beside: z.array(id).max(20, 'At most 20 files at once.').default([]),
  /** Lines of these files paired by hand (`sayingKey`), each with an item's identifier; null: with none. */
  pairs: z.record(key, key.nullable()).default({}),
  /** Which file is believed of a field of an item (`fieldKey`), where that is not the one that wins unasked. */
  choices: z.record(key, z.string().max(200)).default({}),
})
export type CourseImport = z.output<typeof courseImport>

const values = z.partialRecord(z.enum(saidFields), z.string().nullable())
/** Items of a package, and what other files say of them: what `core/gather` puts together. */
export const gatherReply = z.object({
  items: z.array(
    z.object({
      identifier: z.string(),
      resource: z.string().nullable(),
      title: z.string(),
      kind: z.string(),
      values,
    }),
  ),
  files: z.array(
    z.object({
      id,
      name: z.string(),
      as: z.enum(['line-items', 'course-json', 'sheet']),
      sayings: z.array(
        z.object({
          kind: z.enum(sayingKinds),
          file: z.string(),
          where: z.string(),
          identifier: z.string().nullable(),
          title: z.string(),
          values,
        }),
      ),
      /** Cells of a sheet that say nothing which could be read. */
      unread: z.array(z.object({ row: z.int(), title: z.string(), column: z.string(), cell: z.string() })),
    }),
  ),
})
export type GatherReply = z.infer<typeof gatherReply>
