<script setup lang="ts">
import BatchPairs from '~/batches/BatchPairs.vue'
import BatchProgress from '~/batches/BatchProgress.vue'
import LossConsent from '~/batches/LossConsent.vue'
import { batchStateWords, decisionsText, pairEffectText, pairsIn } from '~/batches/words'
import { giveFocus, isFocusNowhere, mainPart } from '~/composables/focus'
import type { BatchReply } from '~~/shared/api/batches'

/** A batch: how far it is, what it would write or wrote, and its pairs. */
const route = useRoute()
const id = String(route.params.id)
useHead({ title: 'Batch · Northtide' })
const { data, problem, refresh } = useLoaded(() => api.get<BatchReply>(`/batches/${id}`))
onMounted(refresh)
const isTrying = computed(() => data.value?.state === 'trying')
const isRunning = computed(
  () => data.value?.state === 'running' || (data.value?.state === 'stopped' && data.value.endedAt === null),
)
const isUndoing = computed(() => Boolean(data.value?.undoing))
useRefreshWhile(
  computed(() => isTrying.value || isRunning.value || isUndoing.value),
  refresh,
  1000,
)
/** What goes on, or that nothing does: the button that began or stopped it is gone then, and one goes on from what stands in its place. */
const goesOn = computed(() =>
  data.value ? [isTrying.value, isRunning.value, isUndoing.value].indexOf(true) : null,
)
watch(goesOn, async (_, before) => {
  await nextTick()
  if (before !== null && isFocusNowhere()) giveFocus(mainPart()?.querySelector('section h2'))
})
const {
  run: act,
  busy,
  problem: actProblem,
} = useAction(async (work: () => Promise<unknown>) => {
  try {
    await work()
  } finally {
    // Where the server says no, the batch stands otherwise than was shown.
    await refresh()
  }
})
const begin = (): Promise<boolean> => act(() => api.post(`/batches/${id}/run`, {}))
const stop = (): Promise<boolean> => act(() => api.delete(`/batches/${id}/run`))
const tryAgain = (which: 'waiting' | 'undone'): Promise<boolean> =>
  act(() => api.post(`/batches/${id}/try`, { which }))
const stopTrial = (): Promise<boolean> => act(() => api.delete(`/batches/${id}/try`))
const undo = (): Promise<boolean> =>
  act(async () => {
    await api.post(`/batches/${id}/undo`, {})
    asking.value = null
  })
const stopUndoing = (): Promise<boolean> => act(() => api.delete(`/batches/${id}/undo`))
/** What consent is asked for. */
const asking = ref<'discard' | 'undo' | null>(null)
const discard = (): Promise<boolean> =>
  act(async () => {
    await api.delete(`/batches/${id}`)
    await navigateTo('/batches')
  })
const all = computed(() => (data.value ? pairsIn(data.value) : 0))
const tried = computed(() => all.value - (data.value?.counts.waiting ?? 0))
/** Of those that were asked for in this run: how many are through. */
const through = computed(() => (data.value ? data.value.counts.done + data.value.counts.failed : 0))
const asked = computed(() => through.value + (data.value?.open ?? 0))
const mayDiscard = computed(
  () =>
    data.value &&
    data.value.counts.done + data.value.counts.undone === 0 &&
    !isRunning.value &&
    data.value.state !== 'trying',
)
/** Of the runs that are being undone together: how many had their turn. */
const turns = computed(() => (data.value?.undoing ? data.value.undoing.asked - data.value.undoing.open : 0))
const runText = computed(() => {
  const n = data.value?.counts.ready ?? 0
  if (data.value?.state === 'stopped') return `Go on with ${counted(n, 'pair')}`
  return `Run ${counted(n, 'pair')}`
})
const leaveText = computed(() =>
  data.value?.mails
    ? 'You may leave this page. Northtide goes on, and mails you at the end.'
    : 'You may leave this page. Northtide goes on, and the log says when it is done.',
)
// Its pairs are fetched anew whenever one of them stands otherwise.
const mark = computed(() => JSON.stringify([data.value?.counts, data.value?.open, data.value?.undoing]))
</script>

