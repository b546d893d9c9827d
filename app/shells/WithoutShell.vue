<script setup lang="ts">
import type { CourseLine, CourseReply } from '~~/shared/api/courses'
import type { GuardReply } from '~~/shared/api/shells'

/** A plan before there is a shell: for a term, or (in place) the same course again. */
const props = defineProps<{ mode: 'roll' | 'in-place' }>()
const route = useRoute()
const { data, problem, refresh } = useLoaded(() => api.get<GuardReply>('/courses/guard'))
onMounted(refresh)
const term = ref('')
const source = shallowRef<CourseLine | null>(null)
onMounted(async () => {
  if (route.query.from)
    source.value =
      (await api.get<CourseReply>(`/courses/${String(route.query.from)}`).catch(() => null))?.course ?? null
})
const terms = computed(
  () =>
    data.value?.terms.filter(entry => !source.value || entry.classesFrom > source.value.term.classesFrom) ??
    [],
)
watch(terms, found => {
  if (!found.some(entry => entry.code === term.value)) term.value = found[0]?.code ?? ''
})
const mayBe = (course: CourseLine): boolean =>
  props.mode === 'roll' ||
  ((course.role === 'instructor' || course.role === 'office') &&
    ['registrar', 'hand'].includes(course.origin))
const {
  run: start,
  busy,
  problem: actProblem,
} = useAction(async () => {
  const asked = { sources: [present(source.value).id], term: term.value, mode: props.mode }
  const { id } = await api.post<{ id: string }>('/plans/awaited', asked)
  await navigateTo(`/plans/${id}/pair`)
})
</script>

<template>
  <div class="beside">
    <div>
      <ProblemNote v-if="problem" :problem="problem" @retry="refresh" />
      <template v-if="source">
        <p class="caps">
          {{
            mode === 'in-place'
              ? 'This course is used again · it changes, and a snapshot of it stays'
              : 'From · stays as it is'
          }}
        </p>
        <h2>
          {{ codeOf(source) }} <bdi>{{ source.title }}</bdi>
        </h2>
        <p class="soft">
          {{ courseFacts(source) }} · {{ counted(source.items, 'item') }} ·
          <button class="link" type="button" @click="source = null">Choose another course</button>
        </p>
        <form class="into" @submit.prevent="start">
          <label
            >Into the term<ElSelect v-model="term" aria-label="Term to plan for" :disabled="!terms.length"
              ><ElOption
                v-for="entry in terms"
                :key="entry.code"
                :value="entry.code"
                :label="`${entry.name}, classes from ${dayText(entry.classesFrom)} ${entry.classesFrom.slice(0, 4)}`" /></ElSelect
          ></label>
          <p v-if="data && !terms.length" class="settle">
            There is no term after {{ source.term.name }} here yet. The academic office adds terms.
          </p>
          <ActionProblem :problem="actProblem" />
          <button class="act" type="submit" :disabled="busy || !term">
            {{ mode === 'in-place' ? `Plan ${codeText(source)} in place` : 'Plan for this term' }}
          </button>
        </form>
      </template>
      <SourceChoice
        v-else
        :label="mode === 'in-place' ? 'Find the course to use again' : 'Find a course to roll from'"
        ><template #default="{ course }"
          ><button v-if="mayBe(course)" class="act plain" type="button" @click="source = course">
            {{ mode === 'in-place' ? 'Use this course again' : 'Plan from this course' }}</button
          ><span v-else class="soft small">only its instructors may</span></template
        ></SourceChoice
      >
    </div>
    <aside>
      <div v-if="mode === 'roll'" class="note">
        <h3>Attach the shell later</h3>
        <p class="small">
          The plan uses the term’s calendar and, until the shell comes, the old course’s meeting times. You
          can run it once the shell is there.
        </p>
        <p class="small">
          When the registrar’s shell appears, you are offered it here and on the first page. Attach it with
          one press, and the dates follow its meetings.
        </p>
      </div>
      <div v-else class="note brass">
        <h3>What rolling in place does</h3>
        <p class="small">
          No new shell is filled. The course itself moves into the new term, with new dates; nothing is
          carried, since everything is there.
        </p>
        <p class="small">
          Before anything is written, Northtide keeps a snapshot of the course with its students and all their
          work. From then on, the registrar’s old class is kept as the snapshot.
        </p>
        <p class="small">
          Clear then asks what of last term’s student work goes from the course; the snapshot keeps all of it.
          If the registrar makes a shell for the new term, roll into that instead: its students are there.
        </p>
      </div>
    </aside>
  </div>
</template>

<style scoped>
.into {
  display: grid;
  gap: 14px;
  justify-items: start;
  max-width: 420px;
  margin-top: 16px;
}
label {
  display: grid;
  gap: 3px;
  font-size: 12.5px;
  color: var(--ink-soft);
  width: 100%;
}
.beside {
  --aside: 300px;
}
</style>
