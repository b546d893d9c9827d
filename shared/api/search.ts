import { z } from 'zod'
import { itemKinds } from '../../core/course/model'
import { courseLine, id, lineage } from './courses'

export const searchQuery = z.object({
  q: z.string().max(200, 'At most 200 characters.'),
  kind: z.enum(itemKinds).optional(),
  term: z.string().max(190).optional(),
  course: id.optional(),
})
export type SearchQuery = z.infer<typeof searchQuery>
/** One title with one text, and where it stands: the latest term first. */
export const find = z.object({
  title: z.string(),
  kind: z.enum(itemKinds),
  /** Bytes of its text or file. */
  size: z.int(),
  snippet: z.array(z.object({ text: z.string(), isWord: z.boolean() })),
  places: z.array(z.object({ course: courseLine, lineage, unit: z.string().nullable() })),
  /** In so many more courses than are told. */
  more: z.int(),
})
export type Find = z.infer<typeof find>
export const searchReply = z.object({
  finds: z.array(find),
  /** More was found than is told. */
  isMore: z.boolean(),
  /** Nothing was looked for: no word is long enough. */
  isTooShort: z.boolean(),
})
export type SearchReply = z.infer<typeof searchReply>
