import { seenRules, type CarriedBase } from '../carry/base'
import { basesAfter, type MadeByRun } from '../carry/places/bases-after'
import type { PlaceRow } from '../carry/places/row'
import type { OutlineNode } from '../course/outline'
import type { Filed } from '../grading/periods'
import { rulesSeen, type PlannedGrades } from '../grading/plan'
import { answerOf, isPassed, type Trace, type UnseenFile } from '../student-data/traces/trace'
import type { PlanBase } from './base'
import { carriedPlan, matchesOf, writtenFrom } from './carried'
import { mapParts } from './document'
import { countsIn, type Effect, type Placement, type Placements } from './effect'
import { categoriesOf, graceOf, rulesOfSources, uncategorisedIn } from './grades'
import { filedIn, planLedger, type CompileInput } from './ledger'
import { aroundPlacements, datesOfRow, gracePlacements, gradePlacements, rowPlacement } from './placements'
import type { RecordLeft } from './record'
import { titlesNamingNobody } from './redacted'
import { toSettle } from './to-settle'

export interface CompiledPlan {
  placements: Placement[]
  /** The ledger of places, in the order that the shell will have. */
  rows: PlaceRow[]
  grades: PlannedGrades
  effect: Effect
  /** The keys of the sources of which something is written. */
  written: ReadonlySet<string>
  /** What of the sources stays behind, and why. */
  left: RecordLeft[]
}

/** What the next run compares with, once one has written the rows of a plan. */
export const basesOf = (input: CompileInput, rows: readonly PlaceRow[], made?: MadeByRun): CarriedBase[] => [
  ...basesAfter(rows, input.before.bases, made),
  ...rulesSeen(categoriesOf(input, input.brought.merged), rulesOfSources(input)).map(({ key, type, text }) =>
    seenRules(key, type, text),
  ),
]
/**
 * Turns a plan's decisions into what is to be written: each unit, item, grade category, rubric and group with its place in the shell and its
 * dates. What the shell has stays where nobody said otherwise, and what was deleted there stays away.
 */
export function compilePlan(input: CompileInput): CompiledPlan {
  const { target, brought, document } = input
  const { merged, carried } = brought
  const dates = new Map(planLedger(input).items.map(item => [item.id, item]))
  const periods = filedIn(input, merged.nodes, dates)
  const plan = carriedPlan(input, brought, {
    matches: matchesOf(input, merged, document.places.pairs),
    dates,
  })
  const { rows, grades } = plan
  const written = writtenFrom(input, plan)
  const traces = tracesOf(input, written)
  const unseen = unseenOf(input, written)
  const dated = rows.flatMap(row => datesOfRow(row, dates) ?? [])
  const filed = dated.flatMap(({ id }) => periods.get(id) ?? [])
  const wanted = merged.nodes.filter(node => carried.has(node.lineage))
  const isLeft = (node: OutlineNode): boolean => node.type === 'item' && !carried.has(node.lineage)
  const added = rows.filter(row => row.happens === 'adds' || row.happens === 'both')
  const fresh = added.flatMap(row => row.source ?? [])
  const placements = [
    ...gradePlacements(input, plan),
    ...aroundPlacements(input, plan),
    ...gracePlacements(input),
    ...rows.flatMap(row => rowPlacement(row, input, plan, { dates, periods }) ?? []),
  ]
  const counted: Placements = {
    source: merged.nodes,
    target: target.nodes,
    rows,
    added: document.added,
    movedByHand: new Set([...Object.keys(document.places.into), ...Object.keys(document.places.after)]),
    wanted,
    fresh,
    leftUnasked: merged.nodes.filter(node => isLeft(node) && brought.stays.has(node.lineage)).length,
    changesRules: grades.changesRules && target.grading !== null,
    categories: placements.filter(entry => entry.entity === 'category' && entry.action === 'added'),
    grades,
    traces: tracesCounted(input, traces, unseen),
    redacted: plan.redacted,
    placements,
    periods: periodsCounted(filed),
    grace: graceOf(input),
    count: countsIn(rows),
  }
  const settle = toSettle({
    document,
    rows,
    grades,
    traces,
    unseen,
    uncategorised: uncategorisedIn(input, brought, grades),
    byHand: input.byHand,
    dates: dated,
    periods: filed,
  })
  const effects = Object.values(mapParts(part => part.effect?.(counted) ?? {}))
  const tell = titlesNamingNobody(input.traces, document.traces.answers)
  const left = merged.nodes
    .filter(node => !carried.has(node.lineage))
    .map(node => ({
      title: tell(node.title),
      kind: node.kind,
      why: brought.stays.get(node.lineage) ?? ('chosen' as const),
    }))
  return { placements, rows, grades, written, effect: Object.assign({ settle }, ...effects) as Effect, left }
}
/** How many items are filed under each grading period. */
function periodsCounted(filed: readonly Filed[]): Effect['periods'] {
  const items = new Map<string, number>()
  for (const { period } of filed) if (period !== null) items.set(period, (items.get(period) ?? 0) + 1)
  return [...items].map(([name, count]) => ({ name, items: count }))
}
/** Traces in what a plan writes: those of things that stay behind are no matter. */
export const tracesOf = ({ traces }: Pick<PlanBase, 'traces'>, written: ReadonlySet<string>): Trace[] =>
  traces.filter(({ entity, on }) => (entity !== 'item' && entity !== 'unit') || written.has(on))
/** Files that a plan writes and that could not be looked into. */
export const unseenOf = ({ unseen }: Pick<PlanBase, 'unseen'>, written: ReadonlySet<string>): UnseenFile[] =>
  unseen.filter(({ on }) => written.has(on))
function tracesCounted(
  { document: { traces } }: Pick<PlanBase, 'document'>,
  all: readonly Trace[],
  files: readonly UnseenFile[],
): Effect['traces'] {
  const passed = all.filter(trace => isPassed(trace, traces.answers)).length
  const count = (...wanted: ReturnType<typeof answerOf>[]): number =>
    all.filter(trace => wanted.includes(answerOf(trace, traces.answers))).length
  return {
    out: count('remove', 'role'),
    kept: count('keep') - passed,
    passed,
    unseen: files.filter(({ id }) => traces.unseen[id]).length,
  }
}
