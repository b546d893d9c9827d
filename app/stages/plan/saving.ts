import { useDebounceFn } from '@vueuse/core'
import { ref, shallowRef, type Ref, type ShallowRef } from 'vue'
import type { PlanDocument } from '~~/core/plan/document'
import type { Choices, Clash } from '~~/core/plan/join'
import { mergePlans } from '~~/core/plan/merge'
import type { PlanReply, PlanSaved, PlanState } from '~~/shared/api/plans'
import { api, asProblem, present, type ApiProblem } from '~/composables/api'
import { fetchPlan } from './fetch'

export type Saving = 'saved' | 'waiting' | 'saving' | 'conflict' | 'failed'

/** What was changed elsewhere meanwhile: by whom, and what both changed, where nobody has chosen yet. */
export interface Elsewhere {
  by: string
  clashes: Clash[]
}
interface Saved {
  plan: ShallowRef<PlanReply | null>
  document: ShallowRef<PlanDocument | null>
  elsewhere: Ref<Elsewhere | null>
  /** Shows a plan as the server has it. */
  show: (loaded: PlanReply) => void
  /** Puts another document in its place, which is saved soon. */
  change: (next: PlanDocument) => void
}
const delay = 400
export const isSame = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b)

/** Saves a plan as one goes; joins what two people changed at once, and says where that cannot be done. */
export function useSaving({ plan, document, elsewhere, show, change }: Saved) {
  const state = ref<Saving>('saved')
  const problem = shallowRef<ApiProblem | null>(null)
  /** The document as it was last saved: what two people's changes are joined on. */
  let base: PlanDocument | null = null
  let revision = 0
  let sent: Promise<void> = Promise.resolve()
  const fetchNow = (): Promise<PlanReply> => fetchPlan(present(plan.value).id)

  function saved(loaded: PlanReply): void {
    base = loaded.document
    revision = loaded.revision
    state.value = 'saved'
    problem.value = null
  }
  const saveLater = useDebounceFn(() => save(), delay)
  function soon(): void {
    if (state.value !== 'conflict') state.value = 'waiting'
    void saveLater()
  }
  /** Saves what is waiting; resolves once the server has it (or has refused). One save follows another. */
  function save(): Promise<void> {
    sent = sent.then(send)
    return sent
  }
  /** Saves until the server has what is shown: what was joined with another's change meanwhile waits to be saved once more. */
  async function saveAll(): Promise<void> {
    for (let times = 0; times < 3; times++) {
      await save()
      if (state.value !== 'waiting') return
    }
  }
  async function send(): Promise<void> {
    const mine = document.value
    const now = plan.value
    if (!now || !mine || state.value === 'saved' || state.value === 'conflict') return
    state.value = 'saving'
    try {
      const reply = await api.put<PlanSaved>(`/plans/${now.id}`, { document: mine }, revision)
      revision = reply.revision
      base = mine
      plan.value = { ...now, revision, savedAt: reply.savedAt }
      state.value = document.value === mine ? 'saved' : 'waiting'
      problem.value = null
    } catch (error) {
      await refused(asProblem(error))
    }
  }
  async function refused(why: ApiProblem): Promise<void> {
    problem.value = why
    state.value = why.status === 412 ? 'conflict' : 'failed'
    if (state.value === 'conflict')
      await join().catch(() => {
        /* the note of the conflict stands */
      })
  }

  /**
   * Joins what was changed here and elsewhere since the last save. Where both changed one thing, both values are shown until
   * somebody has chosen one of them; a choice counts for the values it was made between.
   */
  async function join(choices: Choices = {}): Promise<void> {
    const theirs = await fetchNow()
    // What was saved here while it was fetched is newer than it.
    if (theirs.revision < revision) return
    // Only now: what was changed here meanwhile is among it.
    const [from, mine] = [base, document.value]
    if (!from || !mine) return
    const asked = elsewhere.value?.clashes ?? []
    const merged = mergePlans({ from, mine, theirs: theirs.document }, choices)
    const open = merged.clashes.filter(
      clash => !(clash.path in choices && asked.some(one => isSame(one, clash))),
    )
    elsewhere.value = { by: theirs.savedBy, clashes: open.length > 0 ? merged.clashes : [] }
    if (open.length > 0) {
      state.value = 'conflict'
      return
    }
    show(theirs)
    if (!isSame(merged.document, theirs.document)) change(merged.document)
  }
  const isSending = (): boolean => state.value === 'saving' || state.value === 'conflict'
  /** Looks whether the plan was changed elsewhere, and shows what was; tells who is writing into the shell. */
  async function look(): Promise<void> {
    if (!plan.value || isSending()) return
    const now = await api.get<PlanState>(`/plans/${plan.value.id}/state`).catch(() => null)
    const shown = plan.value
    // What is being sent by now may be the very change that the server told of.
    if (!now || !shown || isSending()) return
    // A run that is done is shown at once: without a run under way and not yet run, the page before it would come back meanwhile.
    if (now.state !== shown.state) return show(await fetchNow())
    const { writing, outcome } = now
    if (!isSame([writing, outcome], [shown.writing, shown.outcome]))
      plan.value = { ...shown, writing, outcome }
    if (now.revision > revision) await join()
  }
  /** After a conflict: joins both documents by what was chosen, and saves. What neither clashed about is kept of both. */
  async function choose(choices: Choices): Promise<void> {
    await join(choices)
    if (elsewhere.value?.clashes.length) return
    elsewhere.value = null
    await save()
  }
  return { state, problem, revision: () => revision, saved, soon, save, saveAll, look, choose }
}
