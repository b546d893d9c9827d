import { computed, shallowRef, watch, type ComputedRef, type Ref, type ShallowRef } from 'vue'
import type { PlaceRow } from '~~/core/carry/places/row'
import { tracesOf, unseenOf } from '~~/core/plan/compile'
import type { PlanDocument } from '~~/core/plan/document'
import { answerOf, type Trace, type UnseenFile } from '~~/core/student-data/traces/trace'
import type { PlanReply } from '~~/shared/api/plans'
import type { TracesReply } from '~~/shared/api/traces'
import { api, asProblem, type ApiProblem } from '~/composables/api'

const askAgainAfter = 700
const isOfCourse = ({ entity }: Trace): boolean => entity !== 'item' && entity !== 'unit'

/**
 * Traces of students in what a plan brings: asked for with the plan, and again once it brings from other courses. The search is the server's;
 * until it is through, one is told that it goes on.
 */
export function useTraces(plan: ShallowRef<PlanReply | null>) {
  const reply = shallowRef<TracesReply | null>(null)
  const problem = shallowRef<ApiProblem | null>(null)
  const found = computed((): readonly Trace[] => reply.value?.found ?? [])
  const unseen = computed((): readonly UnseenFile[] => reply.value?.looked?.unseen ?? [])
  const isSearching = computed(() => reply.value === null || reply.value.state === 'searching')
  const basis = computed(() => {
    const now = plan.value
    if (!now) return null
    const taken = now.found.flatMap(({ course, nodes }) => [course.id, ...nodes.map(node => node.lineage)])
    return [now.id, now.state, now.source.course.id, ...now.more.map(side => side.course.id), ...taken].join()
  })
  let round = 0
  async function load(): Promise<void> {
    const id = plan.value?.id
    const mine = ++round
    if (id === undefined) return
    problem.value = null
    try {
      const told = await api.get<TracesReply>(`/plans/${id}/traces`)
      if (mine !== round) return
      reply.value = told
      if (told.state === 'searching') setTimeout(() => void (mine === round && load()), askAgainAfter)
    } catch (error) {
      if (mine === round) problem.value = asProblem(error)
    }
  }
  watch(basis, (is, was) => {
    if (is === was) return
    reply.value = null
    void load()
  })
  return { reply, found, unseen, isSearching, problem, load }
}
interface Coming {
  readonly found: ComputedRef<readonly Trace[]>
  readonly unseen: ComputedRef<readonly UnseenFile[]>
  /** The keys of what is written, and the ledger of places for their order. */
  readonly written: Ref<ReadonlySet<string>>
  readonly rows: Ref<readonly PlaceRow[]>
  readonly document: ShallowRef<PlanDocument | null>
}
/**
 * Those of things that are written into the shell, in the order of the course, what is probably none last; those that somebody must say
 * something of yet; and the files among them that could not be looked into.
 */
export function useComingTraces({ found, unseen, written, rows, document }: Coming) {
  const order = computed(() => new Map(rows.value.map((row, at) => [row.source?.lineage ?? '', at])))
  const coming = computed(() => {
    const at = (trace: Trace): number => (isOfCourse(trace) ? -1 : (order.value.get(trace.on) ?? 0))
    const isLast = ({ weight }: Trace): number => Number(weight === 'doubtful')
    return [...tracesOf({ traces: found.value }, written.value)].sort(
      (a, b) => isLast(a) - isLast(b) || at(a) - at(b),
    )
  })
  const comingUnseen = computed(() => unseenOf({ unseen: unseen.value }, written.value))
  const agreed = computed(() => document.value?.traces.unseen ?? {})
  const unseenToSettle = computed(() => comingUnseen.value.filter(({ id }) => !agreed.value[id]))
  const answers = computed(() => document.value?.traces.answers ?? {})
  const toSettle = computed(() => coming.value.filter(trace => answerOf(trace, answers.value) === null))
  return { coming, toSettle, comingUnseen, unseenToSettle }
}
