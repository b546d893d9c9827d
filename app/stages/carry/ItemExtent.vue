<script setup lang="ts">
import { comesAsFrame } from '~~/core/plan/parts/carry'
import { itemKindDefinitions } from '~~/core/course/kinds'
import { present } from '~~/core/present'
import { useStagePlan } from '../plan/store'
import type { ShownRow } from './carry'
import QuestionChoice from './QuestionChoice.vue'

/** How much of an item comes: all of it, some of its questions, or a frame without content. */
const props = defineProps<{ shown: ShownRow; mayEdit: boolean }>()
const { store, document } = useStagePlan()
const source = computed(() => present(props.shown.row.source))
const key = computed(() => source.value.lineage)
const isFrame = computed(() => comesAsFrame(document.value.carry, source.value))
const hasQuestions = computed(
  () => source.value.kind !== null && itemKindDefinitions[source.value.kind].shows === 'questions',
)
const part = computed({
  get: () => (isFrame.value ? 'frame' : 'whole'),
  set: value => {
    const { [key.value]: _, ...rest } = document.value.carry.frames
    const byKind = document.value.carry.frameKinds[source.value.kind ?? 'page'] ?? false
    const frames = (value === 'frame') === byKind ? rest : { ...rest, [key.value]: value === 'frame' }
    store.changeIn('carry', { frames })
  },
})
const at = computed(() => {
  const side = store.sideOf(key.value)
  const found = document.value.added.found[key.value]
  return side && { course: side.course.id, lineage: found?.lineage ?? key.value }
})
const isOpen = ref(false)
watch(key, () => (isOpen.value = false))
const chosen = computed(() => document.value.places.questions[key.value] ?? null)
const isOld = computed(() => chosen.value !== null && chosen.value.body !== source.value.body)
function choose(takes: number[] | null): void {
  const { [key.value]: _, ...rest } = document.value.places.questions
  const body = source.value.body ?? ''
  store.changeIn('places', { questions: takes === null ? rest : { ...rest, [key.value]: { body, takes } } })
}
</script>

<template>
  <dl class="settings">
    <dt>Comes</dt>
    <dd>
      <ElSelect v-model="part" size="small" :disabled="!mayEdit" aria-label="How much of it comes">
        <ElOption value="whole" label="with its content" />
        <ElOption value="frame" label="as a frame, without content" />
      </ElSelect>
    </dd>
  </dl>
  <p v-if="isFrame" class="small soft">
    Title, dates, points, category and settings come. Its {{ hasQuestions ? 'questions' : 'text' }} stays
    behind.
  </p>
  <template v-else-if="hasQuestions && at">
    <p v-if="isOld" class="small settle" role="status">
      The questions have changed since you chose some. Choose again.
    </p>
    <p v-if="!isOpen" class="small">
      <template v-if="chosen">{{ counted(chosen.takes.length, 'question') }} chosen. </template>
      <button class="link" type="button" @click="isOpen = true">Choose among its questions</button>
    </p>
    <QuestionChoice
      v-else
      :course="at.course"
      :lineage="at.lineage"
      :chosen="chosen && !isOld ? chosen.takes : null"
      :may-edit="mayEdit"
      @choose="choose"
    />
  </template>
</template>
