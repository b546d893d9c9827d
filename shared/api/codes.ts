import { z } from 'zod'
import { filledLine, line } from '../../core/text'
import { seasons } from '../../core/pairing/codes'

/** How course codes are read, and which new code stands for an old one. */
export const codeRules = z.object({
  patterns: z
    .array(
      z.object({
        text: line(200),
        seasons: z.record(filledLine(6, 'Give the spelling.'), z.enum(seasons)),
      }),
    )
    .max(30, 'At most 30 patterns.'),
  mapped: z
    .array(
      z.object({
        from: filledLine(40, 'Give the old code.'),
        to: filledLine(40, 'Give the new code.'),
      }),
    )
    .max(5000, 'At most 5000.'),
})
export type CodeRules = z.infer<typeof codeRules>
export const codesReply = z.object({
  revision: z.int(),
  rules: codeRules,
  saved: z.object({ by: z.string(), at: z.string() }).nullable(),
  may: z.object({ edit: z.boolean() }),
  /** Every term, the latest first, to try a code of it. */
  terms: z.array(z.object({ name: z.string(), classesFrom: z.string() })),
  /** The codes of the courses that the person may read, to try rules on. */
  codes: z.array(
    z.object({
      code: z.string(),
      title: z.string(),
      term: z.object({ name: z.string(), classesFrom: z.string() }),
    }),
  ),
})
export type CodesReply = z.infer<typeof codesReply>
export const codesSaved = z.object({ revision: z.int() })
