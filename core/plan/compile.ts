import { dayOf, type Day } from '../calendar/day'
import type { Meeting } from '../calendar/schema'
import { termOver, type Term } from '../calendar/term'
import { yearsOfAll, type Years, type ZoneRules } from '../calendar/zone'
import { foundNodes, madeNodes } from '../carry/added'
import { soundInto } from '../carry/into'
import { carriedAs, seenRules, type CarriedBase } from '../carry/base'
import { matchThings, type Match, type PairedByHand } from '../carry/match'
import { basesAfter, placesLedger, type MadeByRun, type PlaceRow } from '../carry/places'
import { carriedOf, leftBehind, staysUnasked, type StaysWhy } from '../carry/select'
import type { ItemDates } from '../course/dates'
import type { Furnishing } from '../course/furniture'
import {
  openingAlone,
  planDates,
  summarise,
  type DatedItem,
  type PlannedItem,
  type PlanInput,
} from '../dates/plan'
import { yearsReached } from '../dates/years'
import type { Windows } from '../pairing/windows'
import { answerOf, isPassed, type Trace, type UnseenFile } from '../student-data/traces/trace'
import { editsByThing, redactedJson } from '../student-data/traces/redact'
import type { OutlineNode } from '../course/outline'
import { mapParts, type PlanDocument } from './document'
import { comesAsFrame } from './parts/carry'
import type { Grace } from '../grading/grace'
import { fileItems, type Filed } from '../grading/periods'
import {
  gradedAs,
  needsCategory,
  plannedGrades,
  rulesKey,
  rulesSeen,
  type PlannedGrades,
} from '../grading/plan'
import type { CategoryLine, GradeRules } from '../grading/rules'
import { countsIn, type Effect, type Placement, type Placements } from './effect'
import { arrivalState, rubricsInShell } from './arrival'
import { datedByPattern } from './undated'
import { aroundPlacements, gracePlacements, gradePlacements, rowPlacement } from './placements'
import { redactedThings, titlesNamingNobody, type RedactedThings } from './redacted'
import { mergeSources, type MergedSources } from './sources'
import type { RecordLeft } from './record'

export type { Effect, Placement }
interface Named {
  readonly lineage: string
  readonly identifier: string | null
  readonly title: string
}
/** What a course holds, as a plan computes with it. */
export interface CarrySide {
  nodes: readonly OutlineNode[]
  categories: readonly CategoryLine[]
  grading: GradeRules | null
  /** How often students may hand in later without asking; null where nobody has said. */
  grace: Grace | null
  rubrics: readonly Named[]
  groups: readonly Named[]
  furniture: readonly Furnishing[]
}
/** A course as a plan computes with it. */
export interface PlanSide extends CarrySide {
  term: Term
  meetings: readonly Meeting[]
  /** When students may enrol and enter, as it stands in the course. */
  windows: Windows
}
/** What the places of a plan are computed from. */
export interface CarryBase {
  document: PlanDocument
  source: CarrySide
  /** Further sources, in their order; what an earlier one holds already does not come from a later one. */
  more: readonly CarrySide[]
  /** Courses that are no sources, from which single items are taken; by their ids. */
  found: readonly (CarrySide & { readonly id: string })[]
  target: CarrySide
  /** What was carried into the shell before, and what somebody deleted there: that stays away, with all below it in the source. */
  before: { bases: readonly CarriedBase[]; deleted: readonly string[] }
  /** Traces of students that were found in what the plan brings from. */
  traces: readonly Trace[]
  /** Files in what the plan brings from that could not be looked into. */
  unseen: readonly UnseenFile[]
  /** A course that is rolled in place keeps all it holds: nothing stays behind. */
  inPlace: boolean
}
/** What a plan is computed from, but for the zone data of its target. */
export interface PlanBase extends CarryBase {
  source: PlanSide
  more: readonly PlanSide[]
  found: readonly (PlanSide & { readonly id: string })[]
  target: PlanSide
}
export interface CompileInput extends PlanBase {
  zone: ZoneRules
}
export interface CompiledPlan {
  placements: Placement[]
  /** The ledger of places, in the order that the shell will have. */
  rows: PlaceRow[]
  grades: PlannedGrades
  effect: Effect
  /** What of the sources stays behind, and why. */
  left: RecordLeft[]
}

