import type { Knex } from 'knex'
import { tracesOf, type CompiledPlan } from '../../core/plan/compile'
import type { Placement } from '../../core/plan/effect'
import type { CompileInput } from '../../core/plan/ledger'
import { isComposed } from '../../core/carry/texts'
import { titlesNamingNobody } from '../../core/plan/redacted'
import { tableId, wordIdOf, type SearchedPeople } from '../../core/student-data/traces/find'
import { traceKinds } from '../../core/student-data/traces/people'
import { openBody } from '../../core/student-data/traces/readers/open'
import type { TraceRecord } from '../../core/student-data/traces/record'
import {
  bodyPart,
  editsByThing,
  isEditedOnlyThere,
  titlePart,
  type ThingEdits,
} from '../../core/student-data/traces/redact'
import { answerOf, decisionOf, type Trace } from '../../core/student-data/traces/trace'
import {
  loadCategories,
  loadFurniture,
  loadGradeRules,
  loadGroups,
  loadRubrics,
} from '../courses/around.queries'
import type { StandingNode } from '../courses/content.queries'
import { refuse } from '../errors/refusal'
import { sidesOfPlan, writtenCourse, type Plan } from '../plans/plans.queries'
import { lookThrough, type SearchedContent } from './look-through'
import { readPdf } from '../search/pdf'
import { loadBodies, nodesToSearch, type NodeToSearch } from './traces.queries'
import { type TracesFound } from '../plans/traces.queries'

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
  const searched = input.brought.sides.slice(0, sidesOfPlan(plan).length)
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
    grading:
      mode === 'in-place' || placements.some(({ entity }) => entity === 'rules')
        ? await loadGradeRules(trx, course)
        : null,
  }
}
/** What a run has written, as it stands in the course now. */
interface Written {
  readonly plan: Plan
  readonly input: CompileInput
  readonly compiled: CompiledPlan
  readonly stands: readonly StandingNode[]
  /** The source's thing of each that was written, by its key in the course. */
  readonly sourceOf: ReadonlyMap<string, string>
}
/** Whether somebody wrote something in the plan itself: that is theirs to write. */
function isOwnWith({ plan, sourceOf }: Written): (thing: Pick<Trace, 'on' | 'place'>) => boolean {
  const { made } = plan.document.added
  const { titles } = plan.document.places
  return ({ on, place }) => {
    const source = sourceOf.get(on) ?? on
    return made[source] !== undefined || (place === 'title' && titles[source] !== undefined)
  }
}
/**
 * Compares what was written with what was shown: titles and texts in which something was edited must be the source's, but for just those
 * stretches. @throws Refusal where one is not. A text that was put together of several has no source to be compared with.
 */
async function auditEdits(trx: Knex, { plan, input, compiled, stands, sourceOf }: Written): Promise<void> {
  const edits = editsByThing(input.traces, plan.document.traces.answers)
  const nodes = new Map(input.brought.sides.flatMap(side => side.nodes.map(node => [node.lineage, node])))
  const rows = new Map(compiled.rows.map(row => [row.source?.lineage, row]))
  const wrote = stands.filter(({ lineage }) => edits.has(sourceOf.get(lineage) ?? ''))
  const asWritten = await nodesToSearch(
    trx,
    writtenCourse(plan),
    wrote.map(({ lineage }) => lineage),
  )
  for (const { lineage, title, body } of wrote) {
    const source = nodes.get(sourceOf.get(lineage) ?? '')
    const own = source && edits.get(source.lineage)
    if (!source || !own) continue
    const refused = (): Error => refuse('audit-changed-elsewhere', { title: source.title })
    const row = rows.get(source.lineage)
    const takes = (part: 'title' | 'text'): boolean =>
      row?.happens !== 'again' || row.parts.some(each => each.part === part && each.takes)
    const isOwnTitle = plan.document.places.titles[source.lineage] !== undefined
    const ofTitle = own.get(titlePart) ?? []
    if (!isOwnTitle && takes('title') && !isEditedOnlyThere(source.title, title, ofTitle)) throw refused()
    const isWhole = row?.text && !isComposed(row.text) && !row.text.isFrame
    if (!isWhole || !takes('text') || source.body === null || body === null) continue
    if (!(await isSameBody(trx, [source.body, body], { own, item: asWritten.get(lineage) }))) throw refused()
  }
}
async function isSameBody(
  trx: Knex,
  hashes: readonly [before: string, after: string],
  { own, item }: { own: ThingEdits; item: Pick<NodeToSearch, 'media_type' | 'settings'> | undefined },
): Promise<boolean> {
  if (hashes[0] === hashes[1]) return ![...own.keys()].some(part => part.startsWith(bodyPart('')))
  const bodies = await loadBodies(trx, hashes)
  const facts = { name: String(item?.settings.fileName ?? ''), mediaType: item?.media_type ?? '' }
  const opened = await Promise.all(
    hashes.map(hash => openBody({ ...facts, bytes: bodies.get(hash) ?? Buffer.alloc(0) }, readPdf)),
  )
  const [before, after] = opened.map(each => ('why' in each ? null : each.open.parts))
  if (!before || !after || before.length !== after.length) return false
  return before.every(({ name, raw }, at) =>
    isEditedOnlyThere(raw, after[at]?.raw ?? '', own.get(bodyPart(name)) ?? []),
  )
}
/**
 * Searches what a run has written once more, as it stands in the course now, and compares it with what was shown. @throws Refusal where
 * something stands there that was to go, or changed that nobody was shown: nothing is kept of the run then.
 */
