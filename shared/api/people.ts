import { z } from 'zod'
import { id } from './courses'

const duties = ['coordinator', 'office'] as const
export const peopleReply = z.object({
  people: z.array(
    z.object({
      id,
      name: z.string(),
      login: z.string(),
      active: z.boolean(),
      /** Whether they have set a password; when they were last sent a link that still holds. */
      hasPassword: z.boolean(),
      invitedAt: z.string().nullable(),
      duties: z.array(z.object({ orgId: id, org: z.string(), duty: z.enum(duties) })),
      instructs: z.int(),
      assists: z.int(),
    }),
  ),
  orgs: z.array(z.object({ id, name: z.string() })),
})
export type PeopleReply = z.infer<typeof peopleReply>
export const dutyChange = z.object({ org: id, duty: z.enum(duties), holds: z.boolean() })
export type DutyChange = z.infer<typeof dutyChange>
export const staffReply = z.object({
  staff: z.array(
    z.object({
      personId: id,
      name: z.string(),
      role: z.enum(['instructor', 'assistant']),
      primary: z.boolean(),
      mayRun: z.boolean(),
      origin: z.enum(['registrar', 'hand']),
      dropped: z.boolean(),
    }),
  ),
})
export type StaffReply = z.infer<typeof staffReply>
export const delegation = z.object({ person: id, mayRun: z.boolean() })

const day = z
  .string()
  .regex(/^\d{4}-\d\d-\d\d$/, 'Give a date such as 2027-01-31.')
  .optional()
export const logQuery = z.object({
  q: z.string().max(200).default(''),
  action: z.string().max(40).optional(),
  from: day,
  to: day,
  before: id.optional(),
})
export type LogWish = z.output<typeof logQuery>
export const logReply = z.object({
  lines: z.array(
    z.object({
      id,
      at: z.string(),
      by: z.string().nullable(),
      action: z.string(),
      course: z
        .object({ id, code: z.string(), section: z.string(), title: z.string(), term: z.string() })
        .nullable(),
      planId: id.nullable(),
      runId: id.nullable(),
      detail: z.record(z.string(), z.unknown()),
    }),
  ),
  /** Whether there are older lines. */
  more: z.boolean(),
  /** Whether everything is shown, or what one did oneself and what was done in one's courses. */
  everything: z.boolean(),
})
export type LogReply = z.infer<typeof logReply>
