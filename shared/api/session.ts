import { z } from 'zod'

export const signIn = z.object({
  login: z.string().trim().min(1, 'Give your sign-in name.').max(190),
  password: z.string().min(1, 'Give your password.').max(1000),
})
/** Who is signed in, and what day it is here. */
export const sessionReply = z.object({
  person: z
    .object({ id: z.uuid(), name: z.string(), duties: z.array(z.enum(['coordinator', 'office'])) })
    .nullable(),
  clock: z.object({ instant: z.string(), timeZone: z.string(), fixed: z.boolean() }),
})
export type SessionReply = z.infer<typeof sessionReply>
/** An error as RFC 9457 has it, with the fields that are wrong. */
export const problem = z.object({
  type: z.string(),
  title: z.string(),
  status: z.int(),
  detail: z.string().optional(),
  errors: z.array(z.object({ field: z.string(), message: z.string() })).optional(),
})
export type ProblemBody = z.infer<typeof problem>
