<script setup lang="ts">
import type { PlanReply, RunReply } from '~~/shared/api/plans'
import { arriving } from '~~/core/plan/effect-text'
import KeepHabit from '~/habits/KeepHabit.vue'
import EffectTable from './EffectTable.vue'
import type { FurtherOutcome } from './further'

/** What came of a run, and the ways on from it. */
const props = defineProps<{ plan: PlanReply; outcomes: FurtherOutcome[] }>()
const heading = ref<HTMLElement>()
// What was pressed is gone: one goes on from what came of it.
onMounted(() => {
  if (isFocusNowhere()) giveFocus(heading.value)
})
const inPlace = computed(() => props.plan.mode === 'in-place')
const { data: record, refresh } = useLoaded(() => api.get<RunReply>(`/runs/${present(props.plan.run).id}`))
watch(
  () => props.plan.run?.id,
  id => {
    if (id) void refresh()
  },
  { immediate: true },
)
const filled = computed(() =>
  [
    props.plan.target.course,
    ...props.plan.sections.filter(({ joined }) => joined).map(({ course }) => course),
  ].map(codeText),
)
const doneHeading = computed(() => {
  const names = listText(filled.value)
  if (inPlace.value) return `${names} is rolled in place.`
  return `${names} ${filled.value.length === 1 ? 'is' : 'are'} filled.`
})
const doneText = computed(() => {
  const { run } = props.plan
  return run ? instantBeside(props.plan.target.course, run.at) : ''
})
const titles = computed(() =>
  [props.plan.source, ...props.plan.more].map(side => side.course.title).join(' and '),
)
const clearedText = computed(() => {
  const cleared = record.value?.audit.reduce((sum, line) => sum + line.cleared, 0) ?? 0
  return cleared === 0
    ? 'nothing of it changed'
    : `${counted(cleared, 'record')} about students went, and nothing else changed`
})
const foundText = computed(() => {
  const found = record.value?.audit.reduce((sum, line) => sum + line.onNewItems, 0) ?? 0
  return found === 0 ? 'The audit found nothing' : `The audit found ${found}`
})
const furtherShells = computed(() =>
  props.plan.set.map(({ id, course, state }) => ({
    id,
    code: codeText(course),
    state: state === 'run' ? 'run' : 'a draft',
  })),
)
</script>

<template>
  <p class="caps kept">Done {{ doneText }}</p>
  <h1 ref="heading">
    {{ doneHeading }}
  </h1>
  <p v-if="inPlace" class="lead">
    It stands in {{ plan.target.course.term.name }} now, with its new dates.
    <NuxtLink :to="`/courses/${plan.source.course.id}`">The snapshot</NuxtLink> of
    {{ plan.source.course.term.name }} is as the course was, students and all.
  </p>
  <p v-else class="lead">
    {{ titles }} of {{ plan.source.course.term.name }} now stands in the shell for
    {{ plan.target.course.term.name }}.
    {{ plan.more.length ? 'The old courses are as they were.' : 'The old course is as it was.' }}
  </p>
  <ul v-if="outcomes.length" class="outcomes" aria-label="Other shells">
    <li v-for="one in outcomes" :key="one.name" :class="one.good ? 'kept' : 'settle'">
      {{ one.name }}: {{ one.text }}
    </li>
  </ul>
  <p v-else-if="furtherShells.length" class="small">
    The same plan for other shells:
    <template v-for="({ id, code, state }, at) in furtherShells" :key="id"
      >{{ at ? ', ' : '' }}<NuxtLink :to="`/plans/${id}/run`">{{ code }}</NuxtLink> ({{ state }})</template
    >.
  </p>
  <p class="ways">
    <NuxtLink class="act" :to="`/courses/${plan.target.course.id}`">Go to the shell ⟶</NuxtLink>
    <NuxtLink v-if="plan.run" :to="`/runs/${plan.run.id}`">Read the record of the run</NuxtLink>
    <NuxtLink v-if="plan.run" :to="`/runs/${plan.run.id}/undo`">Undo this run …</NuxtLink>
  </p>
  <KeepHabit v-if="plan.run" :run="plan.run.id" :term="plan.target.course.term.name" />
  <template v-if="record">
    <p v-if="inPlace" class="audit">
      {{ counted(record.effect.dates.dates, 'date') }} written. What students did was counted before and
      after: {{ clearedText }}.
    </p>
    <template v-else>
      <EffectTable
        :effect="record.effect"
        :source="plan.source.course"
        :target="plan.target.course"
        :several="plan.more.length > 0"
        done
      />
      <p class="audit">
        <b class="kept">{{ foundText }}</b> of last term’s students on the
        {{ counted(arriving(record.effect), 'new item') }}. It counted
        {{ counted(record.audit.length, 'kind') }} of student data, and searched what was written for their
        names.
      </p>
    </template>
  </template>
</template>

<style scoped>
.lead {
  max-width: 62ch;
  font-size: 15px;
}
.ways {
  display: flex;
  gap: 22px;
  align-items: center;
  margin: 14px 0 18px;
}
.audit {
  margin-top: 14px;
}
ul.outcomes {
  list-style: none;
  margin: 0 0 12px;
}
</style>
