<script setup lang="ts">
import { itemKindDefinitions } from '~~/core/course/kinds'
import type { ItemReply } from '~~/shared/api/courses'
import type { Find } from '~~/shared/api/search'
import { useStagePlan } from '../../plan/store'
import QuestionChoice from '../QuestionChoice.vue'

/** A look at what was found, and taking it, or a part of it, into the plan. */
const props = defineProps<{ find: Find }>()
const { store, plan, document } = useStagePlan()
const session = useSession()
const at = ref(0)
const place = computed(() => props.find.places[at.value] ?? props.find.places[0])
const course = computed(() => place.value?.course.id ?? '')
const lineage = computed(() => place.value?.lineage ?? '')
const asksQuestions = computed(() => itemKindDefinitions[props.find.kind].shows === 'questions')
const { data, problem, refresh } = useLoaded(() =>
  api.get<ItemReply>(`/courses/${course.value}/items/${lineage.value}`),
)
watch([course, lineage], () => void refresh(), { immediate: true })
// Shallow: what is taken goes into the plan's document as it is, and from there to a worker.
const chosen = shallowRef<number[] | null>(null)
const sources = computed(() => [plan.value.source, ...plan.value.more])
/** It stands in a source of the plan already: there it is ticked, not taken. */
const inSource = computed(() => sources.value.some(side => side.course.id === course.value))
const takenAs = computed(
  () =>
    Object.entries(document.value.added.found).find(
      ([, found]) => found.course === course.value && found.lineage === lineage.value,
    )?.[0] ?? null,
)
const units = computed(() =>
  store.rows.flatMap(row =>
    row.type === 'unit' && row.lineage !== null
      ? [{ key: row.source?.lineage ?? row.key, title: (row.shell ?? row.source)?.title ?? '' }]
      : [],
  ),
)
const into = ref('top')
watch(
  units,
  ([first]) => {
    if (into.value === 'top' && first) into.value = first.key
  },
  { immediate: true },
)
const question = computed(() => data.value?.questions?.length ?? 0)
const taking = useAction(async () => {
  const body = data.value?.body
  await store.take(
    { course: course.value, lineage: lineage.value },
    {
      by: session.person?.id ?? '',
      into: into.value === 'top' ? null : into.value,
      questions: chosen.value && body ? { body, takes: chosen.value } : null,
    },
  )
  // What the server refused, or did not hear, is not left in the plan.
  if (store.saving === 'conflict' || store.saving === 'failed') store.undo()
})
const takeWords = computed(() => {
  const one = kindWords(props.find.kind)[0]
  if (chosen.value === null) return `Take this ${one} into the plan`
  return `Take ${counted(chosen.value.length, 'question')} into the plan`
})
</script>

<template>
  <section aria-label="Found item">
    <p class="caps">Found</p>
    <h2>
      <bdi>{{ find.title }}</bdi>
    </h2>
    <dl class="settings">
      <dt>Stands in</dt>
      <dd>
        <ElSelect v-if="find.places.length > 1" v-model="at" size="small" aria-label="From which course">
          <ElOption
            v-for="(each, index) in find.places"
            :key="each.course.id"
            :value="index"
            :label="`${codeText(each.course)}, ${each.course.term.name}`"
          />
        </ElSelect>
        <template v-else-if="place">{{ codeText(place.course) }}, {{ place.course.term.name }}</template>
      </dd>
      <template v-if="place?.unit">
        <dt>Unit</dt>
        <dd>
          <bdi>{{ place.unit }}</bdi>
        </dd>
      </template>
    </dl>
    <p v-if="inSource" class="small">
      This course is a source of the plan.
      <NuxtLink :to="`/plans/${plan.id}/carry?item=${lineage}`">Show it in the ledger</NuxtLink>
    </p>
    <p v-else-if="takenAs" class="small" role="status">
      It is in the plan.
      <NuxtLink :to="`/plans/${plan.id}/carry?item=${takenAs}`">Show it in the ledger</NuxtLink>
      or
      <button class="link" type="button" :disabled="!plan.may.edit" @click="store.takeOut(takenAs)">
        take it out again</button
      >.
    </p>
    <template v-else>
      <dl class="settings">
        <dt>Goes into</dt>
        <dd>
          <ElSelect
            v-model="into"
            size="small"
            :disabled="!plan.may.edit"
            aria-label="Into which unit it goes"
          >
            <ElOption value="top" label="outside the units" />
            <ElOption v-for="unit in units" :key="unit.key" :value="unit.key" :label="unit.title" />
          </ElSelect>
        </dd>
      </dl>
      <p>
        <button
          class="act"
          type="button"
          :disabled="!plan.may.edit || taking.busy.value || chosen?.length === 0"
          @click="taking.run()"
        >
          {{ takeWords }}
        </button>
      </p>
      <ProblemNote v-if="taking.problem.value" :problem="taking.problem.value" @retry="taking.run()" />
    </template>
    <ProblemNote v-if="problem" :problem="problem" @retry="refresh" />
    <QuestionChoice
      v-else-if="asksQuestions && course"
      :course="course"
      :lineage="lineage"
      :chosen="chosen"
      :may-edit="plan.may.edit && !inSource && !takenAs"
      @choose="next => (chosen = next)"
    />
    <SanitisedHtml v-else-if="data?.html" class="look" :html="data.html" />
    <p v-else-if="data?.file" class="small">
      A file of {{ sizeText(data.file.size) }}. <a :href="data.file.url" download>Download it</a>
    </p>
    <p v-if="asksQuestions && question === 0 && data" class="small soft">
      It has no questions to choose among.
    </p>
  </section>
</template>

<style scoped>
.look {
  border-top: 1px solid var(--rule);
  padding-top: 8px;
  font-size: 13.5px;
  max-height: 420px;
  overflow: auto;
}
.look :deep(h1),
.look :deep(h2) {
  font-size: 16px;
}
.look :deep(img) {
  max-width: 100%;
}
</style>