const sourcesOf = <S>({ source, more }: { source: S; more: readonly S[] }): readonly S[] => [source, ...more]
const holdsNothing = {
  categories: [],
  grading: null,
  grace: null,
  rubrics: [],
  groups: [],
  furniture: [],
} as const
/** What a plan brings from. */
type BroughtBase = Omit<CarryBase, 'target' | 'before' | 'inPlace' | 'traces' | 'unseen'>
/** What was computed of a document or a part of one, with what it was computed from. */
type Known<T> = WeakMap<object, { readonly from: readonly unknown[]; readonly value: T }>
// A plan, its effect, its record and its bases all ask for the same outline: of 2 000 items it takes some 10 ms each time.
const sidesKnown: Known<readonly CarrySide[]> = new WeakMap()
const outlinesKnown: Known<MergedSources> = new WeakMap()
const staysKnown: Known<Map<string, StaysWhy>> = new WeakMap()
const carriedKnown: Known<Set<string>> = new WeakMap()
/** Computes something of a document, or answers what was computed last from the very same (documents and courses are immutable). */
function remembered<T>(known: Known<T>, document: object, from: readonly unknown[], compute: () => T): T {
  const last = known.get(document)
  if (last && last.from.length === from.length && last.from.every((each, at) => each === from[at]))
    return last.value
  const value = compute()
  known.set(document, { from, value })
  return value
}
/** All that a plan brings from, in order: its sources, what is taken of other courses, and what is made in the plan, which comes from no course. */
export const sidesOf = (base: BroughtBase): readonly CarrySide[] =>
  remembered(sidesKnown, base.document, heldBy(base), () => newSides(base))
function newSides(base: BroughtBase): CarrySide[] {
  const { added, places } = base.document
  const parents = new Map(
    sourcesOf(base).flatMap(({ nodes }) => nodes.map(node => [node.lineage, node.parent])),
  )
  const into = soundInto(places.into, lineage => parents.get(lineage) ?? null)
  return [
    ...sourcesOf(base),
    ...base.found.map(course => ({
      ...holdsNothing,
      rubrics: course.rubrics,
      nodes: foundNodes(added, course, into),
    })),
    { ...holdsNothing, nodes: madeNodes(added, into) },
  ]
}
/** All that a plan brings as one outline. */
export const sourceOutline = (base: BroughtBase): MergedSources =>
  remembered(outlinesKnown, base.document, heldBy(base), () => mergeSources(sidesOf(base)))
/** What the courses of a plan hold: the same as long as nobody changes them, whoever puts them beside what else is told of them. */
const heldBy = ({ source, more, found }: BroughtBase): unknown[] =>
  [source, ...more, ...found].flatMap(({ nodes, categories, grading, grace, rubrics, groups, furniture }) => [
    nodes,
    categories,
    grading,
    grace,
    rubrics,
    groups,
    furniture,
  ])

/** A unit has a date too, on which it opens: its own rule, or that for its items, decides where it lands. */
const datedItem = ({ lineage, type, kind, unit, opens, due, closes }: OutlineNode): DatedItem => ({
  id: lineage,
  kind: kind ?? '',
  unit: type === 'unit' ? lineage : unit,
  opens,
  due,
  closes,
})
/** When students may enrol and enter once the plan is run. */
export const windowsOf = ({ document, target }: PlanBase): Windows => document.windows ?? target.windows
/** The days on which students may enter the new course, where both are set. */
function targetWindow(base: PlanBase): { from: Day; to: Day } | null {
  const { openFrom, openTo } = windowsOf(base)
  return openFrom !== null && openTo !== null ? { from: dayOf(openFrom), to: dayOf(openTo) } : null
}
/** Why each thing stays behind that does unless one asks for it. */
export const staysOf = (
  { document, target, before, inPlace }: CarryBase,
  { nodes }: MergedSources,
): ReadonlyMap<string, StaysWhy> =>
  remembered(
    staysKnown,
    document.places.further,
    [nodes, target.nodes, before.bases, before.deleted, inPlace],
    () =>
      inPlace
        ? new Map<string, StaysWhy>()
        : staysUnasked(nodes, {
            nodes: target.nodes,
            bases: before.bases,
            deleted: new Set(before.deleted),
            goesInto: new Set(Object.values(document.places.further).flat()),
          }),
  )
