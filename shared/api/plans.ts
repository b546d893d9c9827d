import { z } from 'zod'
import { planDocument } from '../../core/plan/document'
import { courseLine, courseWhole, id, lineage } from './courses'

export const zoneRules = z.object({ timeZone: z.string(), offset: z.number(), transitions: z.array(z.object({ at: z.number(), offset: z.number() })) })
export const newPlan = z.object({ source: id, target: id })
export const planReply = z.object({
  id, revision: z.int(), state: z.enum(['draft', 'run']), document: planDocument, savedAt: z.string(), savedBy: z.string(),
  source: courseWhole, target: courseWhole, zone: zoneRules,
  may: z.object({ edit: z.boolean(), run: z.boolean() }),
  run: z.object({ id, at: z.string(), by: z.string() }).nullable(),
})
export type PlanReply = z.infer<typeof planReply>
export const planChange = z.object({ document: planDocument, source: id.optional() })
export const planSaved = z.object({ revision: z.int(), savedAt: z.string() })
export type PlanSaved = z.infer<typeof planSaved>
export const planLine = z.object({ id, state: z.enum(['draft', 'run']), source: courseLine, target: courseLine, updatedAt: z.string(), updatedBy: z.string(), run: z.object({ id, at: z.string(), items: z.int() }).nullable() })
export const plansReply = z.object({ plans: z.array(planLine) })
export type PlansReply = z.infer<typeof plansReply>

const summary = z.object({ dates: z.int(), straight: z.int(), moved: z.int(), held: z.int(), settle: z.int(), none: z.int() })
export const effect = z.object({
  added: z.object({ units: z.int(), items: z.int(), categories: z.int(), byKind: z.record(z.string(), z.int()) }),
  replaced: z.int(), cleared: z.int(), already: z.int(), leftBehind: z.int(), kept: z.object({ units: z.int(), items: z.int() }), dates: summary,
})
export type EffectView = z.infer<typeof effect>
/** What Run would do now. The fingerprint stands for exactly this; Run refuses if it no longer holds. */
export const effectReply = z.object({ effect, fingerprint: z.string() })
export type EffectReply = z.infer<typeof effectReply>
export const runRequest = z.object({ fingerprint: z.string() })
export const runStarted = z.object({ id })

export const auditLine = z.object({ kind: z.string(), before: z.int(), after: z.int(), onNewItems: z.int() })
const wall = z.string().nullable()
export const runReply = z.object({
  id, planId: id, source: courseLine, target: courseLine, by: z.string(), startedAt: z.string(), finishedAt: z.string(), effect, audit: z.array(auditLine),
  entries: z.array(z.object({ entity: z.enum(['category', 'unit', 'item']), lineage, title: z.string(), kind: z.string().nullable(), action: z.enum(['added', 'replaced', 'cleared']), opens: wall, due: wall, closes: wall, flags: z.array(z.string()), depth: z.int() })),
})
export type RunReply = z.infer<typeof runReply>
