import { z } from 'zod'
import { defaultRule, ruleSetSchema } from '../dates/rule'
import { windowsSchema } from '../pairing/windows'

const name = z.string().trim().max(200, 'At most 200 characters.')
/** A plan as a document: what is decided, not what it does. Item and unit keys are lineage keys. */
export const planDocument = z.object({
  format: z.literal('northtide-plan'),
  version: z.literal(1),
  carry: z.object({ leave: z.array(z.string()) }),
  dates: ruleSetSchema,
  /** Names that the shell gets: the title students see, and what tells its section from others. Null: as they are. */
  names: z
    .object({ title: name.min(1, 'The title is empty. Students see it.').nullable(), label: name.nullable() })
    .default({ title: null, label: null }),
  /** When students may enrol and enter. Null: as it is in the shell. */
  windows: windowsSchema.nullable().default(null),
})
export type PlanDocument = z.infer<typeof planDocument>

/** The recommended decisions: everything comes, in the same teaching week and on the same weekday. */
export const recommendedPlan = (): PlanDocument => ({
  format: 'northtide-plan',
  version: 1,
  carry: { leave: [] },
  dates: { rule: defaultRule, kindRules: {}, unitRules: {}, itemRules: {} },
  names: { title: null, label: null },
  windows: null,
})

/** The decisions of an earlier roll of the same course, as a habit: rules and what was left behind, but no date that was set by hand. */
export const asBefore = (document: PlanDocument): PlanDocument => ({
  ...recommendedPlan(),
  carry: document.carry,
  dates: {
    ...document.dates,
    itemRules: Object.fromEntries(
      Object.entries(document.dates.itemRules).filter(([, rule]) => rule.method !== 'set'),
    ),
  },
})
