<script setup lang="ts">
import type { EffectReply, RunReply } from '~~/shared/api/plans'
import type { ApiProblem } from '~/composables/api'
import FootBar from '../FootBar.vue'
import StageFrame from '../StageFrame.vue'
import EffectTable from './EffectTable.vue'
import { usePlan } from '../plan'
import { useLedger } from '../date/ledger'

const store = usePlan()
const plan = computed(() => store.plan!)
const consent = ref(false)
const running = ref(false)
const runProblem = shallowRef<ApiProblem | null>(null)
const { data, problem, loading, refresh } = useLoaded(async () => {
  await store.save()
  return api.get<EffectReply>(`/plans/${plan.value.id}/effect`)
})
const { data: record, refresh: fetchRecord } = useLoaded(() => api.get<RunReply>(`/runs/${plan.value.run!.id}`))
watch(() => plan.value.run?.id, (id) => { if (id) void fetchRecord() }, { immediate: true })
const found = computed(() => record.value?.audit.reduce((sum, line) => sum + line.onNewItems, 0))
onMounted(() => { if (plan.value.state === 'draft') void refresh() })
const { items } = useLedger(ref(true))
const toSettle = computed(() => items.value.filter(item => item.settle))
const nothing = computed(() => data.value ? data.value.effect.added.items + data.value.effect.added.units === 0 : false)
const blocked = computed(() => !consent.value || running.value || loading.value || !data.value || nothing.value || store.saving === 'conflict' || store.saving === 'failed')
async function run(): Promise<void> {
  if (blocked.value) return
  running.value = true
  runProblem.value = null
  try {
    await api.post<{ id: string }>(`/plans/${plan.value.id}/run`, { fingerprint: data.value!.fingerprint })
    await store.load(plan.value.id)
  }
  catch (error) {
    runProblem.value = asProblem(error)
    consent.value = false
  }
  finally { running.value = false }
}
async function again(): Promise<void> {
  runProblem.value = null
  await store.load(plan.value.id)
  await refresh()
}
const sentence = computed(() => {
  const effect = data.value?.effect
  return effect && `Adds ${counted(effect.added.items, 'item')} in ${counted(effect.added.units, 'unit')}. Replaces ${effect.replaced || 'nothing'}. Clears ${effect.cleared || 'nothing'}.`
})
</script>

<template>
  <StageFrame>
    <template v-if="plan.state === 'run'">
      <p class="caps kept">Done {{ plan.run ? instantText(plan.run.at, plan.target.course.term.timeZone) : '' }}</p>
      <h1>{{ codeText(plan.target.course) }} is filled.</h1>
      <p class="lead">{{ plan.source.course.title }} of {{ plan.source.course.term.name }} now stands in the shell for {{ plan.target.course.term.name }}. The old course is as it was.</p>
      <p class="ways"><NuxtLink class="act" :to="`/courses/${plan.target.course.id}`">Open the shell ⟶</NuxtLink><NuxtLink v-if="plan.run" :to="`/runs/${plan.run.id}`">Read the record of the run</NuxtLink></p>
      <template v-if="record">
        <EffectTable :effect="record.effect" :source="plan.source.course" :target="plan.target.course" />
        <p class="audit"><b class="kept">{{ found === 0 ? 'The audit found nothing' : `The audit found ${found}` }}</b> of last term’s students on the {{ counted(record.effect.added.items, 'new item') }}: it looked for submissions, grades, attempts, posts and extensions.</p>
      </template>
    </template>
    <template v-else>
      <h2>What running does to {{ codeText(plan.target.course) }}</h2>
      <ProblemNote v-if="problem" :problem="problem" @retry="refresh" />
      <LoadingLines v-else-if="!data" what="Working out the whole effect …" />
      <template v-else>
        <p class="effect-line">{{ sentence }}</p>
        <EffectTable :effect="data.effect" :source="plan.source.course" :target="plan.target.course" />
        <section v-if="toSettle.length" class="settling">
          <h3>{{ counted(toSettle.length, 'item has', 'items have') }} dates to settle</h3>
          <p class="small soft">They do not bar the way: each is written as the table says, and can be changed now or in the shell.</p>
          <ul><li v-for="item in toSettle" :key="item.node.lineage"><KindMark :kind="item.node.kind!" :exam="item.node.exam" /> <NuxtLink :to="`/plans/${plan.id}/date?item=${item.node.lineage}`">{{ item.node.title }}</NuxtLink> <span class="soft">{{ item.planned.due ? `due ${momentText(item.planned.due)}` : item.planned.opens ? `opens ${momentText(item.planned.opens)}` : '' }} · {{ item.planned.flags.join(', ').replaceAll('-', ' ') }}</span></li></ul>
        </section>
      </template>
    </template>
    <template #side>
      <template v-if="plan.state === 'draft'">
        <h2>Before you run</h2>
        <p class="small">It is all or nothing: everything is written in one step, or nothing is. Then an audit counts student data in the shell, and a record of the run is kept.</p>
        <div class="note" :class="{ buoy: runProblem }">
          <template v-if="runProblem">
            <h3 role="alert">{{ runProblem.title }}</h3>
            <p class="small">{{ runProblem.detail }}</p>
            <button class="act plain" type="button" @click="again">Look again</button>
          </template>
          <template v-else-if="nothing"><h3>There is nothing to add</h3><p class="small">All that is carried is in the shell already, or nothing is carried. Choose in <NuxtLink :to="`/plans/${plan.id}/carry`">Carry</NuxtLink>.</p></template>
          <template v-else-if="plan.may.run">
            <ElCheckbox v-model="consent" :disabled="!data || running">I have seen what changes in {{ codeText(plan.target.course) }}</ElCheckbox>
            <p class="small soft">{{ codeText(plan.source.course) }} of {{ plan.source.course.term.name }} stays as it is.</p>
          </template>
          <template v-else><h3>You may prepare this plan</h3><p class="small">An instructor of the shell runs it, or allows you to.</p></template>
        </div>
      </template>
      <template v-else>
        <h2>What was decided</h2>
        <p class="small">This plan is kept as it was run. Its stages can be read; nothing in them changes the shell any more.</p>
      </template>
    </template>
    <template #foot>
      <FootBar v-if="plan.state === 'draft'" :totals="data ? [{ count: data.effect.added.items, words: 'items added' }, { count: data.effect.replaced, words: 'replaced' }, { count: data.effect.cleared, words: 'cleared' }, { count: data.effect.dates.dates, words: 'dates' }, { count: data.effect.dates.settle, words: 'to settle', settle: true }] : []">
        <button class="act on-deep" type="button" :disabled="blocked || !plan.may.run" @click="run">{{ running ? 'Writing …' : `Run into ${codeText(plan.target.course)}` }}</button>
      </FootBar>
      <FootBar v-else><NuxtLink class="act on-deep" :to="`/courses/${plan.target.course.id}`">Open the shell ⟶</NuxtLink></FootBar>
    </template>
  </StageFrame>
</template>

<style scoped>
.effect-line { font: 500 22px/1.3 var(--serif); margin: 6px 0 14px; }
.lead { max-width: 62ch; font-size: 15px; }
.ways { display: flex; gap: 22px; align-items: center; margin: 14px 0 18px; }
.audit { margin-top: 14px; }
.settling { margin-top: 22px; }
.settling ul { list-style: none; }
.settling li { padding: 5px 0; border-bottom: 1px solid var(--rule); max-width: 760px; }
.note { margin-top: 12px; }
.note :deep(.el-checkbox__label) { white-space: normal; }
</style>
