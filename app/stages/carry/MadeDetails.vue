<script setup lang="ts">
import { hasMadeText, madeTextAtMost, type MadeThing } from '~~/core/carry/added'
import { itemKindDefinitions } from '~~/core/course/kinds'
import { dateFields, noDates, type DateField } from '~~/core/course/dates'
import type { WallTime } from '~~/core/calendar/day'
import { parsePoints } from '~~/core/grading/points'
import { useItemContexts } from '~/composables/today'
import MomentField from '~/ui/DateField.vue'
import { useStagePlan } from '../plan/store'

/** What is made in the plan: its points, category, dates and text. */
const props = defineProps<{ lineage: string; thing: MadeThing; mayEdit: boolean }>()
const { store, plan, document } = useStagePlan()
const change = (changed: Partial<MadeThing>): void =>
  store.changeIn('added', {
    made: { ...document.value.added.made, [props.lineage]: { ...props.thing, ...changed } },
  })
const points = ref('')
const text = ref('')
watch(
  () => props.lineage,
  () => {
    points.value = props.thing.points === null ? '' : pointsText(props.thing.points)
    text.value = props.thing.text
  },
  { immediate: true },
)
const read = computed(() => (points.value.trim() === '' ? null : parsePoints(points.value.trim())))
const isWrong = computed(() => points.value.trim() !== '' && read.value === null)
function putPoints(): void {
  if (!isWrong.value && read.value !== props.thing.points) change({ points: read.value })
}
const mayBeExam = computed(() => props.thing.kind !== null && itemKindDefinitions[props.thing.kind].canBeExam)
const contexts = useItemContexts(
  () => store.terms?.target ?? null,
  () => plan.value.target.course.meetings,
)
const held = computed(() => {
  const rule = document.value.dates.itemRules[props.lineage]
  return rule?.method === 'set' ? rule : null
})
const planned = computed(() => store.planned.get(props.lineage))
function setDate(field: DateField, at: WallTime | null): void {
  const { opens, due, closes } = held.value ?? planned.value ?? noDates
  const next = { opens, due, closes, [field]: at }
  store.hold(props.lineage, dateFields.every(each => next[each] === null) ? null : next)
}
const categories = computed(() => store.carrying?.grades.categories ?? [])
const category = computed({
  get: () => document.value.grades.items[props.lineage]?.category ?? 'none',
  set: value =>
    store.changeIn('grades', {
      items: {
        ...document.value.grades.items,
        [props.lineage]: {
          ...document.value.grades.items[props.lineage],
          category: value === 'none' ? null : value,
        },
      },
    }),
})
</script>

<template>
  <dl v-if="thing.kind !== null" class="settings">
    <template v-if="thing.kind !== 'heading'">
      <template v-for="field in dateFields.slice(0, 2)" :key="field">
        <dt>{{ fieldName(field) }}</dt>
        <dd>
          <MomentField
            :model-value="(held ?? planned ?? noDates)[field]"
            :context="contexts[field]"
            :label="fieldName(field)"
            :name="`made-${field}`"
            placeholder="no date"
            :disabled="!mayEdit"
            @update:model-value="at => setDate(field, at as WallTime | null)"
          />
        </dd>
      </template>
      <dt>Points</dt>
      <dd>
        <ElInput v-model="points" size="small" :disabled="!mayEdit" aria-label="Points" @change="putPoints" />
        <span v-if="isWrong" class="small fault" role="alert">A number, such as 10 or 7.5.</span>
      </dd>
      <dt>Category</dt>
      <dd>
        <ElSelect v-model="category" size="small" :disabled="!mayEdit" aria-label="Its grade category">
          <ElOption value="none" label="in no category" />
          <ElOption
            v-for="each in categories"
            :key="each.lineage"
            :value="each.lineage"
            :label="each.title"
          />
        </ElSelect>
      </dd>
    </template>
  </dl>
  <p v-if="mayBeExam">
    <ElCheckbox
      :model-value="thing.exam"
      :disabled="!mayEdit"
      @change="value => change({ exam: Boolean(value) })"
      >It is an exam</ElCheckbox
    >
  </p>
  <template v-if="hasMadeText(thing.kind)">
    <label class="caps" :for="`text-${lineage}`">Text</label>
    <ElInput
      :id="`text-${lineage}`"
      v-model="text"
      type="textarea"
      :rows="4"
      :maxlength="madeTextAtMost"
      :disabled="!mayEdit"
      placeholder="An empty line begins a new paragraph."
      @change="change({ text })"
    />
  </template>
  <p v-else-if="thing.kind === 'quiz'" class="small soft">
    It comes with no questions: write them in the shell, or hand it out on paper.
  </p>
  <p class="small">
    <button class="link" type="button" :disabled="!mayEdit" @click="store.takeOut(lineage)">
      Take it out of the plan
    </button>
  </p>
</template>
