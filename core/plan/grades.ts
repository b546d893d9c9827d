import type { OutlineNode } from '../course/outline'
import type { Grace } from '../grading/grace'
import { gradedAs, needsCategory, plannedGrades, rulesKey, type PlannedGrades } from '../grading/plan'
import type { GradeRules } from '../grading/rules'
import { editsByThing, redactedJson } from '../student-data/traces/redact'
import { sourcesOf, type PlanBase } from './base'
import type { Brought } from './bring'
import { redactedThings, type RedactedThings } from './redacted'
import type { MergedSources } from './sources'

/** What is taken out about students, by thing. */
export const redactedIn = ({ traces, document }: Pick<PlanBase, 'traces' | 'document'>): RedactedThings =>
  redactedThings(traces, document.traces.answers)
/** Under which key traces in a source's grade rules stand: they have no lineage of their own. */
export const rulesOn = (side: number): string => `${rulesKey} ${side}`

/** The grace allowances that the shell will have: as decided, else those of the first source that has some. */
export const graceOf = (base: PlanBase): Grace | null =>
  base.document.grace ?? sourcesOf(base).find(side => side.grace)?.grace ?? base.target.grace

/** The grade rules of the first source that has some, with no student named in their letters. */
export function rulesOfSources(base: PlanBase): GradeRules | null {
  const side = sourcesOf(base).findIndex(each => each.grading)
  const rules = sourcesOf(base)[side]?.grading ?? null
  const edits = rules && editsByThing(base.traces, base.document.traces.answers).get(rulesOn(side))
  if (!edits) return rules
  const { scale } = redactedJson({ scale: rules.scale }, edits, 'details') as {
    scale: { from: GradeRules['scale'][number]['from']; letter?: string }[]
  }
  // A letter of which nothing is left still stands for its share.
  return { ...rules, scale: scale.map(({ from, letter }) => ({ from, letter: letter ?? '–' })) }
}
/** The categories of the sources, with no student named in their titles. */
export function categoriesOf(base: PlanBase, merged: MergedSources): MergedSources['categories'] {
  const redacted = redactedIn(base)
  return merged.categories.map(line => {
    const own = redacted.get(line.lineage)
    return own
      ? {
          ...line,
          title: own.title ?? line.title,
          identifier: own.hidesIdentifier ? line.lineage : line.identifier,
        }
      : line
  })
}
/** How grades will be reckoned in the shell, given what is carried. */
export function gradesOf(base: PlanBase, { merged, carried }: Brought): PlannedGrades {
  const { document, target } = base
  const used = new Set(merged.nodes.filter(node => carried.has(node.lineage)).map(node => node.category))
  const takesAll = document.carry.leave.length === 0
  return plannedGrades({
    sources: categoriesOf(base, merged),
    sourceRules: rulesOfSources(base),
    shell: target.categories,
    shellRules: target.grading,
    comes: lineage => takesAll || used.has(lineage),
    decisions: document.grades,
    seen: new Map(
      base.before.bases.flatMap(({ source, type, parts }) =>
        type === 'category' || type === 'rules' ? [[source, parts.settings ?? '']] : [],
      ),
    ),
  })
}
/** Items with points that come and are in no category: somebody must say in which they count. */
export const uncategorisedIn = (
  { document }: Pick<PlanBase, 'document'>,
  { merged, carried }: Brought,
  grades: PlannedGrades,
): OutlineNode[] =>
  grades.categories.length === 0
    ? []
    : merged.nodes.filter(
        node =>
          node.type === 'item' &&
          carried.has(node.lineage) &&
          needsCategory(node, gradedAs(node, grades, document.grades)),
      )