/** The lineage keys of all that a plan carries. */
export function carriedBy(base: CarryBase, merged: MergedSources): ReadonlySet<string> {
  const stays = staysOf(base, merged)
  return remembered(carriedKnown, base.document.carry, [merged.nodes, stays], () =>
    carriedOf(merged.nodes, leftBehind(base.document.carry, stays)),
  )
}

/** The old term of a plan's first source: where somebody has said when the course ran, that. */
export const sourceTerm = ({ dates: { sourceSpan } }: PlanDocument, term: Term): Term =>
  sourceSpan ? termOver(term, sourceSpan) : term
/** A plan's carried units and items with its rules, as the date engine takes them: once for each source, since each has a calendar of its own. */
function sourceInputs(base: PlanBase, merged: MergedSources): Omit<PlanInput, 'zone'>[] {
  const { document, target } = base
  const carried = carriedBy(base, merged)
  const items = groupedBySide(merged, carried)
  // What is made in the plan has no old dates: it stands in the new term from the beginning.
  return [...sourcesOf(base), ...base.found, target].map((source, at) => ({
    source: at === 0 ? sourceTerm(document, source.term) : source.term,
    target: target.term,
    sourceMeetings: source.meetings,
    targetMeetings: target.meetings,
    targetWindow: targetWindow(base),
    rules: document.dates,
    items: items.get(at) ?? [],
  }))
}
function groupedBySide(merged: MergedSources, carried: ReadonlySet<string>): Map<number, DatedItem[]> {
  const items = new Map<number, DatedItem[]>()
  for (const node of merged.nodes) {
    const side = merged.from.get(node.lineage)
    if (side === undefined || !carried.has(node.lineage)) continue
    const own = items.get(side)
    if (own) own.push(datedItem(node))
    else items.set(side, [datedItem(node)])
  }
  return items
}
export const ledgerInputs = (
  input: CompileInput,
  merged: MergedSources = sourceOutline(input),
): PlanInput[] => sourceInputs(input, merged).map(each => ({ ...each, zone: input.zone }))
/** The years for which a plan needs to know its target's zone. */
export const zoneYearsOf = (base: PlanBase, merged: MergedSources = sourceOutline(base)): Years =>
  yearsOfAll(sourceInputs(base, merged).map(yearsReached))

/** The dates of a plan's carried units and items. The page shows these while one plans; Run computes them again. */
export function planLedger(
  input: CompileInput,
  merged: MergedSources = sourceOutline(input),
): ReturnType<typeof planDates> {
  const units = new Set(merged.nodes.flatMap(({ type, lineage }) => (type === 'unit' ? [lineage] : [])))
  const crossed = ledgerInputs(input, merged)
    .flatMap(each => planDates(each).items)
    .map(item => (units.has(item.id) ? openingAlone(item) : item))
  const items = datedByPattern(input, merged, carriedBy(input, merged), crossed)
  return { items, summary: summarise(items) }
}

/** The grading period of every carried item that counts, given where all dates land; empty where the new term has none. */
export function filedIn(
  { document, target }: PlanBase,
  merged: MergedSources,
  dates: ReadonlyMap<string, Readonly<ItemDates>>,
): Map<string, Filed> {
  return fileItems({
    nodes: merged.nodes.filter(node => dates.has(node.lineage)),
    dates,
    periods: target.term.gradingPeriods,
    chosen: document.dates.periods,
  })
}
/** The grace allowances that the shell will have: as decided, else those of the first source that has some. */
export const graceOf = ({ document, source, more, target }: CarryBase): Grace | null =>
  document.grace ?? [source, ...more].find(side => side.grace)?.grace ?? target.grace

