<script setup lang="ts">
import type { BatchReply, PairLine, PairsReply, PairState, PairWish } from '~~/shared/api/batches'
import { countWord, pairStateWords } from './words'

/** The pairs of a batch, by how they stand, with what stands against each and what can be done. `mark`: changes whenever one of them does. */
const props = defineProps<{ batch: BatchReply; mark: string; busy: boolean }>()
const emit = defineEmits<{ change: [work: () => Promise<unknown>] }>()
const shown = ref<PairState | 'all'>('all')
const states = computed(() =>
  (Object.keys(pairStateWords) as PairState[]).filter(state => props.batch.counts[state] > 0),
)
const further = shallowRef<PairLine[]>([])
const address = (after?: number): string => {
  const query = new URLSearchParams({
    ...(shown.value !== 'all' && { state: shown.value }),
    ...(after !== undefined && { after: String(after) }),
  })
  return `/batches/${props.batch.id}/pairs?${query}`
}
const { data, problem, refresh } = useLoaded(() => api.get<PairsReply>(address()))
const more = ref(false)
watch(data, found => {
  further.value = []
  more.value = found?.more ?? false
})
watch([() => props.mark, shown], refresh, { immediate: true })
const pairs = computed(() => [...(data.value?.pairs ?? []), ...further.value])
const { run: fetchMore, problem: moreProblem } = useAction(async () => {
  const reply = await api.get<PairsReply>(address(pairs.value.at(-1)?.number))
  further.value = [...further.value, ...reply.pairs]
  more.value = reply.more
})
/** Whether another pair that is shown needs a look for the same reason. */
const hasAlike = ({ id, problem: own }: PairLine): boolean =>
  pairs.value.some(
    ({ id: other, state, problem: its }) =>
      other !== id && state === 'look' && its?.title === own?.title && its?.detail === own?.detail,
  )
const isStill = computed(
  () => props.batch.state !== 'trying' && props.batch.state !== 'running' && !props.batch.undoing,
)
const change = (pair: PairLine, what: PairWish): void =>
  emit('change', () => api.put(`/batches/${props.batch.id}/pairs/${pair.id}`, { do: what }))
const mayCheck = ({ state, source, shell }: PairLine): boolean =>
  source !== null &&
  shell !== null &&
  ['waiting', 'exception', 'look', 'failed', 'out', 'undone'].includes(state)
const nameOf = (course: PairLine['shell'], text: string): string =>
  course ? codeText(course) : text || 'none'
const stateText = (pair: PairLine): string => {
  if (pair.isAsked && pair.state === 'ready') return 'waits to be run'
  if (pair.isAsked && pair.state === 'done') return 'waits to be undone'
  return pairStateWords[pair.state].words
}
const effectText = ({ effect, state }: PairLine): string => {
  if (state === 'undone') return 'The shell is as it was before.'
  if (!effect) return ''
  return [
    counted(effect.items, 'item'),
    counted(effect.dates, 'date'),
    effect.replaced > 0 && `${effect.replaced} replaced`,
    effect.cleared > 0 && `${effect.cleared} removed`,
    effect.settle + effect.alsoSettle > 0 && `${effect.settle + effect.alsoSettle} to settle`,
  ]
    .filter(Boolean)
    .join(', ')
}
</script>

<template>
  <section aria-label="Pairs">
    <h2>Pairs</h2>
    <p class="by small" role="group" aria-label="Which pairs are shown">
      <button class="link" type="button" :aria-pressed="shown === 'all'" @click="shown = 'all'">All</button>
      <button
        v-for="state in states"
        :key="state"
        class="link"
        type="button"
        :aria-pressed="shown === state"
        @click="shown = state"
      >
        {{ numberText(batch.counts[state]) }} {{ countWord(state, batch.counts[state]) }}
      </button>
    </p>
    <ProblemNote v-if="problem" :problem="problem" @retry="refresh" />
    <LoadingLines v-else-if="!data" what="Fetching the pairs …" />
    <p v-else-if="pairs.length === 0" class="soft">No pair stands so.</p>
    <table v-else class="ruled">
      <thead>
        <tr>
          <th scope="col">Into</th>
          <th scope="col">From</th>
          <th scope="col">State</th>
          <th scope="col">What it does</th>
          <th scope="col"><span class="visually-hidden">What can be done</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="pair in pairs" :key="pair.id">
          <td>
            <NuxtLink v-if="pair.shell" :to="`/courses/${pair.shell.id}`"
              ><b>{{ nameOf(pair.shell, '') }}</b></NuxtLink
            ><template v-else>{{ pair.texts.shell || 'none' }}</template>
            <bdi v-if="pair.shell" class="soft small">{{ pair.shell.title }}</bdi>
          </td>
          <td class="name">
            {{ nameOf(pair.source, pair.texts.source)
            }}<template v-if="pair.source">, {{ pair.source.term.name }}</template>
          </td>
          <td class="name">
            <span :class="pairStateWords[pair.state].colour">{{ stateText(pair) }}</span>
          </td>
          <td>
            <template v-if="pair.problem && pair.state !== 'ready'"
              ><b>{{ pair.problem.title }}.</b> <span class="small">{{ pair.problem.detail }}</span></template
            >
            <span v-else class="soft">{{ effectText(pair) }}</span>
          </td>
          <td class="acts small">
            <NuxtLink v-if="pair.run && pair.state !== 'ready'" :to="`/runs/${pair.run}`">Record</NuxtLink>
            <NuxtLink v-else-if="pair.plan" :to="`/plans/${pair.plan}/run`">Plan</NuxtLink>
            <template v-if="isStill && !pair.isAsked">
              <button
                v-if="pair.state === 'look'"
                class="link"
                type="button"
                :disabled="busy"
                @click="change(pair, 'accept')"
              >
                Let it run
              </button>
              <button
                v-if="pair.state === 'look' && hasAlike(pair)"
                class="link"
                type="button"
                :disabled="busy"
                @click="change(pair, 'accept-alike')"
              >
                Let all like it run
              </button>
              <button
                v-if="mayCheck(pair)"
                class="link"
                type="button"
                :disabled="busy"
                @click="change(pair, 'check')"
              >
                {{ pair.state === 'waiting' ? 'Try it now' : 'Check again' }}
              </button>
              <button
                v-if="['ready', 'look', 'exception', 'failed'].includes(pair.state)"
                class="link"
                type="button"
                :disabled="busy"
                @click="change(pair, 'out')"
              >
                Leave out
              </button>
            </template>
          </td>
        </tr>
      </tbody>
    </table>
    <ActionProblem :problem="moreProblem" />
    <p v-if="more"><button class="link" type="button" @click="fetchMore()">Show the next pairs</button></p>
  </section>
</template>

<style scoped>
.by {
  display: flex;
  flex-wrap: wrap;
  gap: 16px;
  margin: 2px 0 6px;
}
.by [aria-pressed='true'] {
  color: var(--ink);
  font-weight: 600;
  text-decoration: none;
}
td {
  vertical-align: top;
}
td bdi {
  display: block;
}
.name {
  white-space: nowrap;
}
td b {
  font-weight: 600;
}
.acts {
  text-align: right;
}
.acts > * {
  white-space: nowrap;
  margin-left: 12px;
}
</style>
