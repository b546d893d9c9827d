import { defineStore } from 'pinia'
import { compileTerm } from '~~/core/calendar/term'
import { carriedOf } from '~~/core/carry/select'
import type { Rule } from '~~/core/dates/rule'
import type { PlanDocument } from '~~/core/plan/document'
import type { PlanReply, PlanSaved } from '~~/shared/api/plans'
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
  let revision = 0
  let timer: ReturnType<typeof setTimeout> | undefined
  let sent: Promise<void> = Promise.resolve()

  function take(loaded: PlanReply): void {
    plan.value = loaded
    dates.pair(loaded)
    document.value = loaded.document
    revision = loaded.revision
    saving.value = 'saved'
    savingProblem.value = null
    problem.value = null
  }
  async function load(id: string): Promise<void> {
    if (plan.value?.id !== id) { plan.value = null; ledger.value = null; past.value = []; future.value = [] }
    try { take(await api.get<PlanReply>(`/plans/${id}`)) }
    catch (error) { problem.value = asProblem(error) }
  }

  const terms = computed(() => plan.value && { source: compileTerm(plan.value.source.calendar), target: compileTerm(plan.value.target.calendar) })
  const carried = computed(() => plan.value && document.value ? carriedOf(plan.value.source.nodes, new Set(document.value.carry.leave)) : new Set<string>())
  /** Where every date lands, from the worker; the last answer stays until the next is there. */
  const ledger = shallowRef<Ledger | null>(null)
  const comparison = shallowRef<Comparison | null>(null)
  const dates = datesClient((answer) => {
    if (answer.type === 'ledger') ledger.value = { summary: answer.summary, items: unpackItems(answer.items) }
    else comparison.value = answer.comparison
  })
  watch(document, (next) => { if (next) dates.plan(next) })
  const planned = computed(() => new Map(ledger.value?.items.map(item => [item.id, item]) ?? []))
  const counts = computed(() => {
    const items = plan.value?.source.nodes.filter(node => node.type === 'item') ?? []
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
  const changeDates = (dates: Partial<PlanDocument['dates']>): void => change({ ...document.value!, dates: { ...document.value!.dates, ...dates } })
  const changeRule = (rule: Rule): void => changeDates({ rule })
  /** Holds an item at given dates, or (null) lets it go. */
  function hold(lineage: string, dates: { opens: string | null, due: string | null, closes: string | null } | null): void {
    const { [lineage]: _, ...rest } = document.value!.dates.itemRules
    const common = { weekdays: {}, times: { opens: 'keep', due: 'keep', closes: 'keep' }, closures: { opens: 'keep', due: 'next', closes: 'next' } } as const
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
        plan.value = { ...plan.value, revision, savedAt: saved.savedAt }
        saving.value = document.value === mine ? 'saved' : 'waiting'
        savingProblem.value = null
      }
      catch (error) {
        savingProblem.value = asProblem(error)
        saving.value = savingProblem.value.status === 412 ? 'conflict' : 'failed'
      }
    })
    return sent
  }
  /** After a conflict: keep this page's document, over the one saved elsewhere. */
  async function keepMine(): Promise<void> {
    const mine = document.value!
    const theirs = await api.get<PlanReply>(`/plans/${plan.value!.id}`)
    take(theirs)
    put(mine)
    await save()
  }
  async function takeTheirs(): Promise<void> {
    past.value = [...past.value, document.value!]
    await load(plan.value!.id)
  }
  /** Takes another course to roll from. Decisions about items of the old source fall away. */
  async function changeSource(source: string): Promise<void> {
    await save()
    const kept = document.value!
    await api.put<PlanSaved>(`/plans/${plan.value!.id}`, { document: { ...kept, carry: { leave: [] }, dates: { ...kept.dates, unitRules: {}, itemRules: {} } }, source }, revision)
    past.value = []
    future.value = []
    await load(plan.value!.id)
  }
  return { plan, document, problem, saving, savingProblem, terms, carried, ledger, comparison, planned, counts, past, future, load, change, changeRule, changeDates, hold, leave, undo, redo, save, keepMine, takeTheirs, changeSource }
})
