import { z } from 'zod'
import { filledLine, line } from '../../core/text'
import { desks, missingReasons } from '../../core/pairing/missing'
import { id } from './courses'

export const missingQuestion = z.object({
  term: filledLine(190, 'Choose the term.'),
  code: filledLine(60, 'Give the course code, like HYD 240.'),
  section: line(20).default(''),
})
export type MissingQuestion = z.infer<typeof missingQuestion>
/**
 * Why a shell is not there; `desk`: who can help. `courseId`: the shell, where the person may see it. `mails`: whether mail is set up.
 * `resembling`: of a code that no course has, those that look like it; null of a known code.
 */
export const missingReply = z.object({
  reason: z.enum(missingReasons),
  desk: z.enum(desks).nullable(),
  section: z.string().nullable(),
  courseId: id.nullable(),
  mails: z.boolean(),
  resembling: z.array(z.string()).nullable(),
})
export type MissingReply = z.infer<typeof missingReply>
export const newRequest = missingQuestion.extend({
  words: z.string().trim().max(2000, 'At most 2 000 characters.').default(''),
})
export type NewRequest = z.infer<typeof newRequest>
export const requestChange = z.object({
  do: z.enum(['close', 'answer', 'send-again']),
  answer: z.string().trim().max(2000).default(''),
})
export type RequestChange = z.infer<typeof requestChange>
export const requestLine = z.object({
  id,
  own: z.boolean(),
  by: z.string(),
  desk: z.enum(desks),
  reason: z.enum(missingReasons),
  term: z.object({ code: z.string(), name: z.string() }),
  code: z.string(),
  section: z.string(),
  words: z.string(),
  state: z.enum(['open', 'arrived', 'answered', 'closed']),
  answer: z.string().nullable(),
  courseId: id.nullable(),
  createdAt: z.string(),
  updatedAt: z.string(),
  mail: z.object({ state: z.enum(['waiting', 'sent', 'failed']), problem: z.string().nullable() }).nullable(),
})
export const requestsReply = z.object({
  may: z.object({ answer: z.boolean() }),
  requests: z.array(requestLine),
})
export type RequestsReply = z.infer<typeof requestsReply>
