<script setup lang="ts">
import { settleSum } from '~~/core/plan/to-settle'
import type { EffectReply, RunStarted } from '~~/shared/api/plans'
import BetterWay from '../date/BetterWay.vue'
import { begunText } from '../pair/begun'
import FootBar from '../FootBar.vue'
import OtherSections from './OtherSections.vue'
import StageFrame from '../StageFrame.vue'
import { useStagePlan } from '../plan/store'
import ConsentPanel from './ConsentPanel.vue'
import EffectView from './EffectView.vue'
import RunDone from './RunDone.vue'
import RunProgress from './RunProgress.vue'
import TracesToSettle from './TracesToSettle.vue'
import UnseenFiles from '../clear/UnseenFiles.vue'
import { effectText, lostCount } from '~~/core/plan/effect-text'
import { writtenText } from './effect'
import { progressText } from './progress'
import { useFurtherShells } from './further'

const { store, plan } = useStagePlan()
const isDraft = computed(() => plan.value.state === 'draft')
const inPlace = computed(() => plan.value.mode === 'in-place')
const shell = computed(() => writtenText(plan.value))
const consent = ref(false)
const withFurther = ref(false)
const { data, problem, loading, refresh } = useLoaded(async () => {
  await store.allSaved()
  return api.get<EffectReply>(`/plans/${plan.value.id}/effect`)
})
onMounted(() => {
  if (isDraft.value) void refresh()
})
const further = useFurtherShells(plan)

const nothing = computed(() => {
  const effect = data.value?.effect
  if (!effect) return false
  return inPlace.value ? effect.dates.dates === 0 : !data.value?.writes
})
const awaited = computed(() => plan.value.target.course.origin === 'awaited' && !inPlace.value)
const openTraces = computed(() => data.value?.effect.settle.traces ?? 0)
const openFiles = computed(() => data.value?.effect.settle.unseen ?? 0)
const unsaved = computed(() => store.saving === 'conflict' || store.saving === 'failed')
const ready = computed(
  () =>
    data.value !== null &&
    !loading.value &&
    !nothing.value &&
    !awaited.value &&
    !unsaved.value &&
    openTraces.value + openFiles.value === 0,
)
const {
  run: write,
  busy: running,
  problem: runProblem,
} = useAction(async (fingerprint: string) => {
  await api.post<RunStarted>(`/plans/${plan.value.id}/run`, { fingerprint })
  if (withFurther.value) await further.runAll()
  await store.look()
})
const stopping = useAction(async () => {
  await api.delete(`/plans/${plan.value.id}/run`)
  await store.look()
})
/** This plan's own run goes on. */
const isRunning = computed(() => plan.value.writing?.plan === plan.value.id && isDraft.value)
useRefreshWhile(isRunning, () => store.look(), 500)
watch(isRunning, goesOn => {
  consent.value = false
  if (!goesOn && isDraft.value) void refresh()
})
const mayRun = computed(
  () => plan.value.may.run && consent.value && ready.value && !plan.value.writing && !running.value,
)
async function run(): Promise<void> {
  if (mayRun.value && data.value && !(await write(data.value.fingerprint))) consent.value = false
}
async function lookAgain(): Promise<void> {
  runProblem.value = null
  await store.load(plan.value.id)
  await refresh()
}

const outcomeColour = computed(() => (plan.value.outcome?.state === 'failed' ? 'buoy' : 'brass'))
const runText = computed(() => {
  if (running.value || isRunning.value) return 'Running …'
  return inPlace.value ? `Roll ${shell.value} in place` : `Run into ${shell.value}`
})
const totals = computed(() => {
  if (!data.value) return []
  const { added, filled, dates, settle } = data.value.effect
  const written = [
    { count: dates.dates, words: 'dates' },
    { count: settleSum(settle), words: 'to settle', settle: true },
  ]
  if (inPlace.value) return written
  return [
    { count: added.items, words: 'items added' },
    ...(filled > 0 ? [{ count: filled, words: filled === 1 ? 'place filled' : 'places filled' }] : []),
    { count: lostCount(data.value.effect), words: 'overwritten or removed' },
    ...written,
  ]
})
</script>

