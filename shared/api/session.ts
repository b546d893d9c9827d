import { z } from 'zod'

export const signInWish = z.object({
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
/** Where one is signed in. */
export const signInsReply = z.object({
  login: z.string(),
  signIns: z.array(
    z.object({
      id: z.uuid(),
      device: z.string(),
      startedAt: z.string(),
      seenAt: z.string(),
      /** The one by which this was asked. */
      isThis: z.boolean(),
    }),
  ),
})
export type SignInsReply = z.infer<typeof signInsReply>
const newPassword = z.string().min(1, 'Give the new password.').max(1000)
export const passwordChange = z.object({
  current: z.string().min(1, 'Give your password of now.').max(1000),
  password: newPassword,
})
/** A link to set a password: sent by mail, or (`link`) to be handed over. */
export const invitationReply = z.object({
  days: z.int(),
  mailedTo: z.string().nullable(),
  link: z.string().nullable(),
})
export type InvitationReply = z.infer<typeof invitationReply>
const secret = z.string().min(1, 'Open the whole link.').max(200)
export const invitationQuestion = z.object({ secret })
export const invitationUse = z.object({ secret, password: newPassword })
/** Whom a link invites. */
export const invitedReply = z.object({ name: z.string(), login: z.string() })
export type InvitedReply = z.infer<typeof invitedReply>
/** An error as RFC 9457 has it, with the fields that are wrong. */
export const problem = z.object({
  type: z.string(),
  title: z.string(),
  status: z.int(),
  detail: z.string().optional(),
  /** Seconds after which asking again may help. */
  retryAfter: z.number().optional(),
  errors: z.array(z.object({ field: z.string(), message: z.string() })).optional(),
})
export type ProblemBody = z.infer<typeof problem>
