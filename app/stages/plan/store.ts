import { useManualRefHistory } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { forOtherSource, type PlanDocument } from '~~/core/plan/document'
import type { PlanReply, PlanSaved } from '~~/shared/api/plans'
import { api, asProblem, present, type ApiProblem } from '~/composables/api'
import { usePlanBase } from './base'
import { usePlanChanges } from './changes'
import { fetchPlan } from './fetch'
import { usePlanFollows } from './follows'
import { usePlannedDates } from './planned-dates'
import { isSame, useSaving, type Elsewhere } from './saving'
import { useKeptSteps } from './steps'
import { useTakenThings } from './taken'
import { useTraces } from './traces'

const stepsKept = 200

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

  const { places, comingTraces, nodes, filed, dated, summary, counts, toSettle } = usePlanFollows({
    plan,
    document,
    base,
    brought,
    dates,
    traces,
  })

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

  const changes = usePlanChanges(document, change)
  const { changeIn } = changes
  const taken = useTakenThings({ plan, document, nodes, saving, put, show, load })
  /** All courses that the plan brings from, in the order of its outline: its sources, then those of which it takes single items. */
  const sides = computed(() =>
    plan.value ? [plan.value.source, ...plan.value.more, ...plan.value.found] : [],
  )
  /** The course that something comes from; null for what is made in the plan. */
  const sideOf = (lineage: string) => sides.value[merged.value?.from.get(lineage) ?? 0] ?? null
  /** Takes things, with all that they need, or leaves them; answers what comes along. */
  function carry(lineages: readonly string[], carries: boolean): readonly string[] {
    const { leave: left, take, brought } = places.chosenWith(lineages, carries)
    changeIn('carry', { leave: left, take })
    return brought
  }
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
    const now = present(plan.value)
    const kept = present(document.value)
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
    lostLinks: places.lostLinks,
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
    /** What every date rests on; null until all of it is there. */
    datesInput: dates.input,
    ruleScope: dates.scope,
    over: dates.over,
    laidOver: dates.laidOver,
    planned: dates.planned,
    filed,
    canUndo: history.canUndo,
    canRedo: history.canRedo,
    load,
    change,
    ...changes,
    ...taken,
    sides,
    sideOf,
    carry,
    changeSources,
    changeBeside,
    allSaved,
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
    plan: computed(() => present(store.plan)),
    document: computed(() => present(store.document)),
  }
}
