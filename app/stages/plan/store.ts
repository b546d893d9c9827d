import { useManualRefHistory } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import type { FoundThing, MadeThing } from '~~/core/carry/added'
import { lineageOf } from '~~/core/course/lineage'
import type { ItemDates } from '~~/core/course/dates'
import { ruleBy } from '~~/core/dates/rule'
import { summarise } from '~~/core/dates/plan'
import { fileItems, type Filed } from '~~/core/grading/periods'
import type { PlanBase } from '~~/core/plan/base'
import { writtenFrom } from '~~/core/plan/carried'
import { forOtherSource, type PlanDocument } from '~~/core/plan/document'
import type { SectionFacts } from '~~/core/plan/parts/sections'
import { datesOfRow } from '~~/core/plan/placements'
import { nothingToSettle, toSettle as settleCounts } from '~~/core/plan/to-settle'
import type { Trace, TraceDecision } from '~~/core/student-data/traces/trace'
import type { QuestionChoice } from '~~/core/carry/decisions'
import type { PlanReply, PlanSaved } from '~~/shared/api/plans'
import { useAfterPaint } from '~/composables/after-paint'
import { api, asProblem, there, type ApiProblem } from '~/composables/api'
import { usePlanBase } from './base'
import { fetchPlan } from './fetch'
import { usePlannedPlaces } from './places'
import { usePlannedDates } from './planned-dates'
import { isSame, useSaving, type Elsewhere } from './saving'
import { useKeptSteps } from './steps'
import { useComingTraces, useTraces } from './traces'

const stepsKept = 200
const isShallowAlike = (a: object, b: object): boolean =>
  Object.entries(a).every(([name, value]) => value === (b as Record<string, unknown>)[name])

/**
 * The plan at hand: its document as it is being made, what follows from it, undo and redo, and saving as one goes. Every
 * change makes a new document, so a step back is the document before.
 */
