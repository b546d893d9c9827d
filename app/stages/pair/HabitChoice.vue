<script setup lang="ts">
import { withHabit } from '~~/core/plan/document'
import type { PlanHabitsReply } from '~~/shared/api/habits'
import type { PlanReply } from '~~/shared/api/plans'
import HabitTold from '~/habits/HabitTold.vue'
import { usePlan } from '../plan/store'
import { begunText } from './begun'

/** What the plan's decisions began with, and habits that can be laid over them. */
const props = defineProps<{ plan: PlanReply }>()
const store = usePlan()
const { data, problem, refresh } = useLoaded(() => api.get<PlanHabitsReply>(`/plans/${props.plan.id}/habits`))
// Another source makes another fit.
watch(() => [props.plan.id, props.plan.source.course.id].join(), refresh, { immediate: true })
const looking = ref<string | null>(null)
const laid = ref<string | null>(null)
type Habit = PlanHabitsReply['habits'][number]
function lay(habit: Habit): void {
  if (!store.document) return
  store.change(withHabit(store.document, habit.document))
  laid.value = habit.name
  looking.value = null
}
const mayEdit = computed(() => props.plan.may.edit && props.plan.state === 'draft')
</script>

<template>
  <section v-if="plan.begunWith || data?.habits.length" class="habits" aria-label="Habits">
    <h2>Decisions</h2>
    <p v-if="begunText(plan.begunWith)" class="small">{{ begunText(plan.begunWith) }}</p>
    <ProblemNote v-if="problem" :problem="problem" @retry="refresh" />
    <p v-if="laid" class="small kept" role="status">
      “{{ laid }}” is laid over this plan. Ctrl Z takes it back.
    </p>
    <template v-if="mayEdit">
      <article v-for="habit in data?.habits ?? []" :key="habit.id" :aria-label="habit.name">
        <p class="line">
          <bdi>{{ habit.name }}</bdi>
          <span v-if="habit.department" class="soft small">{{ habit.department }}</span>
          <button
            class="link small"
            type="button"
            :aria-expanded="looking === habit.id"
            @click="looking = looking === habit.id ? null : habit.id"
          >
            {{ looking === habit.id ? 'Close' : 'What it decides' }}
          </button>
        </p>
        <template v-if="looking === habit.id">
          <HabitTold :habit="habit" :leaves-out="habit.leavesOut" :from="habit.from.code" />
          <button class="act plain" type="button" @click="lay(habit)">
            Lay “{{ habit.name }}” over this plan
          </button>
        </template>
      </article>
    </template>
    <p v-if="data?.habits.length" class="small"><NuxtLink to="/habits">See all habits</NuxtLink></p>
  </section>
</template>

<style scoped>
.habits {
  margin-top: 20px;
}
article {
  border-bottom: 1px solid var(--rule);
  padding: 4px 0 6px;
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 10px;
  margin: 0;
}
.line button {
  margin-left: auto;
}
p {
  margin: 0 0 4px;
}
</style>