/** The grade rules of the first source that has some, with no student named in their letters. */
function rulesOfSources(base: CarryBase): GradeRules | null {
  const side = sourcesOf(base).findIndex(each => each.grading)
  const rules = sourcesOf(base)[side]?.grading ?? null
  const edits = rules && redactionsIn(base).get(rulesOn(side))
  if (!edits) return rules
  const { scale } = redactedJson({ scale: rules.scale }, edits, 'details') as {
    scale: { from: GradeRules['scale'][number]['from']; letter?: string }[]
  }
  // A letter of which nothing is left still stands for its share.
  return { ...rules, scale: scale.map(({ from, letter }) => ({ from, letter: letter ?? '–' })) }
}
/** What the next run compares with, once one has written the rows of a plan. */
export const basesOf = (base: PlanBase, rows: readonly PlaceRow[], made?: MadeByRun): CarriedBase[] => [
  ...basesAfter(rows, base.before.bases, made),
  ...rulesSeen(categoriesOf(base, sourceOutline(base)), rulesOfSources(base)).map(({ key, type, text }) =>
    seenRules(key, type, text),
  ),
]
/** What is taken out about students, by thing. */
const redactedIn = ({ traces, document }: Pick<CarryBase, 'traces' | 'document'>): RedactedThings =>
  redactedThings(traces, document.traces.answers)
const redactionsIn = ({ traces, document }: Pick<CarryBase, 'traces' | 'document'>) =>
  editsByThing(traces, document.traces.answers)
