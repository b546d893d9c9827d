<script setup lang="ts">
import { keptDays } from '~~/core/student-data/clearing'
import type { KeepRules, SweepReply } from '~~/shared/api/clearing'

/** For the academic office: last term's people in courses rolled in place, and how long cleared student data is kept. */
useHead({ title: 'Sweep · Northtide' })
const { data, problem, refresh } = useLoaded(() => api.get<SweepReply>('/student-data/sweep'))
const rules = useLoaded(() => api.get<KeepRules>('/student-data/rules'))
onMounted(() => {
  void refresh()
  void rules.refresh()
})
const chosen = ref<Set<string>>(new Set())
watch(data, now => {
  chosen.value = new Set(now?.courses.map(({ course }) => course.id))
})
function choose(id: string, isChosen: boolean): void {
  const next = new Set(chosen.value)
  if (isChosen) next.add(id)
  else next.delete(id)
  chosen.value = next
}
const people = computed(() =>
  (data.value?.courses ?? []).reduce(
    (sum, { course, students }) => sum + (chosen.value.has(course.id) ? students : 0),
    0,
  ),
)
const swept = ref('')
const {
  run: sweep,
  busy,
  problem: sweepProblem,
} = useAction(async () => {
  const done = await api.post<{ courses: number; people: number }>('/student-data/sweep', {
    courses: [...chosen.value],
  })
  swept.value = `${counted(done.people, 'student')} taken off ${counted(done.courses, 'course')}. Each course’s page can put them back.`
  await refresh()
})
const days = ref<number>()
watch(rules.data, now => {
  days.value = now?.days
})
const {
  run: saveDays,
  busy: saving,
  problem: saveProblem,
} = useAction(async () => {
  await api.put('/student-data/rules', { days: days.value }, rules.data.value?.revision ?? 0)
  await rules.refresh()
})
const daysFault = computed(() => saveProblem.value?.errors[0]?.message)
</script>

<template>
  <main class="page">
    <header>
      <h1>Sweep</h1>
      <p class="soft">
        Last term’s students still stand in courses that were rolled in place. The sweep takes them off. They
        keep the old course as its snapshot.
      </p>
    </header>
    <ProblemNote v-if="problem" :problem="problem" @retry="refresh" />
    <LoadingLines v-else-if="!data" what="Looking for last term’s students …" />
    <div v-else class="beside">
      <div>
        <ProblemNote v-if="sweepProblem" :problem="sweepProblem" @retry="refresh" />
        <p v-if="swept" class="kept" role="status">{{ swept }}</p>
        <p v-if="!data.courses.length" class="soft">
          Nobody is left over: no course that was rolled in place holds students of its last term.
        </p>
        <template v-else>
          <table class="ruled">
            <thead>
              <tr>
                <th scope="col">Take off</th>
                <th scope="col">Course</th>
                <th scope="col" class="number">Students</th>
                <th scope="col" class="number">Rows of theirs</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="{ course, students, rows } in data.courses" :key="course.id">
                <td>
                  <ElCheckbox
                    :model-value="chosen.has(course.id)"
                    size="small"
                    :aria-label="`Sweep ${codeText(course)}`"
                    @change="(is: unknown) => choose(course.id, is === true)"
                  />
                </td>
                <td>
                  <NuxtLink :to="`/courses/${course.id}`"
                    >{{ codeOf(course) }} <bdi>{{ course.title }}</bdi></NuxtLink
                  >
                  <span class="soft small">{{ course.term.name }}</span>
                </td>
                <td class="number">{{ numberText(students) }}</td>
                <td class="number">{{ numberText(rows) }}</td>
              </tr>
            </tbody>
          </table>
          <p class="do">
            <button class="act" type="button" :disabled="busy || people === 0" @click="sweep">
              {{ busy ? 'Taking them off …' : `Take ${counted(people, 'student')} off` }}
            </button>
          </p>
        </template>
      </div>
      <aside>
        <h2>How long it is kept</h2>
        <p class="small soft">
          What is cleared is kept aside and can be put back. After this time it is destroyed, and the log says
          so.
        </p>
        <ProblemNote v-if="rules.problem.value" :problem="rules.problem.value" @retry="rules.refresh" />
        <ProblemNote v-else-if="saveProblem && !daysFault" :problem="saveProblem" @retry="rules.refresh" />
        <form v-if="rules.data.value" @submit.prevent="saveDays">
          <label class="small"
            >Days
            <ElInputNumber
              v-model="days"
              size="small"
              :min="keptDays.least"
              :max="keptDays.most"
              :step="1"
              step-strictly
              aria-label="Days for which cleared student data is kept"
          /></label>
          <p v-if="daysFault" class="fault small" role="alert">{{ daysFault }}</p>
          <button class="link" type="submit" :disabled="saving || days === rules.data.value.days">
            Keep it for {{ counted(days ?? 0, 'day') }}
          </button>
          <p v-if="rules.data.value.by" class="small soft">
            Set by {{ rules.data.value.by.name }}, {{ instantText(rules.data.value.by.at) }}.
          </p>
        </form>
      </aside>
    </div>
  </main>
</template>

<style scoped>
.number {
  text-align: right;
}
.do {
  margin-top: 12px;
}
form {
  margin-top: 8px;
  display: grid;
  gap: 6px;
  justify-items: start;
}
</style>
