<script setup lang="ts">
import type { ItemReply } from '~~/shared/api/courses'

/** The questions of a quiz, of which some or all are chosen. */
const props = defineProps<{
  course: string
  lineage: string
  /** Places of those that are chosen, from 0; null: all. */
  chosen: readonly number[] | null
  mayEdit: boolean
}>()
const emit = defineEmits<{ choose: [chosen: number[] | null] }>()
const { data, problem, loading, refresh } = useLoaded(() =>
  api.get<ItemReply>(`/courses/${props.course}/items/${props.lineage}`),
)
watch([() => props.course, () => props.lineage], () => void refresh(), { immediate: true })
const questions = computed(() => data.value?.questions ?? [])
const isChosen = (at: number): boolean => props.chosen === null || props.chosen.includes(at)
const count = computed(() => props.chosen?.length ?? questions.value.length)
function toggle(at: number): void {
  const all = questions.value.map((_, index) => index)
  const next = all.filter(index => (index === at ? !isChosen(at) : isChosen(index)))
  emit('choose', next.length === all.length ? null : next)
}
</script>

<template>
  <ProblemNote v-if="problem" :problem="problem" @retry="refresh" />
  <LoadingLines v-else-if="loading && !data" what="Fetching the questions …" :rows="3" />
  <p v-else-if="!questions.length" class="small soft">It holds no questions that can be told apart.</p>
  <template v-else>
    <p class="small">
      <b>{{ count }}</b> of {{ counted(questions.length, 'question') }} {{ count === 1 ? 'comes' : 'come' }}.
      <button v-if="chosen" class="link" type="button" :disabled="!mayEdit" @click="emit('choose', null)">
        Take all</button
      >{{ ' ' }}
      <button v-if="count > 0" class="link" type="button" :disabled="!mayEdit" @click="emit('choose', [])">
        Take none
      </button>
    </p>
    <ol aria-label="Questions">
      <li v-for="(question, at) in questions" :key="at">
        <ElCheckbox
          :model-value="isChosen(at)"
          :disabled="!mayEdit"
          :aria-label="`Question ${at + 1}`"
          @change="toggle(at)"
        />
        <span>
          <SanitisedHtml :html="question.prompt" tag="span" />{{ ' ' }}
          <span class="soft small">{{ question.type }}</span>
        </span>
      </li>
    </ol>
  </template>
</template>

<style scoped>
ol {
  list-style: none;
  max-height: 300px;
  overflow: auto;
  border-block: 1px solid var(--rule);
  margin-bottom: 10px;
}
li {
  display: grid;
  grid-template-columns: 20px 1fr;
  gap: 6px;
  padding: 3px 0;
  border-bottom: 1px solid var(--rule);
  font-size: 13px;
}
li:last-child {
  border-bottom: 0;
}
li :deep(p) {
  display: inline;
  margin: 0;
}
</style>
