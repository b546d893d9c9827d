import type { Knex } from 'knex'
import type { CarrySide, CompiledPlan, CompileInput, Placement } from '../../core/plan/compile'
import { traceId, tableId, type SearchedPeople } from '../../core/student-data/traces/find'
import type { TraceRecord } from '../../core/student-data/traces/record'
import { answerOf, type Trace } from '../../core/student-data/traces/trace'
import { sidesOf, tracesOf } from '../../core/plan/compile'
import { refuse } from '../errors/refusal'
import { writtenCourse, type Plan } from '../plans/plans.queries'
import { lookThrough } from './look-through'
import { tracedItems, type TracesFound } from './traces.queries'

/**
 * Bodies that the plan's own search has looked through, and of which nothing is to go: a body never changes under its hash, so that
 * where the same hash stands in the course now, nothing else stands in it. All others are read again.
 */
function searchedBefore(input: CompileInput, { document }: Plan): Set<string> {
  const open = new Set(
    input.traces.filter(trace => answerOf(trace, document.traces.answers) !== 'keep').map(({ on }) => on),
  )
  const nodes = sidesOf(input).flatMap(side => side.nodes)
  const hashes = new Set(nodes.flatMap(({ body }) => body ?? []))
  for (const { lineage, body } of nodes) if (body !== null && open.has(lineage)) hashes.delete(body)
  return hashes
}
const writes = ({ action }: Placement): boolean => !['moved', 'dated', 'cleared'].includes(action)
/**
 * Searches what a run has written once more, as it stands in the course now. @throws Refusal where something stands there that was to go:
 * nothing is kept of the run then.
 */
export async function auditTexts(
  trx: Knex,
  { plan, input, compiled }: { plan: Plan; input: CompileInput; compiled: CompiledPlan },
  { stands: side, known, people }: { stands: CarrySide; known: TracesFound; people: SearchedPeople },
): Promise<Omit<TraceRecord, 'tables'>> {
  const course = writtenCourse(plan)
  const sourceOf = new Map(compiled.placements.filter(writes).map(({ lineage, source }) => [lineage, source]))
  // In place all of the course is what the run leaves.
  if (plan.mode === 'in-place')
    for (const { lineage } of [side.categories, side.rubrics, side.groups, side.furniture].flat())
      sourceOf.set(lineage, lineage)
  const written = <T extends { readonly lineage: string }>(all: readonly T[]): T[] =>
    all.filter(({ lineage }) => sourceOf.has(lineage))
  const { found } = await lookThrough(
    trx,
    [
      {
        side: {
          ...side,
          nodes: written(side.nodes).filter(({ state }) => state !== 'deleted'),
          categories: written(side.categories),
          rubrics: written(side.rubrics),
          groups: written(side.groups),
          furniture: written(side.furniture),
        },
        items: await tracedItems(trx, course),
        keyIn: lineage => lineage,
      },
    ],
    people,
    searchedBefore(input, plan),
  )
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
