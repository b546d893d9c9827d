import { z } from 'zod'
import type { Term } from '../calendar/term'
import type { PartFault, PlanPart } from './part'
import { planParts } from './parts'
import type { ShellFacts } from './shell-facts'

type Parts = typeof planParts
export type PartName = keyof Parts
type Shape = { [N in PartName]: Parts[N]['schema'] }
const mapParts = <T>(of: (part: PlanPart<z.ZodType>, name: PartName) => T) =>
  Object.fromEntries(
    // In the list each part knows its own value; here it does not matter which it is.
    Object.entries(planParts).map(([name, part]) => [
      name,
      of(part as PlanPart<z.ZodType>, name as PartName),
    ]),
  ) as Record<PartName, T>

/** A plan as a document: what is decided, not what it does. Item and unit keys are lineage keys. */
export const planDocument = z.object({
  format: z.literal('northtide-plan'),
  version: z.literal(1),
  ...(mapParts(part => part.schema) as Shape),
})
export type PlanDocument = z.infer<typeof planDocument>
type Decisions = Pick<PlanDocument, PartName>

/** A document of which every part is made by `of`, from the definition and the value there is. */
function withParts(
  document: PlanDocument,
  of: (part: PlanPart<z.ZodType>, value: unknown, name: PartName) => unknown,
): PlanDocument {
  return { ...document, ...(mapParts((part, name) => of(part, document[name], name)) as Decisions) }
}

/** The recommended decisions: everything comes, in the same teaching week and on the same weekday. */
export const recommendedPlan = (): PlanDocument => ({
  format: 'northtide-plan',
  version: 1,
  ...(mapParts(part => part.recommended) as Decisions),
})
/** The decisions of an earlier roll as a habit: what is about one shell or one item is left out. */
export const asHabit = (document: PlanDocument): PlanDocument =>
  withParts(document, (part, value) => (part.habit ? part.habit.keeps(value) : part.recommended))
/** A plan with a habit laid over its decisions; what no habit keeps stays as it is in the plan. */
export const withHabit = (document: PlanDocument, habit: PlanDocument): PlanDocument =>
  withParts(document, (part, value, name) => (part.habit ? part.habit.over(value, habit[name]) : value))
/** What a habit would decide of each part of a plan, and what no habit can know: sentences. */
export interface HabitTold {
  readonly decides: readonly string[]
  readonly cannotKnow: readonly string[]
}
export const habitTold = (habit: PlanDocument): HabitTold => ({
  decides: Object.values(mapParts((part, name) => part.habit?.tells(habit[name]) ?? [])).flat(),
  cannotKnow: Object.values(mapParts(part => part.eachTerm)).filter(told => told !== null),
})
/** The decisions of an earlier run into the same shell, for another: so that running again with nothing changed proposes nothing. */
export const asAgain = (document: PlanDocument): PlanDocument =>
  withParts(document, (part, value) => part.again(value))
/** The decisions of a plan for a further shell, which keeps its own of the parts that are about one shell. */
export const forFurtherShell = (document: PlanDocument, own: PlanDocument): PlanDocument =>
  withParts(document, (part, value, name) => (part.furtherShells === 'the same' ? value : own[name]))
/** The decisions of a plan once it rolls from another course. */
export const forOtherSource = (document: PlanDocument): PlanDocument =>
  withParts(document, (part, value) => part.forOtherSource(value))
/** What a plan for a term must not hold, such as a date that somebody mistyped by a century. */
export const planFaults = (document: PlanDocument, term: Pick<Term, 'classes' | 'exams'>): PartFault[] =>
  Object.values(
    mapParts((part, name) =>
      (part.faults?.(document[name], term) ?? []).map(fault => ({ ...fault, path: [name, ...fault.path] })),
    ),
  ).flat()
/** What a plan changes of the shell itself: its names and windows. What is not named stays. */
export const shellFactsOf = (document: PlanDocument): Partial<ShellFacts> =>
  Object.assign({}, ...Object.values(mapParts((part, name) => part.shellFacts?.(document[name]) ?? {})))

export { mapParts, withParts }
