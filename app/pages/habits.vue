<script setup lang="ts">
import type { HabitLine, HabitsReply } from '~~/shared/api/habits'

/** Decisions that are remembered: one's own, and those of one's departments. */
useHead({ title: 'Habits · Northtide' })
const { data, problem, refresh } = useLoaded(() => api.get<HabitsReply>('/habits'))
onMounted(refresh)
const groups = computed(() => {
  const all = data.value?.habits ?? []
  const departments = [...new Set(all.flatMap(({ department }) => department ?? []))].sort()
  const own = { name: 'Yours', habits: all.filter(habit => habit.department === null) }
  return [
    ...(own.habits.length > 0 ? [own] : []),
    ...departments.map(name => ({ name, habits: all.filter(habit => habit.department === name) })),
  ]
})
/** The same of each habit. */
const cannotKnow = computed(() => data.value?.habits[0]?.cannotKnow ?? [])
const {
  run: act,
  busy,
  problem: actProblem,
} = useAction(async (work: () => Promise<unknown>) => {
  await work()
  await refresh()
})
/** The habit whose name is being changed, and the one that is about to be deleted. */
const renaming = ref<{ id: string; name: string } | null>(null)
const asking = ref<string | null>(null)
const setUsual = ({ id, isUsual }: HabitLine): Promise<boolean> =>
  act(() => api.put(`/habits/${id}`, { usual: !isUsual }))
async function rename(): Promise<void> {
  const now = renaming.value
  if (now && (await act(() => api.put(`/habits/${now.id}`, { name: now.name })))) renaming.value = null
}
async function forget({ id }: HabitLine): Promise<void> {
  await act(() => api.delete(`/habits/${id}`))
  asking.value = null
}
const whose = ({ department }: HabitLine): string => (department === null ? 'Your plans' : 'Its plans')
</script>

<template>
  <main class="page">
    <header>
      <h1>Habits</h1>
      <p class="soft">
        Decisions of a run that are remembered for the next term. A plan begins with the habit that is marked
        so; any other can be laid over a plan on its page Pair.
      </p>
    </header>
    <ProblemNote v-if="problem" :problem="problem" @retry="refresh" />
    <LoadingLines v-else-if="!data" what="Fetching your habits …" />
    <div v-else-if="groups.length === 0" class="note empty">
      <h2>No habit yet</h2>
      <p>
        After a run, its page offers to remember what you decided. Until then a plan begins with the decisions
        of the last term, or with the recommended ones.
      </p>
      <NuxtLink class="act" to="/rollovers">To the rollovers</NuxtLink>
    </div>
    <div v-else class="beside">
      <div>
        <ActionProblem :problem="actProblem" />
        <section v-for="group in groups" :key="group.name" :aria-label="group.name">
          <h2>{{ group.name }}</h2>
          <article v-for="habit in group.habits" :key="habit.id" :aria-label="habit.name">
            <form v-if="renaming?.id === habit.id" class="rename" @submit.prevent="rename">
              <ElInput v-model="renaming.name" size="small" maxlength="80" aria-label="Name of the habit" />
              <button class="link" type="submit" :disabled="busy || renaming.name.trim() === ''">
                Save the name
              </button>
              <button class="link" type="button" @click="renaming = null">Leave it</button>
            </form>
            <h3 v-else>
              <bdi>{{ habit.name }}</bdi>
              <b v-if="habit.isUsual" class="kept small">{{ whose(habit) }} begin with it</b>
            </h3>
            <p class="soft small">
              Kept {{ momentInFull(instituteClock(habit.madeAt)) }}, by {{ habit.by }} from
              <NuxtLink :to="`/runs/${habit.from.run}`"
                >the run into {{ habit.from.code }}, {{ habit.from.term }}</NuxtLink
              >
            </p>
            <ul class="small">
              <li v-for="line in habit.decides" :key="line">{{ line }}</li>
            </ul>
            <p v-if="habit.may.edit" class="acts small">
              <button class="link" type="button" :disabled="busy" @click="setUsual(habit)">
                {{ habit.isUsual ? `Begin no plan with it` : `Begin plans with it` }}
              </button>
              <button class="link" type="button" @click="renaming = { id: habit.id, name: habit.name }">
                Rename …
              </button>
              <template v-if="asking === habit.id">
                <button class="link danger" type="button" :disabled="busy" @click="forget(habit)">
                  Delete the habit “{{ habit.name }}”
                </button>
                <button class="link" type="button" @click="asking = null">Keep it</button>
              </template>
              <button v-else class="link" type="button" @click="asking = habit.id">Delete …</button>
            </p>
          </article>
        </section>
      </div>
      <aside>
        <h2>What no habit can know</h2>
        <ul class="small soft">
          <li v-for="line in cannotKnow" :key="line">{{ line }}</li>
        </ul>
      </aside>
    </div>
  </main>
</template>

<style scoped>
ul {
  margin: 4px 0;
  padding-left: 15px;
}
section {
  margin-bottom: 26px;
}
article {
  border-bottom: 1px solid var(--rule);
  padding: 10px 0 8px;
}
h3 b {
  font: 600 12.5px var(--sans);
  margin-left: 10px;
}
article > p {
  margin: 2px 0;
}
.rename {
  display: flex;
  gap: 14px;
  align-items: center;
  max-width: 520px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 18px;
}
.danger {
  color: var(--buoy);
  font-weight: 600;
}
.empty {
  max-width: 560px;
}
</style>