export const usePlan = defineStore('plan', () => {
  const plan = shallowRef<PlanReply | null>(null)
  const document = shallowRef<PlanDocument | null>(null)
  const problem = shallowRef<ApiProblem | null>(null)
  const history = useManualRefHistory(document, { capacity: stepsKept })
  const steps = useKeptSteps(history)
  const keepSteps = (): void => {
    if (plan.value) steps.keep(plan.value.id)
  }
  /** What another person changed and is shown here now, or where both changed one thing. */
  const elsewhere = ref<Elsewhere | null>(null)
  const saving = useSaving({ plan, document, elsewhere, show, change: put })
  const traces = useTraces(plan)
  const { base, brought, merged } = usePlanBase({
    plan,
    document,
    traces: traces.found,
    unseen: traces.unseen,
  })
  const dates = usePlannedDates({ plan, base, brought })

  /** Shows a plan as the server has it. A step back leads to what was shown before. */
  function show(loaded: PlanReply): void {
    plan.value = loaded
    if (!isSame(document.value, loaded.document)) {
      document.value = loaded.document
      history.commit()
    }
    saving.saved(loaded)
    problem.value = null
  }
  /** Forgets the plan that was shown: another is wanted. */
  function forget(): void {
    plan.value = null
    document.value = null
    elsewhere.value = null
  }
  async function load(id: string): Promise<void> {
    const isOther = plan.value?.id !== id
    if (isOther) {
      steps.keepNow()
      forget()
    }
    try {
      const loaded = await fetchPlan(id)
      show(loaded)
      if (isOther) {
        forgetSteps()
        steps.restore(id, loaded.document)
      }
    } catch (error) {
      problem.value = asProblem(error)
    }
  }
  /** What is shown now is where steps begin: nothing before it can be gone back to. */
  const forgetSteps = (): void => history.clear()

  // Of places, only what the shell has from before rests on dates: who changes a rule sees the ledger of dates first.
  const late = useAfterPaint(
    () => ({ plan: plan.value?.id, dates: document.value?.dates, planned: dates.planned.value }),
    () => dates.planned.value,
  )
  const latePlanned = computed(() => late.value.planned)
  const placed = computed<PlanBase | null>(before => {
    const { value: now } = base
    if (!now) return null
    const seen = late.value.plan === plan.value?.id ? late.value.dates : null
    const next = { ...now, document: { ...now.document, dates: seen ?? now.document.dates } }
    const isAlike =
      before &&
      isShallowAlike({ ...before, document: null }, { ...next, document: null }) &&
      isShallowAlike(before.document, next.document)
    return isAlike ? before : next
  })
  const links = computed(() => plan.value?.links ?? null)
  const places = usePlannedPlaces({ base: placed, brought, links, planned: latePlanned })
  const written = computed((): ReadonlySet<string> =>
    base.value && places.carrying.value ? writtenFrom(base.value, places.carrying.value) : new Set(),
  )
  const comingTraces = useComingTraces({
    found: traces.found,
    unseen: traces.unseen,
    written,
    rows: places.rows,
    document,
  })
  const nodes = computed(() => merged.value?.nodes ?? [])
  const periods = computed(() => dates.terms.value?.target.gradingPeriods ?? [])
  // Not of the document: another rule changes nothing here until its dates are there.
  const periodsChosen = computed(() => document.value?.dates.periods)
  /** The grading period of each item that counts, by lineage; none where the new term has none. */
  const filed = computed((): ReadonlyMap<string, Filed> => {
    const planned = dates.planned.value
    if (periods.value.length === 0) return new Map()
    const there = nodes.value.filter(node => planned.has(node.lineage))
    return fileItems({
      nodes: there,
      dates: planned,
      periods: periods.value,
      chosen: periodsChosen.value ?? {},
    })
  })
  /** The dates that a run would write: what the shell has from before keeps its own. */
  const datesToWrite = computed(() =>
    places.rows.value.flatMap(row => datesOfRow(row, dates.planned.value) ?? []),
  )
  const dated = computed(() => new Set(datesToWrite.value.map(({ id }) => id)))
  const summary = computed(() => (dates.ledger.value ? summarise(datesToWrite.value) : null))
  const counts = computed(() => {
    const items = nodes.value.filter(node => node.type === 'item')
    const coming = items.filter(node => places.carried.value.has(node.lineage))
    const there = new Set(['there', 'again'])
    const already = places.rows.value.filter(row => row.type === 'item' && there.has(row.happens)).length
    return { items: items.length, carried: coming.length, already }
  })
  const toSettle = computed(() =>
    base.value && places.carrying.value
      ? settleCounts({
          document: base.value.document,
          rows: places.rows.value,
          grades: places.carrying.value.grades,
          uncategorised: places.uncategorised.value,
          traces: comingTraces.coming.value,
          unseen: comingTraces.comingUnseen.value,
          byHand: base.value.byHand,
          dates: datesToWrite.value,
          periods: datesToWrite.value.flatMap(({ id }) => filed.value.get(id) ?? []),
        })
      : nothingToSettle,
  )

  /** Changes the document: the one before can be gone back to, and the change is saved soon. */
  function change(next: PlanDocument): void {
    if (plan.value?.may.edit) put(next)
  }
  function put(next: PlanDocument): void {
    document.value = next
    history.commit()
    keepSteps()
    saving.soon()
  }
  function undo(): void {
    if (!history.canUndo.value || !plan.value?.may.edit) return
    history.undo()
    keepSteps()
    saving.soon()
  }
  function redo(): void {
    if (!history.canRedo.value || !plan.value?.may.edit) return
    history.redo()
    keepSteps()
    saving.soon()
  }

  const changePart = <N extends keyof PlanDocument>(name: N, value: PlanDocument[N]): void =>
    change({ ...there(document.value), [name]: value })
  const changeDates = (changed: Partial<PlanDocument['dates']>): void =>
    changePart('dates', { ...there(document.value).dates, ...changed })
  /** Files items under a grading period; null: under the one that their dates say. */
  function fileUnder(lineages: readonly string[], period: string | null): void {
    const periods = Object.entries(there(document.value).dates.periods).filter(
      ([lineage]) => !lineages.includes(lineage),
    )
    const chosen = period === null ? [] : lineages.map(lineage => [lineage, period] as const)
    changeDates({ periods: Object.fromEntries([...periods, ...chosen]) })
  }
  const changeGrace = (grace: PlanDocument['grace']): void => changePart('grace', grace)
  const changeNames = (changed: Partial<PlanDocument['names']>): void =>
    changePart('names', { ...there(document.value).names, ...changed })
  const changeWindows = (windows: PlanDocument['windows']): void => changePart('windows', windows)
  const changeSection = (id: string, facts: SectionFacts): void =>
    changePart('sections', { ...there(document.value).sections, [id]: facts })
  const changeCarry = (changed: Partial<PlanDocument['carry']>): void =>
    changePart('carry', { ...there(document.value).carry, ...changed })
  const changePlaces = (changed: Partial<PlanDocument['places']>): void =>
    changePart('places', { ...there(document.value).places, ...changed })
  const changeGrades = (changed: Partial<PlanDocument['grades']>): void =>
    changePart('grades', { ...there(document.value).grades, ...changed })
  const changeClearing = (changed: Partial<PlanDocument['clearing']>): void =>
    changePart('clearing', { ...there(document.value).clearing, ...changed })
  const changeAdded = (changed: Partial<PlanDocument['added']>): void =>
    changePart('added', { ...there(document.value).added, ...changed })
  const leave = (lineages: string[]): void => changeCarry({ leave: lineages })
  /** Says what becomes of some traces of students; null: what is proposed. */
  function settle(traceIds: readonly string[], decision: TraceDecision | null): void {
    const now = there(document.value).traces
    const rest = Object.entries(now.answers).filter(([id]) => !traceIds.includes(id))
    const made = decision ? traceIds.map(id => [id, decision] as const) : []
    changePart('traces', { ...now, answers: Object.fromEntries([...rest, ...made]) })
  }
  /** Says that files come though they could not be looked into; null: nobody says so any more. */
  function agreeUnseen(ids: readonly string[], by: string | null): void {
    const now = there(document.value).traces
    const rest = Object.entries(now.unseen).filter(([id]) => !ids.includes(id))
    const made = by === null ? [] : ids.map(id => [id, { by }] as const)
    changePart('traces', { ...now, unseen: Object.fromEntries([...rest, ...made]) })
  }
  /** Gives each place of a word a decision of its own, where an older plan made one for all of them. */
  function tellApart(all: readonly Trace[]): void {
    const now = there(document.value).traces
    const apart = all.flatMap(({ id, wordId }) => {
      const decided = now.answers[wordId]
      return decided && !now.answers[id] ? [[id, decided] as const] : []
    })
    const words = new Set(all.flatMap(({ id, wordId }) => (id === wordId ? [] : [wordId])))
    const rest = Object.entries(now.answers).filter(([id]) => !words.has(id))
    changePart('traces', { ...now, answers: Object.fromEntries([...rest, ...apart]) })
  }
  /** All courses that the plan brings from, in the order of its outline: its sources, then those of which it takes single items. */
  const sides = computed(() =>
    plan.value ? [plan.value.source, ...plan.value.more, ...plan.value.found] : [],
  )
  /** The course that something comes from; null for what is made in the plan. */
  const sideOf = (lineage: string) => sides.value[merged.value?.from.get(lineage) ?? 0] ?? null
  /** Adds a unit or an item of the plan's own, in a unit or outside; answers the key that it has from now on. */
  function make(thing: MadeThing, into: string | null): string {
    const now = there(document.value)
    const key = crypto.randomUUID()
    change({
      ...now,
      added: { ...now.added, made: { ...now.added.made, [key]: thing } },
      places: into === null ? now.places : { ...now.places, into: { ...now.places.into, [key]: into } },
    })
    return key
  }
  /** Takes items of a course that is no source, and what is decided of them at once. The plan is fetched anew, since it must know them. */
  async function take(
    wanted: Pick<FoundThing, 'course' | 'lineage'>,
    { by, into, questions }: { by: string; into: string | null; questions: QuestionChoice | null },
  ): Promise<string> {
    const now = there(document.value)
    const isKnown = nodes.value.some(node => node.lineage === wanted.lineage)
    const key = isKnown ? lineageOf(wanted.course, wanted.lineage) : wanted.lineage
    put({
      ...now,
      added: { ...now.added, found: { ...now.added.found, [key]: { ...wanted, by } } },
      places: {
        ...now.places,
        ...(into !== null && { into: { ...now.places.into, [key]: into } }),
        ...(questions && { questions: { ...now.places.questions, [key]: questions } }),
      },
    })
    await bringSides()
    return key
  }
  /** Takes everything out that was taken from a course that is no source. */
  async function takeOutCourse(course: string): Promise<void> {
    const { found } = there(document.value).added
    changeAdded({
      found: Object.fromEntries(Object.entries(found).filter(([, each]) => each.course !== course)),
    })
    await saving.save()
    await load(there(plan.value).id)
  }
  /** What the document takes of other courses that came with no answer of the server yet: taken just now, or by a step back or forward. */
  const unknownFound = computed(() => {
    const known = new Set(
      plan.value?.found.flatMap(({ course, nodes: all }) => all.map(each => `${course.id} ${each.lineage}`)),
    )
    const keys = Object.values(document.value?.added.found ?? {}).map(
      each => `${each.course} ${each.lineage}`,
    )
    return keys.filter(key => !known.has(key)).join()
  })
  /** What was asked for already: what a course does not have any more is not asked for again and again. */
  let askedFor = ''
  watch(unknownFound, unknown => {
    // What cannot be fetched now is there once the page is loaded again.
    if (unknown === '') askedFor = ''
    else if (unknown !== askedFor) bringSides().catch(() => {})
  })
  async function bringSides(): Promise<void> {
    askedFor = unknownFound.value
    await saving.saveAll()
    await fetchSides()
    // The answer may be of a document that did not have it, since a step back came before: then a step forward asks for the same again.
    if (unknownFound.value === '') askedFor = ''
  }
  /** Fetches the courses of the plan anew. What was changed here meanwhile stays as it is. */
  async function fetchSides(): Promise<void> {
    const loaded = await fetchPlan(there(plan.value).id)
    if (isSame(document.value, loaded.document)) return show(loaded)
    plan.value = loaded
  }
  /** Takes something that the plan added of its own out of it again. */
  function takeOut(lineage: string): void {
    const { made, found } = there(document.value).added
    const without = <V>({ [lineage]: _, ...rest }: Record<string, V>): Record<string, V> => rest
    changeAdded({ made: without(made), found: without(found) })
  }
  /** Takes things, with all that they need, or leaves them; answers what comes along. */
  function carry(lineages: readonly string[], carries: boolean): readonly string[] {
    const { leave: left, take, brought } = places.chosenWith(lineages, carries)
    changeCarry({ leave: left, take })
    return brought
  }
  /** Holds items at given dates, or (null) lets them go, in one step. */
  function holdAll(dates: ReadonlyMap<string, ItemDates | null>): void {
    const rules = Object.entries(there(document.value).dates.itemRules).filter(([key]) => !dates.has(key))
    for (const [lineage, at] of dates) if (at) rules.push([lineage, ruleBy('set', at)])
    changeDates({ itemRules: Object.fromEntries(rules) })
  }
  const hold = (lineage: string, at: ItemDates | null): void => holdAll(new Map([[lineage, at]]))

  /** What changes the plan on the server beside its document, as long as that is under way. */
  let beside: Promise<unknown> = Promise.resolve()
  function changeBeside<T>(work: () => Promise<T>): Promise<T> {
    const done = work()
    beside = Promise.allSettled([beside, done])
    return done
  }
  /** Whoever asks what the plan does waits until all of it is there as it is shown. */
  async function allSaved(): Promise<void> {
    await beside
    await saving.save()
  }
  /** Chooses other courses to roll from. Where another comes first, decisions about items of the old one fall away. */
  async function changeSources(sources: string[]): Promise<void> {
    await saving.save()
    const now = there(plan.value)
    const kept = there(document.value)
    const before = [now.source, ...now.more].map(side => side.course.id)
    const takesOut = sources.every(source => before.includes(source))
    const next = takesOut || sources[0] === before[0] ? kept : forOtherSource(kept)
    await changeBeside(async () => {
      await api.put<PlanSaved>(`/plans/${now.id}`, { document: next, sources }, saving.revision())
      await load(now.id)
    })
    forgetSteps()
  }

  return {
    plan,
    document,
    problem,
    elsewhere,
    saving: saving.state,
    savingProblem: saving.problem,
    merged,
    nodes,
    carried: places.carried,
    stays: places.stays,
    carrying: places.carrying,
    rows: places.rows,
    lost: places.lost,
    findings: places.findings,
    uncategorised: places.uncategorised,
    counts,
    summary,
    toSettle,
    traces: comingTraces.coming,
    tracesToSettle: comingTraces.toSettle,
    unseen: comingTraces.comingUnseen,
    unseenToSettle: comingTraces.unseenToSettle,
    tracesReply: traces.reply,
    isSearchingTraces: traces.isSearching,
    tracesProblem: traces.problem,
    loadTraces: traces.load,
    dated,
    terms: dates.terms,
    ledger: dates.ledger,
    comparison: dates.comparison,
    ruleScope: dates.scope,
    over: dates.over,
    laidOver: dates.laidOver,
    planned: dates.planned,
    filed,
    canUndo: history.canUndo,
    canRedo: history.canRedo,
    load,
    change,
    changeDates,
    fileUnder,
    changeGrace,
    changeNames,
    changeWindows,
    changeSection,
    changeCarry,
    changePlaces,
    changeGrades,
    changeAdded,
    changeClearing,
    sides,
    sideOf,
    make,
    take,
    takeOut,
    takeOutCourse,
    settle,
    agreeUnseen,
    tellApart,
    carry,
    changeSources,
    changeBeside,
    allSaved,
    hold,
    holdAll,
    leave,
    undo,
    redo,
    save: saving.save,
    choose: saving.choose,
    look: saving.look,
  }
})

/** The plan of a stage: a stage is shown once its plan is there. */
export function useStagePlan() {
  const store = usePlan()
  return {
    store,
    plan: computed(() => there(store.plan)),
    document: computed(() => there(store.document)),
  }
}