/** Under which key traces in a source's grade rules stand: they have no lineage of their own. */
export const rulesOn = (side: number): string => `${rulesKey} ${side}`
/** The categories of the sources, with no student named in their titles. */
function categoriesOf(base: CarryBase, merged: MergedSources): MergedSources['categories'] {
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
export function gradesOf(
  base: CarryBase,
  merged: MergedSources,
  carried: ReadonlySet<string>,
): PlannedGrades {
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
/** What meets what, between the sources of a plan and its shell. */
export const matchesOf = (
  { target, before }: Pick<CarryBase, 'target' | 'before'>,
  merged: MergedSources,
  byHand: PairedByHand,
): Map<string, Match> =>
  matchThings({
    sources: merged.nodes,
    shell: target.nodes,
    byHand,
    carriedAs: carriedAs(before.bases),
  })

/** All that a plan decides of places and grades, computed in one go. */
export interface CarriedPlan {
  merged: MergedSources
  stays: ReadonlyMap<string, StaysWhy>
  carried: ReadonlySet<string>
  grades: PlannedGrades
  /** The key in the shell of each rubric of the sources. */
  rubrics: ReadonlyMap<string, string>
  rows: PlaceRow[]
  redacted: RedactedThings
}
/** Where a run of now would put everything. `dates`: where they land, once they are computed. */
export function carriedPlan(
  base: CarryBase,
  { merged, matches, dates }: { merged: MergedSources; matches: ReadonlyMap<string, Match>; dates: Dates },
): CarriedPlan {
  const { document, target, before } = base
  const stays = staysOf(base, merged)
  const carried = carriedBy(base, merged)
  const grades = gradesOf(base, merged, carried)
  const redacted = redactedIn(base)
  const rows = placesLedger({
    sources: merged.nodes,
    carried,
    away: new Set([...stays].filter(([, why]) => why === 'removed-here').map(([lineage]) => lineage)),
    shell: target.nodes,
    bases: before.bases,
    matches,
    decisions: document.places,
    arrival: {
      dates,
      category: node => gradedAs(node, grades, document.grades).category,
      state: node => arrivalState(node, document),
      isFrame: node => comesAsFrame(document.carry, node),
      given: ({ lineage }) => {
        const given = document.carry.settings[lineage]
        const mark = redacted.get(lineage)?.settings ?? null
        const changes = [...(given ? [JSON.stringify(given)] : []), ...(mark === null ? [] : [mark])]
        return changes.length > 0 ? changes.join(' ') : null
      },
      title: node => redacted.get(node.lineage)?.title ?? node.title,
      redacts: lineage => redacted.get(lineage)?.text ?? null,
    },
  })
  return { merged, stays, carried, grades, rubrics: rubricsInShell(base), rows, redacted }
}
type Dates = ReadonlyMap<string, PlannedItem> | null
/**
 * Turns a plan's decisions into what is to be written: each unit, item, grade category, rubric and group with its place in the shell and its
 * dates. What the shell has stays where nobody said otherwise, and what was deleted there stays away.
 */
export function compilePlan(input: CompileInput): CompiledPlan {
  const { target } = input
  const merged = sourceOutline(input)
  const dates = new Map(planLedger(input, merged).items.map(item => [item.id, item]))
  const periods = filedIn(input, merged, dates)
  const plan = carriedPlan(input, {
    merged,
    matches: matchesOf(input, merged, input.document.places.pairs),
    dates,
  })
  const { rows, grades, carried } = plan
  const wanted = merged.nodes.filter(node => carried.has(node.lineage))
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
    added: input.document.added,
    movedByHand: new Set([
      ...Object.keys(input.document.places.into),
      ...Object.keys(input.document.places.after),
    ]),
    wanted,
    fresh,
    categories: placements.filter(entry => entry.entity === 'category' && entry.action === 'added'),
    grades,
    traces: tracesIn(input, carried),
    redacted: plan.redacted,
    placements,
    periods: periodsCounted(placements, periods),
    grace: graceOf(input),
    count: countsIn(rows, uncategorisedIn(input, plan).length),
  }
  const effects = Object.values(mapParts(part => part.effect?.(counted) ?? {}))
  const tell = titlesNamingNobody(input.traces, input.document.traces.answers)
  const left = merged.nodes
    .filter(node => !carried.has(node.lineage))
    .map(node => ({
      title: tell(node.title),
      kind: node.kind,
      why: plan.stays.get(node.lineage) ?? ('chosen' as const),
    }))
  return { placements, rows, grades, effect: Object.assign({}, ...effects) as Effect, left }
}
/** Of the items that are written: how many are filed under each grading period, and how many under none that should be. */
function periodsCounted(
  placements: readonly Placement[],
  periods: ReadonlyMap<string, Filed>,
): Effect['periods'] {
  const filed = new Map<string, number>()
  let asked = 0
  for (const { entity, source, dates } of placements) {
    const found = entity === 'item' && dates ? periods.get(source) : undefined
    if (!found) continue
    if (found.period === null) asked++
    else filed.set(found.period, (filed.get(found.period) ?? 0) + 1)
  }
  return { filed: [...filed].map(([name, items]) => ({ name, items })), asked }
}
/** Traces in what a plan carries: those of things that stay behind are no matter. */
export const tracesOf = ({ traces }: Pick<CarryBase, 'traces'>, carried: ReadonlySet<string>): Trace[] =>
  traces.filter(({ entity, on }) => (entity !== 'item' && entity !== 'unit') || carried.has(on))
/** Files that come and could not be looked into. */
export const unseenOf = ({ unseen }: Pick<CarryBase, 'unseen'>, carried: ReadonlySet<string>): UnseenFile[] =>
  unseen.filter(({ on }) => carried.has(on))
function tracesIn(base: CarryBase, carried: ReadonlySet<string>): Effect['traces'] {
  const { answers, unseen } = base.document.traces
  const all = tracesOf(base, carried)
  const passed = all.filter(trace => isPassed(trace, answers))
  const count = (...wanted: ReturnType<typeof answerOf>[]): number =>
    all.filter(trace => wanted.includes(answerOf(trace, answers))).length
  const files = unseenOf(base, carried)
  const agreed = files.filter(({ id }) => unseen[id]).length
  return {
    out: count('remove', 'role'),
    kept: count('keep') - passed.length,
    passed: passed.length,
    settle: count(null),
    unseen: { carried: agreed, settle: files.length - agreed },
  }
}
/** Items with points that come and are in no category: somebody must say in which they count. */
export const uncategorisedIn = (
  { document }: CarryBase,
  { merged, carried, grades }: CarriedPlan,
): OutlineNode[] =>
  grades.categories.length === 0
    ? []
    : merged.nodes.filter(
        node =>
          node.type === 'item' &&
          carried.has(node.lineage) &&
          needsCategory(node, gradedAs(node, grades, document.grades)),
      )
