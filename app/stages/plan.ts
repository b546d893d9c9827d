import { defineStore } from 'pinia'
import { compileTerm } from '~~/core/calendar/term'
import { carriedOf } from '~~/core/carry/select'
import type { Rule } from '~~/core/dates/rule'
import type { PlanDocument } from '~~/core/plan/document'
import { mergePlans } from '~~/core/plan/merge'
import { mergeSources } from '~~/core/plan/sources'
import type { PlanReply, PlanSaved, PlanState } from '~~/shared/api/plans'
import type { ApiProblem } from '~/composables/api'
import { unpackItems } from '~/workers/packing'
import type { Comparison, Ledger } from '~/workers/messages'
import { datesClient } from './dates-client'

export type Saving = 'saved' | 'waiting' | 'saving' | 'conflict' | 'failed'

/**
 * The plan at hand: its document as it is being made, what follows from it, undo and redo, and saving as one goes. Every
 * change makes a new document, so a step back is the document before.
 */
export const usePlan = defineStore('plan', () => {
  const plan = shallowRef<PlanReply | null>(null)
  const document = shallowRef<PlanDocument | null>(null)
  const problem = shallowRef<ApiProblem | null>(null)
  const saving = ref<Saving>('saved')
  const savingProblem = shallowRef<ApiProblem | null>(null)
  const past = shallowRef<PlanDocument[]>([])
  const future = shallowRef<PlanDocument[]>([])
  /** The document as it was last saved: what two people's changes are joined on. */
  let base: PlanDocument | null = null
  /** What another person changed and this page took over, or where both changed one thing. */
  const elsewhere = ref<{ by: string; clashes: string[] } | null>(null)
  let revision = 0
  let timer: ReturnType<typeof setTimeout> | undefined
  let sent: Promise<void> = Promise.resolve()

  function take(loaded: PlanReply): void {
    plan.value = loaded
    dates.pair(loaded)
    document.value = loaded.document
    base = loaded.document
    revision = loaded.revision
    saving.value = 'saved'
    savingProblem.value = null
    problem.value = null
  }
  async function load(id: string): Promise<void> {
    if (plan.value?.id !== id) {
      plan.value = null
      ledger.value = null
      past.value = []
      future.value = []
      elsewhere.value = null
    }
    try {
      take(await api.get<PlanReply>(`/plans/${id}`))
    } catch (error) {
      problem.value = asProblem(error)
    }
  }

  const terms = computed(
    () =>
      plan.value && {
        source: compileTerm(plan.value.source.calendar),
        target: compileTerm(plan.value.target.calendar),
      },
  )
  /** All sources as one outline, in their order. */
  const merged = computed(() => (plan.value ? mergeSources([plan.value.source, ...plan.value.more]) : null))
  const nodes = computed(() => merged.value?.nodes ?? [])
  const carried = computed(() =>
    document.value ? carriedOf(nodes.value, new Set(document.value.carry.leave)) : new Set<string>(),
  )
  /** Where every date lands, from the worker; the last answer stays until the next is there. */
  const ledger = shallowRef<Ledger | null>(null)
  const comparison = shallowRef<Comparison | null>(null)
  const dates = datesClient(answer => {
    if (answer.type === 'ledger') ledger.value = { summary: answer.summary, items: unpackItems(answer.items) }
    else comparison.value = answer.comparison
  })
  watch(document, next => {
    if (next) dates.plan(next)
  })
  const planned = computed(() => new Map(ledger.value?.items.map(item => [item.id, item]) ?? []))
  const counts = computed(() => {
    const items = nodes.value.filter(node => node.type === 'item')
    return { items: items.length, carried: items.filter(node => carried.value.has(node.lineage)).length }
  })

  /** Changes the document: remembers the one before, and saves soon. */
  function change(next: PlanDocument): void {
    if (!document.value || !plan.value?.may.edit) return
    past.value = [...past.value.slice(-199), document.value]
    future.value = []
    put(next)
  }
  function put(next: PlanDocument): void {
    document.value = next
    if (saving.value !== 'conflict') saving.value = 'waiting'
    clearTimeout(timer)
    timer = setTimeout(() => void save(), 400)
  }
  function step(from: typeof past, to: typeof past): void {
    const next = from.value.at(-1)
    if (!next || !document.value) return
    to.value = [...to.value, document.value]
    from.value = from.value.slice(0, -1)
    put(next)
  }
  const undo = (): void => step(past, future)
  const redo = (): void => step(future, past)
  const changeDates = (dates: Partial<PlanDocument['dates']>): void =>
    change({ ...document.value!, dates: { ...document.value!.dates, ...dates } })
  const changeRule = (rule: Rule): void => changeDates({ rule })
  /** Holds an item at given dates, or (null) lets it go. */
  function hold(
    lineage: string,
    dates: { opens: string | null; due: string | null; closes: string | null } | null,
  ): void {
    const { [lineage]: _, ...rest } = document.value!.dates.itemRules
    const common = {
      weekdays: {},
      times: { opens: 'keep', due: 'keep', closes: 'keep' },
      closures: { opens: 'keep', due: 'next', closes: 'next' },
    } as const
    changeDates({ itemRules: dates ? { ...rest, [lineage]: { method: 'set', ...dates, ...common } } : rest })
  }
  const leave = (lineages: string[]): void => change({ ...document.value!, carry: { leave: lineages } })

  /** Saves what is waiting; resolves once the server has it (or has refused). */
  function save(): Promise<void> {
    clearTimeout(timer)
    sent = sent.then(async () => {
      const mine = document.value
      if (!plan.value || !mine || saving.value === 'saved' || saving.value === 'conflict') return
      saving.value = 'saving'
      try {
        const saved = await api.put<PlanSaved>(`/plans/${plan.value.id}`, { document: mine }, revision)
        revision = saved.revision
        base = mine
        plan.value = { ...plan.value, revision, savedAt: saved.savedAt }
        saving.value = document.value === mine ? 'saved' : 'waiting'
        savingProblem.value = null
      } catch (error) {
        savingProblem.value = asProblem(error)
        saving.value = savingProblem.value.status === 412 ? 'conflict' : 'failed'
        if (saving.value === 'conflict')
          await join().catch(() => {
            /* the note of the conflict stands */
          })
      }
    })
    return sent
  }
  /** Joins what was changed here and elsewhere since the last save. Where both changed one thing, it is said and nobody's change is lost. */
  async function join(): Promise<void> {
    const [from, mine] = [base, document.value]
    if (!plan.value || !from || !mine) return
    const theirs = await api.get<PlanReply>(`/plans/${plan.value.id}`)
    const merged = mergePlans(from, mine, theirs.document)
    elsewhere.value = { by: theirs.savedBy, clashes: merged.clashes }
    if (merged.clashes.length > 0) return
    const undone = past.value
    take(theirs)
    past.value = [...undone, theirs.document]
    if (JSON.stringify(merged.document) !== JSON.stringify(theirs.document)) put(merged.document)
  }
  /** Looks whether the plan was changed elsewhere, and takes over what was; tells who is writing into the shell. */
  async function look(): Promise<void> {
    if (!plan.value || saving.value === 'saving' || saving.value === 'conflict') return
    const state = await api.get<PlanState>(`/plans/${plan.value.id}/state`).catch(() => null)
    if (!state || !plan.value) return
    if (JSON.stringify(state.writing) !== JSON.stringify(plan.value.writing))
      plan.value = { ...plan.value, writing: state.writing }
    if (state.revision === revision && state.state === plan.value.state) return
    if (state.state !== plan.value.state) return load(plan.value.id)
    await join()
  }
  /** After a conflict: keep this page's document, over the one saved elsewhere. */
  async function keepMine(): Promise<void> {
    const mine = document.value!
    const theirs = await api.get<PlanReply>(`/plans/${plan.value!.id}`)
    take(theirs)
    elsewhere.value = null
    put(mine)
    await save()
  }
  async function takeTheirs(): Promise<void> {
    past.value = [...past.value, document.value!]
    elsewhere.value = null
    await load(plan.value!.id)
  }
  /** Takes other courses to roll from. Where the first is another, decisions about items of the old one fall away. */
  async function changeSources(sources: string[]): Promise<void> {
    await save()
    const kept = document.value!
    const sameFirst = sources[0] === plan.value!.source.course.id
    const next = sameFirst
      ? kept
      : { ...kept, carry: { leave: [] }, dates: { ...kept.dates, unitRules: {}, itemRules: {} } }
    await api.put<PlanSaved>(`/plans/${plan.value!.id}`, { document: next, sources }, revision)
    past.value = []
    future.value = []
    await load(plan.value!.id)
  }
  const changeNames = (names: Partial<PlanDocument['names']>): void =>
    change({ ...document.value!, names: { ...document.value!.names, ...names } })
  const changeWindows = (windows: PlanDocument['windows']): void => change({ ...document.value!, windows })
  return {
    plan,
    document,
    problem,
    saving,
    savingProblem,
    elsewhere,
    merged,
    nodes,
    terms,
    carried,
    ledger,
    comparison,
    planned,
    counts,
    past,
    future,
    load,
    change,
    changeRule,
    changeDates,
    hold,
    leave,
    undo,
    redo,
    save,
    keepMine,
    takeTheirs,
    look,
    changeSources,
    changeNames,
    changeWindows,
  }
})