export async function auditTexts(
  trx: Knex,
  { plan, input, compiled }: { plan: Plan; input: CompileInput; compiled: CompiledPlan },
  { stands, known, people }: { stands: readonly StandingNode[]; known: TracesFound; people: SearchedPeople },
): Promise<Omit<TraceRecord, 'tables'>> {
  const around = await aroundWritten(trx, plan, compiled.placements)
  const sourceOf = new Map(compiled.placements.filter(writes).map(({ lineage, source }) => [lineage, source]))
  // In place all of the course is what the run leaves.
  if (plan.mode === 'in-place') {
    const { grading: _, ...lists } = around
    for (const { lineage } of Object.values(lists).flat()) sourceOf.set(lineage, lineage)
  }
  const all: Written = { plan, input, compiled, stands, sourceOf }
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
  const isOwn = isOwnWith(all)
  const strong = found.filter(trace => traceKinds[trace.kind].isStrong)
  const left = beyondKept(strong, all)
  // Whatever else stands there was to go, or was not found before.
  const failed = left.filter(trace => !isOwn(trace))
  if (failed[0]) throw refuse('audit-found-trace', { title: failed[0].title, count: failed.length })
  await auditEdits(trx, all)
  return { ...told(all, known), left: left.length }
}
/** Of traces found in what was written, those that nobody said should stay: words that stay in a thing are told as often as they were to stay. */
function beyondKept(strong: readonly Trace[], { plan, input, sourceOf }: Written): Trace[] {
  const { answers } = plan.document.traces
  const rules = input.traces.find(({ entity }) => entity === 'rules')?.on
  const kept = new Map<string, number>()
  for (const trace of input.traces)
    if (answerOf(trace, answers) === 'keep')
      kept.set(trace.wordId, (kept.get(trace.wordId) ?? 0) + trace.count)
  return strong.filter(trace => {
    const on = trace.entity === 'rules' ? (rules ?? trace.on) : (sourceOf.get(trace.on) ?? trace.on)
    const word = trace.kinds ? tableId(on) : wordIdOf(on, trace.place, trace.text)
    const stays = kept.get(word) ?? 0
    kept.set(word, stays - trace.count)
    return stays < trace.count
  })
}
/** What the record says of what was searched before: it names nobody. */
function told({ plan, input, compiled }: Written, known: TracesFound): Omit<TraceRecord, 'tables' | 'left'> {
  const { answers, unseen: agreed } = plan.document.traces
  const tell = titlesNamingNobody(input.traces, answers)
  const inNames = new Set(input.traces.flatMap(({ place, on }) => (place === 'fileName' ? [on] : [])))
  const all = tracesOf(input, compiled.written)
  const { passedOver: _, unseen, ...looked } = known.looked
  const kept = all.flatMap(trace => {
    const decision = decisionOf(trace, answers)
    return decision?.does === 'keep' ? [{ trace, decision }] : []
  })
  return {
    looked,
    unseen: unseen
      .filter(({ on }) => compiled.written.has(on))
      .map(({ id, on, title, file, why, size }) => ({
        // A file’s own name may name somebody; then its thing’s title is enough.
        title: file === null || inNames.has(on) ? tell(title) : `${tell(title)} (${file})`,
        why,
        size,
        by: agreed[id]?.by ?? '',
      })),
    out: compiled.effect.traces.out,
    passed: compiled.effect.traces.passed,
    kept: kept.map(({ trace, decision: { because, by } }) => ({
      title: tell(trace.title),
      place: trace.place,
      because,
      by,
    })),
  }
}
