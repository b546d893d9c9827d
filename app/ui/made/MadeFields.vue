<script setup lang="ts">
import type { WallTime } from '~~/core/calendar/day'
import { hasMadeText, madeTextAtMost, type MadeThing } from '~~/core/carry/added'
import { dateFields, type ItemDates } from '~~/core/course/dates'
import { itemKindDefinitions } from '~~/core/course/kinds'
import { parsePoints } from '~~/core/grading/points'
import type { useItemContexts } from '~/composables/today'
import MomentField from '~/ui/DateField.vue'

/** What a thing that somebody makes is to be, but for its kind and title. */
export interface MadeFields extends Pick<MadeThing, 'points' | 'exam' | 'text'> {
  readonly dates: Readonly<ItemDates>
  /** Key of its category; null: it counts in none. */
  readonly category: string | null
}
/** Dates, points, category and text of something made here: told field by field as somebody is done with one. */
const props = defineProps<{
  kind: MadeThing['kind']
  fields: MadeFields
  categories: readonly { lineage: string; title: string }[]
  contexts: ReturnType<typeof useItemContexts>['value']
  disabled?: boolean
}>()
const emit = defineEmits<{ change: [changed: Partial<MadeFields>] }>()
/** Whether the points that are typed are no number. */
const wrong = defineModel<boolean>('wrong', { default: false })
const points = ref('')
const text = ref('')
const read = computed(() => (points.value.trim() === '' ? null : parsePoints(points.value.trim())))
const isWrong = computed(() => points.value.trim() !== '' && read.value === null)
watch(isWrong, is => (wrong.value = is))
watch(
  () => props.fields.points,
  value => (points.value = value === null ? '' : pointsText(value)),
  { immediate: true },
)
watch(
  () => props.fields.text,
  value => (text.value = value),
  { immediate: true },
)
function putPoints(): void {
  if (!isWrong.value && read.value !== props.fields.points) emit('change', { points: read.value })
}
const putDate = (field: (typeof dateFields)[number], at: WallTime | null): void =>
  emit('change', { dates: { ...props.fields.dates, [field]: at } })
const id = useId()
const isDated = computed(() => props.kind !== null && props.kind !== 'heading')
const mayBeExam = computed(() => props.kind !== null && itemKindDefinitions[props.kind].canBeExam)
</script>

<template>
  <dl v-if="isDated" class="settings">
    <template v-for="field in dateFields.slice(0, 2)" :key="field">
      <dt>{{ fieldName(field) }}</dt>
      <dd>
        <MomentField
          :model-value="fields.dates[field]"
          :context="contexts[field]"
          :label="fieldName(field)"
          :name="`made-${field}`"
          placeholder="no date"
          :disabled="disabled"
          @update:model-value="at => putDate(field, at as WallTime | null)"
        />
      </dd>
    </template>
    <dt>Points</dt>
    <dd>
      <ElInput v-model="points" size="small" :disabled="disabled" aria-label="Points" @change="putPoints" />
      <span v-if="isWrong" class="small fault" role="alert">A number, such as 10 or 7.5.</span>
    </dd>
    <dt>Category</dt>
    <dd>
      <ElSelect
        :model-value="fields.category ?? 'none'"
        size="small"
        :disabled="disabled"
        aria-label="Its grade category"
        @change="value => emit('change', { category: value === 'none' ? null : String(value) })"
      >
        <ElOption value="none" label="in no category" />
        <ElOption v-for="each in categories" :key="each.lineage" :value="each.lineage" :label="each.title" />
      </ElSelect>
    </dd>
  </dl>
  <p v-if="mayBeExam">
    <ElCheckbox
      :model-value="fields.exam"
      :disabled="disabled"
      @change="value => emit('change', { exam: Boolean(value) })"
      >It is an exam</ElCheckbox
    >
  </p>
  <template v-if="hasMadeText(kind)">
    <label class="caps" :for="id">Text</label>
    <ElInput
      :id="id"
      v-model="text"
      type="textarea"
      :rows="4"
      :maxlength="madeTextAtMost"
      :disabled="disabled"
      placeholder="An empty line begins a new paragraph."
      @change="emit('change', { text })"
    />
  </template>
  <p v-else-if="kind === 'quiz'" class="small soft">
    It comes with no questions: write them in the shell, or hand it out on paper.
  </p>
</template>
