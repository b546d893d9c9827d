import { computed, ref, watch, type Ref } from 'vue'
import { arriving } from '~~/core/plan/effect-text'
import type { EffectReply, PlanReply } from '~~/shared/api/plans'
import { api, asProblem, useLoaded } from '~/composables/api'
import { codeText, counted } from '~/composables/words'

type SetEntry = PlanReply['set'][number]
/** A further shell of the plan, with what running would do to it. */
export interface FurtherEffect extends EffectReply {
  entry: SetEntry
}
export interface FurtherOutcome {
  name: string
  text: string
  good: boolean
}
const effectOf = async (entry: SetEntry): Promise<FurtherEffect> => ({
  entry,
  ...(await api.get<EffectReply>(`/plans/${entry.id}/effect`)),
})
async function runOne({ entry, fingerprint, effect }: FurtherEffect): Promise<FurtherOutcome> {
  const name = codeText(entry.course)
  try {
    await api.post(`/plans/${entry.id}/run`, { fingerprint })
    return { name, text: `${counted(arriving(effect), 'item')} will be added`, good: true }
  } catch (error) {
    return { name, text: `${asProblem(error).title}. Nothing was written into it.`, good: false }
  }
}

/** The same plan's further shells: what running would do to them, which is what one consents to, and how it went. */
export function useFurtherShells(plan: Ref<PlanReply>) {
  const drafts = computed(() => plan.value.set.filter(entry => entry.state === 'draft'))
  const { data, problem, refresh } = useLoaded(() => Promise.all(drafts.value.map(effectOf)))
  const outcomes = ref<FurtherOutcome[]>([])
  // They may become known only after this stage has been opened.
  watch(
    () => drafts.value.map(entry => entry.id).join(),
    ids => {
      if (ids && plan.value.state === 'draft') void refresh()
    },
    { immediate: true },
  )
  /** Each is asked for by itself, and is all or nothing by itself. */
  async function runAll(): Promise<void> {
    for (const one of data.value ?? []) outcomes.value = [...outcomes.value, await runOne(one)]
  }
  return { drafts, effects: data, problem, refresh, outcomes, runAll }
}
