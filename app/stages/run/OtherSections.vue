<script setup lang="ts">
import type { PlanReply } from '~~/shared/api/plans'
import LeavingList from '~/ui/LeavingList.vue'
import { usePlan } from '../plan/store'

/** Sections of the same course that this run could fill as well: one content for all, each with its own dates. */
const props = defineProps<{ plan: PlanReply }>()
const emit = defineEmits<{ chosen: [] }>()
const store = usePlan()
const planned = computed(() => new Set(props.plan.set.map(entry => entry.course.id)))
const could = computed(() =>
  props.plan.sections.filter(
    entry => !entry.joined && !entry.chosen && !entry.faults.length && !planned.value.has(entry.course.id),
  ),
)
const names = computed(() => could.value.map(entry => codeText(entry.course)))
const all = computed(() => [codeText(props.plan.target.course), ...names.value])
const together = useAction(async () => {
  await store.save()
  const chosen = props.plan.sections.filter(entry => entry.chosen)
  const sections = [...chosen, ...could.value].map(entry => entry.course.id)
  await store.changeBeside(() => api.put(`/plans/${props.plan.id}/sections`, { sections }))
  await store.load(props.plan.id)
  emit('chosen')
})
</script>

<template>
  <section v-if="could.length && plan.may.edit" class="others">
    <h2>The other {{ names.length === 1 ? 'section' : 'sections' }}</h2>
    <p class="small">{{ listText(names) }}: the same course, with the same staff.</p>
    <p>
      <button class="act plain" type="button" :disabled="together.busy.value" @click="together.run()">
        {{ all.length === 2 ? 'Fill both sections together' : `Fill all ${all.length} sections together` }}
      </button>
    </p>
    <p class="small">
      One content for {{ all.length === 2 ? 'both' : 'all' }}, with dates from each one’s own meetings. An
      edit reaches {{ all.length === 2 ? 'both' : 'all' }}.
      <NuxtLink :to="`/plans/${plan.id}/pair`">Other ways to fill {{ listText(names) }}</NuxtLink>
    </p>
    <LeavingList
      v-for="entry in could"
      :key="entry.course.id"
      :name="codeText(entry.course)"
      :leaves="entry.leaves"
    />
    <ActionProblem :problem="together.problem.value" />
  </section>
</template>

<style scoped>
.others {
  margin-top: 22px;
}
p {
  margin: 0 0 8px;
}
</style>
