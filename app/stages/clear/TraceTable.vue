<script setup lang="ts">
import { answerOf, type Trace, type TraceAnswer, type TraceDecision } from '~~/core/student-data/traces/trace'
import { present } from '~~/core/present'
import { giveFocus } from '~/composables/focus'
import { useStagePlan } from '../plan/store'
import TraceLine from './TraceLine.vue'
import { sameName } from './trace-words'

/** Traces of students in what comes, in the course's order: each is settled where it stands, by pointer or by keys. */
const { store, plan, document } = useStagePlan()
const session = useSession()
const answers = computed(() => document.value.traces.answers)
const current = ref<string | null>(null)
const list = ref<HTMLElement>()
const at = computed(() =>
  Math.max(
    0,
    store.traces.findIndex(trace => trace.id === current.value),
  ),
)
const trace = computed(() => store.traces[at.value] ?? null)
/** The trace for which somebody is asked why it stays. */
const asking = ref<string | null>(null)

const showSelected = (): void =>
  list.value?.querySelector('[aria-selected="true"]')?.scrollIntoView({ block: 'nearest' })
function select(next: Trace | undefined): void {
  if (!next) return
  current.value = next.id
  if (asking.value !== next.id) asking.value = null
  if (cannot.value !== next.id) cannot.value = null
  void nextTick(showSelected)
}
const move = (by: number): void => select(store.traces[at.value + by])
const isSettled = (each: Trace): boolean => answerOf(each, answers.value) !== null
function next(): void {
  const { traces } = store
  const order = [...traces.slice(at.value + 1), ...traces.slice(0, at.value + 1)]
  select(order.find(each => !isSettled(each)))
}
const decision = (does: TraceAnswer, because = ''): TraceDecision => ({
  does,
  because,
  by: present(session.person).name,
})
/** The trace of which somebody asked for what cannot be done with it. */
const cannot = ref<string | null>(null)
const sameAs = (each: Trace): Trace[] => sameName(each, store.traces)
function settle(does: TraceAnswer, because = '', all = false): void {
  const chosen = trace.value
  if (!chosen || !plan.value.may.edit) return
  cannot.value = chosen.can.includes(does) ? null : chosen.id
  if (cannot.value !== null) return
  if (does === 'keep' && because.trim() === '') {
    asking.value = chosen.id
    void nextTick(showSelected)
    return
  }
  const wasOpen = !isSettled(chosen)
  const settled = all ? sameAs(chosen).filter(each => each.can.includes(does)) : [chosen]
  store.settle(
    settled.map(each => each.id),
    decision(does, because),
  )
  asking.value = null
  giveFocus(list.value)
  if (wasOpen) next()
}
const undo = (): void => void (trace.value && store.settle([trace.value.id], null))
function leave(): void {
  if (trace.value && plan.value.may.edit) store.carry([trace.value.on], false)
}
/** The file stays behind, and another is looked for in every course one may use. */
async function takeAnother(): Promise<void> {
  if (!trace.value || !plan.value.may.edit) return
  leave()
  await navigateTo(`/plans/${plan.value.id}/find`)
}
const firstDoubtful = computed(() => store.traces.findIndex(each => each.weight === 'doubtful'))
const doubtful = computed(() => store.traces.filter(each => each.weight === 'doubtful').length)
useKeys([
  ...keysFor(['j', 'ArrowDown'], 'next trace', () => move(1)),
  ...keysFor(['k', 'ArrowUp'], 'trace before', () => move(-1)),
  { key: 'n', does: 'next to settle', run: next },
  { key: 'r', does: 'remove it', run: () => settle('remove') },
  { key: 'a', does: 'say “a student”', run: () => settle('role') },
  { key: 'y', does: 'keep it, and say why', run: () => settle('keep') },
  { key: 'A', does: 'say “a student” in each place of this name', run: () => settle('role', '', true) },
  { key: 'u', does: 'back to what is proposed', run: undo },
])
</script>

<template>
  <div class="head" aria-hidden="true">
    <span>Where</span><span>What is there</span><span>What happens</span>
  </div>
  <div
    ref="list"
    class="traces"
    role="listbox"
    tabindex="0"
    aria-label="Traces of students"
    :aria-activedescendant="trace ? `trace-${trace.id}` : undefined"
  >
    <template v-for="(each, n) in store.traces" :key="each.id">
      <p v-if="n === firstDoubtful" class="part small" role="presentation">
        <b>Only to look at: {{ counted(doubtful, 'place') }}.</b> The word is a student’s name too, but what
        stands around it says that somebody or something else is meant. Nothing waits for you here.
      </p>
      <TraceLine
        :id="`trace-${each.id}`"
        :trace="each"
        :answers="answers"
        :selected="each.id === trace?.id"
        :asking="asking === each.id"
        :cannot="cannot === each.id"
        :same="each.id === trace?.id ? sameAs(each).length : 1"
        :in-place="plan.mode === 'in-place'"
        :disabled="!plan.may.edit"
        @select="select(each)"
        @settle="settle"
        @undo="undo"
        @leave="leave"
        @instead="takeAnother"
        @cancel="asking = null"
      />
    </template>
  </div>
</template>

<style scoped>
.head,
.traces {
  --columns: minmax(150px, 200px) minmax(0, 1fr) minmax(150px, 220px);
}
.head {
  display: grid;
  grid-template-columns: var(--columns);
  gap: 14px;
  padding: 4px 8px;
  border-bottom: 1px solid var(--rule-strong);
  font-size: 11.5px;
  letter-spacing: 0.06em;
  text-transform: uppercase;
  color: var(--ink-soft);
}
.part {
  padding: 16px 8px 6px;
  border-bottom: 1px solid var(--rule-strong);
}
.traces {
  outline-offset: -2px;
}
@media (max-width: 620px) {
  .head {
    display: none;
  }
}
</style>
