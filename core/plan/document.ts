import { z } from 'zod'
import { defaultRule, ruleSetSchema } from '../dates/rule'

/** A plan as a document: what is decided, not what it does. Item and unit keys are lineage keys. */
export const planDocument = z.object({
  format: z.literal('northtide-plan'),
  version: z.literal(1),
  carry: z.object({ leave: z.array(z.string()) }),
  dates: ruleSetSchema,
})
export type PlanDocument = z.infer<typeof planDocument>

/** The recommended decisions: everything comes, in the same teaching week and on the same weekday. */
export const recommendedPlan = (): PlanDocument =>
  ({ format: 'northtide-plan', version: 1, carry: { leave: [] }, dates: { rule: defaultRule, kindRules: {}, unitRules: {}, itemRules: {} } })