<template>
  <main class="page">
    <ProblemNote v-if="problem && !data" :problem="problem" @retry="refresh">
      <NuxtLink v-if="problem.status === 404" to="/batches">Back to Batches</NuxtLink>
    </ProblemNote>
    <LoadingLines v-else-if="!data" what="Fetching the batch …" />
    <template v-else>
      <header>
        <p class="caps">Batch · {{ data.undoing ? 'being undone' : batchStateWords[data.state] }}</p>
        <h1>
          <bdi>{{ data.name }}</bdi>
        </h1>
        <p class="soft">
          {{ counted(all, 'pair') }}, shells of {{ data.term.name }}. Plans begin with
          {{ decisionsText(data.decisions) }}. Made {{ instantText(data.madeAt) }} by {{ data.by
          }}<template v-if="data.runBy && data.runAt"
            >, run {{ instantText(data.runAt) }} by {{ data.runBy }}</template
          >.
          <template v-if="data.filledBefore"
            >{{ counted(data.filledBefore, 'shell') }} of the term
            {{ data.filledBefore === 1 ? 'was filled before and is' : 'were filled before and are' }} left
            alone.</template
          >
        </p>
      </header>
      <div v-if="actProblem" class="refused"><ActionProblem :problem="actProblem" /></div>
      <BatchProgress
        v-if="isTrying"
        title="Trying the pairs"
        label="Pairs tried"
        :done="tried"
        :total="all"
        leave="You may leave this page and come back."
        stop="Stop the dry run"
        :busy="busy"
        @stop="stopTrial"
      >
        {{ numberText(tried) }} of {{ counted(all, 'pair') }} tried. Nothing is written.
      </BatchProgress>
      <BatchProgress
        v-else-if="isRunning"
        :title="data.state === 'stopped' ? 'Finishing what was begun' : 'Filling the shells'"
        label="Pairs run"
        :done="through"
        :total="asked"
        :leave="`${leaveText} Each shell is written in one step, or not at all.`"
        :stop="data.state === 'running' ? 'Stop this batch' : null"
        :busy="busy"
        @stop="stop"
      >
        {{ numberText(data.counts.done) }} of {{ counted(asked, 'shell') }} filled{{
          data.counts.failed ? `, ${counted(data.counts.failed, 'run')} failed` : ''
        }}.
        <template v-if="data.now.length">
          Now {{ data.now.map(each => each.shell).join(' and ') }}.
        </template>
      </BatchProgress>
      <BatchProgress
        v-else-if="data.undoing"
        :title="`Undoing ${counted(data.undoing.asked, 'run')}`"
        label="Shells looked at"
        :done="turns"
        :total="data.undoing.asked"
        :leave="`${leaveText} Each shell is put back in one step, or stays as it is.`"
        stop="Stop undoing"
        :busy="busy"
        @stop="stopUndoing"
      >
        {{ numberText(turns) }} of {{ counted(data.undoing.asked, 'shell') }} looked at,
        {{ numberText(data.counts.undone) }} as
        {{ data.counts.undone === 1 ? 'it was' : 'they were' }} before.
      </BatchProgress>
      <section v-else aria-label="What it does" class="does">
        <template v-if="data.counts.ready">
          <h2>What running does to {{ counted(data.counts.ready, 'shell') }}</h2>
          <p class="lead">{{ pairEffectText(data.totals.ready, false) }}</p>
          <p class="small">
            {{ counted(data.totals.ready.dates, 'date') }} written,
            {{ numberText(data.totals.ready.settle) }} to settle in the shells afterwards.
          </p>
          <p class="acts">
            <button class="act" type="button" :disabled="busy" @click="begin">{{ runText }}</button>
          </p>
        </template>
        <template v-else-if="!data.counts.done && !data.counts.undone && !data.counts.waiting">
          <h2>No pair is ready</h2>
          <p>Each pair below says what stands against it.</p>
        </template>
        <template v-if="data.counts.done">
          <h2>{{ counted(data.counts.done, 'shell') }} filled</h2>
          <p class="lead">{{ pairEffectText(data.totals.done, true) }}</p>
          <p v-if="data.totals.done.settle" class="small">
            {{ counted(data.totals.done.settle, 'date') }} to settle: each shell lists its own.
          </p>
        </template>
        <template v-if="data.counts.undone">
          <h2>{{ counted(data.counts.undone, 'run') }} undone</h2>
          <p class="small">
            {{ data.counts.undone === 1 ? 'Its shell is as it was' : 'Their shells are as they were' }}
            before this batch.
          </p>
          <p class="acts">
            <button class="act plain" type="button" :disabled="busy" @click="tryAgain('undone')">
              Try
              {{ data.counts.undone === 1 ? 'this pair' : `these ${counted(data.counts.undone, 'pair')}` }}
              again
            </button>
          </p>
        </template>
        <p v-if="data.counts.waiting" class="acts">
          {{ counted(data.counts.waiting, 'pair') }} {{ data.counts.waiting === 1 ? 'was' : 'were' }} not
          tried.
          <button class="act plain" type="button" :disabled="busy" @click="tryAgain('waiting')">
            Go on with the dry run
          </button>
        </p>
        <p class="small acts">
          <a :href="`/api/v1/batches/${id}/record.csv`" download
            >Download {{ data.counts.done ? 'the record' : 'this list' }}: CSV</a
          >
          <button v-if="mayDiscard && !asking" class="link" type="button" @click="asking = 'discard'">
            Discard this batch …
          </button>
          <button v-if="data.counts.done && !asking" class="link" type="button" @click="asking = 'undo'">
            Undo this batch …
          </button>
        </p>
        <LossConsent
          v-if="mayDiscard && asking === 'discard'"
          label="Discard this batch"
          act="Discard the batch and the drafts it made"
          keep="Keep it"
          :busy="busy"
          @act="discard"
          @keep="asking = null"
        >
          Nothing was written into a shell. A draft that somebody has changed since stays.
        </LossConsent>
        <LossConsent
          v-if="data.counts.done && asking === 'undo'"
          label="Undo this batch"
          :act="`Undo ${counted(data.counts.done, 'run')}`"
          :keep="data.counts.done === 1 ? 'Keep it' : 'Keep them'"
          :busy="busy"
          @act="undo"
          @keep="asking = null"
        >
          {{
            data.counts.done === 1
              ? 'Northtide puts the shell back as it was before this batch.'
              : `Northtide puts ${counted(data.counts.done, 'shell')} back as they were before this batch, each in one step.`
          }}
          A shell that somebody has changed since, or where students have handed in, stays as it is. The list
          below then says why.
        </LossConsent>
      </section>
      <BatchPairs :batch="data" :mark="mark" :busy="busy" @change="work => act(work)" />
    </template>
  </main>
</template>

<style scoped>
.refused {
  margin-bottom: 18px;
}
.does {
  max-width: 760px;
  margin-bottom: 22px;
}
.does > * + h2 {
  margin-top: 18px;
}
.lead {
  font-size: 15px;
  margin: 2px 0;
}
.acts {
  display: flex;
  gap: 18px;
  align-items: center;
}
</style>
