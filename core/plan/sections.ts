import type { WallTime } from '../calendar/day'
import { dateFields, type DateField } from '../course/dates'
import type { PlannedItem } from '../dates/plan'
import { allRules, methodOf, type RuleSet } from '../dates/rule'
import type { PlanDocument } from './document'
import type { ShellFacts } from './shell-facts'

const classTimes = ['class-start', 'class-end']
/** Whether any rule looks at when a section meets; where none does, all sections of one term get the same dates. */
export const looksAtMeetings = (rules: RuleSet): boolean =>
  allRules(rules).some(
    rule =>
      methodOf(rule).needsMeetings === true ||
      dateFields.some(field => classTimes.includes(rule.times[field])),
  )

/** A date that is another in a section than in the shell whose content it shows. */
export interface SectionDifference {
  readonly lineage: string
  readonly field: DateField
  readonly shell: WallTime | null
  readonly section: WallTime | null
}
/** Where the dates of a section differ from the shell's, in the order of the items given. */
export function sectionDifferences(
  shell: readonly PlannedItem[],
  section: readonly PlannedItem[],
): SectionDifference[] {
  const there = new Map(section.map(item => [item.id, item]))
  return shell.flatMap(item => {
    const own = there.get(item.id)
    if (!own) return []
    return dateFields
      .filter(field => item[field] !== own[field])
      .map(field => ({ lineage: item.id, field, shell: item[field], section: own[field] }))
  })
}

/** What a plan changes of a section that shows the shell's content. What is not named stays. */
export function sectionFactsOf({ sections }: PlanDocument, courseId: string): Partial<ShellFacts> {
  const facts = sections[courseId]
  if (!facts) return {}
  return { ...(facts.label !== null && { label: facts.label || null }), ...facts.windows }
}
