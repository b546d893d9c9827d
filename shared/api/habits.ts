import { z } from 'zod'
import { planDocument } from '../../core/plan/document'
import { line } from '../../core/text'
import { id } from './courses'

const name = line(80).min(1, 'A habit needs a name.')
/** Decisions of a run, kept as a habit: one’s own, or (`department`) that of an organisation. */
export const newHabit = z.object({
  name,
  department: id.nullable().default(null),
  /** Plans begin with it from now on. */
  usual: z.boolean().default(false),
})
export type NewHabit = z.infer<typeof newHabit>
export const habitChange = z.object({ name: name.optional(), usual: z.boolean().optional() })
export type HabitChange = z.infer<typeof habitChange>

const habitLine = z.object({
  id,
  name: z.string(),
  /** Whose it is, where it is a department’s. */
  department: z.string().nullable(),
  isUsual: z.boolean(),
  /** The run that it was kept from, into which course. */
  from: z.object({ run: id, code: z.string(), term: z.string() }),
  by: z.string(),
  madeAt: z.string(),
  /** What it would decide, and what no habit can know: sentences. */
  decides: z.array(z.string()).readonly(),
  cannotKnow: z.array(z.string()).readonly(),
  may: z.object({ edit: z.boolean() }),
})
export type HabitLine = z.infer<typeof habitLine>
export const habitsReply = z.object({ habits: z.array(habitLine) })
export type HabitsReply = z.infer<typeof habitsReply>
/** The habits that could be laid over a plan, as far as each holds for its source; `leavesOut`: decisions about things of another course. */
export const planHabitsReply = z.object({
  habits: z.array(habitLine.extend({ document: planDocument, leavesOut: z.int() })),
})
export type PlanHabitsReply = z.infer<typeof planHabitsReply>
/** What a habit kept from a run would decide, and for which departments one may keep it. */
export const keepableReply = habitLine.pick({ decides: true, cannotKnow: true }).extend({
  departments: z.array(z.object({ id, name: z.string(), decides: habitLine.shape.decides })),
  kept: z.array(z.object({ id, name: z.string() })),
})
export type KeepableReply = z.infer<typeof keepableReply>
