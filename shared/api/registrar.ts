import { z } from 'zod'
import { courseLine, id } from './courses'

/** What a registrar's list may change in a course. */
export const rosterChangeKinds = [
  'appeared',
  'renamed',
  'meetings',
  'joined',
  'dropped',
  'returned',
  'unlisted',
  'gone',
  'cancelled',
  'back',
] as const
export const rosterChange = z.object({
  id,
  fetch: id,
  at: z.string(),
  course: courseLine,
  kind: z.enum(rosterChangeKinds),
  count: z.int(),
  detail: z.object({
    names: z.array(z.string()).optional(),
    before: z.string().optional(),
    after: z.string().optional(),
  }),
})
export type RosterChangeView = z.infer<typeof rosterChange>
/** What the registrar said lately, the newest first. `minutes` lie between two fetches. */
export const registrarReply = z.object({
  configured: z.boolean(),
  minutes: z.number().nullable(),
  fetches: z.array(
    z.object({
      id,
      startedAt: z.string(),
      finishedAt: z.string().nullable(),
      state: z.enum(['waiting', 'new', 'same', 'failed']),
      problem: z.string().nullable(),
      by: z.string().nullable(),
      counts: z.record(z.string(), z.int()),
      findings: z.array(
        z.object({
          severity: z.enum(['error', 'warning', 'note']),
          where: z.string(),
          message: z.string(),
          count: z.int().optional(),
        }),
      ),
    }),
  ),
  changes: z.array(rosterChange),
})
export type RegistrarReply = z.infer<typeof registrarReply>
