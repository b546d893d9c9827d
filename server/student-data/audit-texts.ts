import type { Knex } from 'knex'
import type { CompiledPlan, CompileInput, Placement } from '../../core/plan/compile'
import { traceId, tableId, type SearchedPeople } from '../../core/student-data/traces/find'
import type { TraceRecord } from '../../core/student-data/traces/record'
import { answerOf, type Trace } from '../../core/student-data/traces/trace'
import { sidesOf, tracesOf } from '../../core/plan/compile'
import { loadCategories, loadFurniture, loadGroups, loadRubrics } from '../courses/around.queries'
import type { StandingNode } from '../courses/content.queries'
import { refuse } from '../errors/refusal'
import { sidesOfPlan, writtenCourse, type Plan } from '../plans/plans.queries'
import { lookThrough, type SearchedContent } from './look-through'
import { nodesToSearch, type TracesFound } from './traces.queries'

/** Titles, and bodies by their hashes. */
interface Texts {
  readonly titles: ReadonlySet<string>
  readonly bodies: ReadonlySet<string>
}
const searchedKnown = new WeakMap<CompileInput, Texts>()
/**
 * What the plan's own search has looked through, and of which nothing is to go: where the same title or the same body stands in the course now,
 * nothing else stands in it. All others are looked through again.
 */
function searchedBefore(input: CompileInput, plan: Plan): Texts {
  const texts = searchedKnown.get(input) ?? textsSearched(input, plan)
  searchedKnown.set(input, texts)
  return texts
}
function textsSearched(input: CompileInput, plan: Plan): Texts {
  const { answers } = plan.document.traces
  const open = new Set(input.traces.filter(trace => answerOf(trace, answers) !== 'keep').map(({ on }) => on))
  // What is made in the plan comes last: it was never searched.
  const searched = sidesOf(input).slice(0, sidesOfPlan(plan).length)
  const nodes = searched.flatMap(side => side.nodes)
  const titles = new Set(nodes.map(({ title }) => title))
  const bodies = new Set(nodes.flatMap(({ body }) => body ?? []))
  for (const { lineage, title, body } of nodes)
    if (open.has(lineage)) {
      titles.delete(title)
      if (body !== null) bodies.delete(body)
    }
  return { titles, bodies }
}
const writes = ({ action }: Placement): boolean => !['moved', 'dated', 'cleared'].includes(action)
/** What stands around the units, as far as the run wrote any of it; in place all of the course is what the run leaves. */
async function aroundWritten(
  trx: Knex,
  { mode, ...plan }: Plan,
  placements: readonly Placement[],
): Promise<Omit<SearchedContent, 'nodes'>> {
  const course = writtenCourse({ mode, ...plan })
  async function load<T extends { readonly lineage: string }>(
    entity: Placement['entity'],
    all: (db: Knex, id: string) => Promise<readonly T[]>,
  ): Promise<readonly T[]> {
    if (mode === 'in-place') return all(trx, course)
    const wrote = new Set(
      placements.flatMap(each => (each.entity === entity && writes(each) ? each.lineage : [])),
    )
    return wrote.size === 0 ? [] : (await all(trx, course)).filter(({ lineage }) => wrote.has(lineage))
  }
  return {
    categories: await load('category', loadCategories),
    rubrics: await load('rubric', loadRubrics),
    groups: await load('group', loadGroups),
    furniture: await load('furnishing', loadFurniture),
  }
}
/**
 * Searches what a run has written once more, as it stands in the course now. @throws Refusal where something stands there that was to go:
 * nothing is kept of the run then.
 */
export async function auditTexts(
  trx: Knex,
  { plan, input, compiled }: { plan: Plan; input: CompileInput; compiled: CompiledPlan },
  { stands, known, people }: { stands: readonly StandingNode[]; known: TracesFound; people: SearchedPeople },
): Promise<Omit<TraceRecord, 'tables'>> {
  const around = await aroundWritten(trx, plan, compiled.placements)
  const sourceOf = new Map(compiled.placements.filter(writes).map(({ lineage, source }) => [lineage, source]))
  // In place all of the course is what the run leaves.
  if (plan.mode === 'in-place')
    for (const { lineage } of Object.values(around).flat()) sourceOf.set(lineage, lineage)
  const { titles: titlesKnown, bodies } = searchedBefore(input, plan)
  const looks = stands.filter(
    ({ lineage, state, title, body, hasSettings }) =>
      state !== 'deleted' &&
      sourceOf.has(lineage) &&
      (hasSettings || !titlesKnown.has(title) || (body !== null && !bodies.has(body))),
  )
  const nodes = await nodesToSearch(
    trx,
    writtenCourse(plan),
    looks.map(({ lineage }) => lineage),
  )
  const side = { side: { ...around, nodes: [...nodes.values()] }, items: nodes, keyIn: (key: string) => key }
  const { found } = await lookThrough(trx, [side], people, bodies)
  const { answers } = plan.document.traces
  const before = new Map(input.traces.map(trace => [trace.id, trace]))
  const asBefore = (trace: Trace): Trace | undefined => {
    const source = sourceOf.get(trace.on) ?? trace.on
    return before.get(trace.kinds ? tableId(source) : traceId(source, trace.place, trace.text))
  }
  const strong = found.filter(trace => trace.isStrong)
  const isAnswered = (trace: Trace, ...wanted: (string | null)[]): boolean => {
    const was = asBefore(trace)
    return was !== undefined && wanted.includes(answerOf(was, answers))
  }
  const { made } = plan.document.added
  const { titles } = plan.document.places
  /** What somebody wrote in the plan itself is theirs to write; it is told in the record. */
  const isOwn = ({ on, place }: Trace): boolean => {
    const source = sourceOf.get(on) ?? on
    return made[source] !== undefined || (place === 'title' && titles[source] !== undefined)
  }
  // Whatever else stands there was to go, or was not found before.
  const failed = strong.filter(trace => !isAnswered(trace, 'keep') && !isOwn(trace))
  if (failed[0]) throw refuse('audit-found-trace', { title: failed[0].title, count: failed.length })
  const carried = new Set(compiled.placements.filter(writes).map(({ source }) => source))
  const kept = tracesOf(input, carried).filter(trace => answerOf(trace, answers) === 'keep')
  const { passedOver: _, ...looked } = known.looked
  return {
    looked,
    out: compiled.effect.traces.out,
    kept: kept.map(({ id, title, place }) => ({
      title: title,
      place,
      because: answers[id]?.because ?? '',
      by: answers[id]?.by ?? '',
    })),
    left: strong.filter(trace => !isAnswered(trace, 'keep')).length,
  }
}