<template>
  <StageFrame>
    <RunDone v-if="!isDraft" :plan="plan" :outcomes="further.outcomes.value" />
    <template v-else>
      <RunProgress
        v-if="isRunning && plan.writing"
        :writing="plan.writing"
        :shell="shell"
        :may-stop="plan.may.run"
        :stopping="stopping.busy.value"
        @stop="stopping.run()"
      />
      <ProblemNote v-if="stopping.problem.value" :problem="stopping.problem.value" />
      <div v-if="plan.outcome && !isRunning" :class="['note', outcomeColour]" role="status">
        <h3>{{ plan.outcome.title }}</h3>
        <p class="small">{{ plan.outcome.detail }} That was {{ instantText(plan.outcome.at) }}.</p>
      </div>
      <div v-if="plan.undone && !isRunning" class="note brass" role="status">
        <h3>This plan was run, and the run was undone</h3>
        <p class="small">
          {{ instantText(plan.undone.at) }}. You can change the plan and run it again, or
          <NuxtLink :to="`/runs/${plan.undone.id}/undo`">put that run back</NuxtLink>.
        </p>
      </div>
      <h2 v-if="!isRunning" class="head">What running does to {{ shell }}</h2>
      <p v-if="!isRunning" class="soft small">
        {{ begunText(plan.begunWith) }}
        <NuxtLink :to="`/plans/${plan.id}/pair`">Go through it step by step</NuxtLink>
      </p>
      <BetterWay v-if="!isRunning" @taken="refresh" />
      <div v-if="plan.writing && !isRunning" class="note brass" role="status">
        <h3>{{ plan.writing.by }} runs into {{ shell }}</h3>
        <p class="small">
          Since {{ instantText(plan.writing.since) }}. {{ progressText(plan.writing) }} You can run once that
          is done. This page keeps checking.
        </p>
      </div>
      <!-- What cannot be carried as it was decided stays so, however often one asks. -->
      <template v-if="isRunning" />
      <ProblemNote v-else-if="problem && problem.status === 409" :problem="problem">
        <NuxtLink :to="`/plans/${plan.id}/carry`">Go back to Carry</NuxtLink>
      </ProblemNote>
      <ProblemNote v-else-if="problem" :problem="problem" @retry="refresh" />
      <LoadingLines v-else-if="!data" what="Working out the whole effect …" />
      <TracesToSettle v-if="data && openTraces && !isRunning" :count="openTraces" @settled="refresh" />
      <UnseenFiles v-if="data && !isRunning && !store.isSearchingTraces" @settled="refresh" />
      <EffectView
        v-if="data && !problem && !isRunning"
        :plan="plan"
        :effect="data.effect"
        :sections="data.sections"
        :clearing="data.clearing"
        :further="further.effects.value"
        :further-problem="further.problem.value"
        @retry-further="further.refresh"
      />
    </template>
    <template #side>
      <template v-if="isRunning">
        <h2>What you agreed to</h2>
        <p v-if="data" class="small">{{ effectText(data.effect, { inPlace }) }}</p>
        <p class="small">Everything is written in one step, or nothing is.</p>
      </template>
      <ConsentPanel
        v-else-if="isDraft"
        v-model:consent="consent"
        v-model:with-further="withFurther"
        :plan="plan"
        :problem="runProblem"
        :nothing="nothing"
        :awaited="awaited"
        :busy="running || !data"
        :further="further.drafts.value"
        :further-ready="further.effects.value !== null"
        @again="lookAgain"
      />
      <OtherSections v-if="isDraft && !isRunning" :plan="plan" @chosen="refresh" />
      <template v-else>
        <h2>What was decided</h2>
        <p class="small">
          This plan is kept as it was run. You can read its stages, but they no longer change the shell.
        </p>
      </template>
    </template>
    <template #foot>
      <FootBar v-if="isDraft" :totals="totals">
        <button class="act on-deep" type="button" :disabled="!mayRun" @click="run">{{ runText }}</button>
      </FootBar>
      <FootBar v-else>
        <NuxtLink class="act on-deep" :to="`/courses/${plan.target.course.id}`">Go to the shell ⟶</NuxtLink>
      </FootBar>
    </template>
  </StageFrame>
</template>

<style scoped>
.note + .head {
  margin-top: 16px;
}
</style>
