<script setup lang="ts">
import { titleOfPackage } from '~~/core/course/package-title'
import type { GatherReply } from '~~/shared/api/gathering'
import type { ImportWish, UploadReply } from '~~/shared/api/uploads'
import { useDayContext } from '~/composables/today'
import DateField from '~/ui/DateField.vue'
import type { GatherChoices } from './gathering'
import { belongsText } from './words'

/** Where a package goes: to a course of its own, into a class that holds nothing yet, or beside the course that it is of, to be compared. */
const props = defineProps<{
  file: UploadReply
  gathered: GatherChoices
  courses: GatherReply['courses']
  /** First and last day of what is dated in it; null: nothing is. */
  dated: { from: string; to: string } | null
  busy: boolean
  fault: (field: string) => string | undefined
}>()
const emit = defineEmits<{ bring: [wish: ImportWish] }>()
const term = defineModel<string>('term', { required: true })

const into = ref('')
watch(
  () => props.courses,
  ([surest]) => {
    // What names this very course, or has its items, is proposed; a code or a title alone is not.
    if (surest && ['class', 'items'].includes(surest.why)) into.value ||= surest.id
  },
  { immediate: true },
)
const target = computed(() => props.courses.find(({ id }) => id === into.value) ?? null)

const said = titleOfPackage(props.file.report?.title ?? '')
const code = ref(said.code)
const section = ref(said.section)
const title = ref(said.title.slice(0, 500))
const ownTerm = 'own'
const isOwnTerm = ref(props.file.terms.length === 0)
const termChosen = computed({
  get: () => (isOwnTerm.value ? ownTerm : term.value),
  set: (chosen: string) => {
    isOwnTerm.value = chosen === ownTerm
    if (chosen !== ownTerm) term.value = chosen
  },
})
const terms = computed(() => [...props.file.terms, { code: ownTerm, name: 'Another term' }])
const context = useDayContext()
const span = reactive<{ from: string | null; to: string | null }>({ from: null, to: null })
const ran = computed(() => ({
  from: span.from ?? props.dated?.from ?? null,
  to: span.to ?? props.dated?.to ?? null,
}))

const wish = computed((): ImportWish => {
  const { from, to } = ran.value
  return target.value
    ? { as: 'course', into: target.value.id, ...props.gathered }
    : {
        as: 'course',
        term: isOwnTerm.value ? '' : term.value,
        span: isOwnTerm.value && from && to ? { from, to } : null,
        code: code.value,
        section: section.value,
        title: title.value,
        ...props.gathered,
      }
})
const withText = computed(() => {
  const { length } = props.gathered.beside
  return length === 0
    ? ''
    : `, and with what ${counted(length, 'other file')} ${length === 1 ? 'says' : 'say'} of it`
})
const doesText = computed(() => {
  if (!target.value)
    return `This adds one course with everything listed here${withText.value}. You become its instructor. No shell changes.`
  return target.value.isEmpty
    ? `The class gets everything listed here${withText.value}. Its roster and its meetings stay as they are.`
    : `This begins a plan that compares the file with the course${withText.value}. It shows what is new and what has changed, there and here. The course changes only when you run the plan.`
})
const pressText = computed(() => {
  if (!target.value) return 'Keep as a course'
  return target.value.isEmpty ? `Bring into ${target.value.name}` : `Compare with ${target.value.name}`
})
</script>

<template>
  <form @submit.prevent="emit('bring', wish)">
    <h2>{{ courses.length ? 'Where it goes' : 'Keep it as a course' }}</h2>
    <ElRadioGroup v-if="courses.length" v-model="into" aria-label="Where the package goes">
      <ElRadio v-for="course in courses" :key="course.id" :value="course.id">
        <bdi>{{ course.name }}</bdi>, {{ course.term }}
        <span class="soft small">{{ belongsText(course) }}</span>
      </ElRadio>
      <ElRadio value="">A course of its own</ElRadio>
    </ElRadioGroup>
    <p class="small">{{ doesText }}</p>
    <template v-if="!target">
      <FormField label="Term it was taught in" :fault="fault('term')">
        <TermSelect v-model="termChosen" :terms="terms" label="Term it was taught in" />
      </FormField>
      <template v-if="isOwnTerm">
        <p class="small">
          Say when its classes began and ended.
          {{ dated ? 'Proposed are the first and the last day of what is dated in it.' : '' }}
        </p>
        <dl class="settings">
          <dt>First day</dt>
          <dd>
            <DateField
              :model-value="ran.from"
              :context="context"
              label="First day of classes"
              placeholder="2 sep 2025"
              @update:model-value="day => (span.from = day)"
            />
          </dd>
          <dt>Last day</dt>
          <dd>
            <DateField
              :model-value="ran.to"
              :context="context"
              label="Last day of classes"
              placeholder="4 dec 2025"
              @update:model-value="day => (span.to = day)"
            />
          </dd>
        </dl>
        <p v-if="fault('span')" class="small lost" role="alert">{{ fault('span') }}</p>
      </template>
      <div class="pair">
        <FormField label="Code, if it has one" :fault="fault('code')">
          <ElInput v-model="code" maxlength="40" placeholder="as HYD 240" />
        </FormField>
        <FormField label="Section" :fault="fault('section')">
          <ElInput v-model="section" maxlength="40" />
        </FormField>
      </div>
      <FormField label="Title" :fault="fault('title')">
        <ElInput v-model="title" type="textarea" autosize maxlength="500" />
      </FormField>
    </template>
    <button class="act" type="submit" :disabled="busy">{{ pressText }}</button>
  </form>
</template>

<style scoped>
form {
  display: grid;
  gap: 12px;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 84px;
  gap: 12px;
}
.act {
  justify-self: start;
  white-space: normal;
  text-align: left;
}
p {
  margin: 0;
}
:deep(.el-radio-group) {
  display: grid;
  justify-items: start;
  gap: 6px;
}
:deep(.el-radio) {
  height: auto;
  margin: 0;
  white-space: normal;
  align-items: start;
}
:deep(.el-radio__label) .small {
  display: block;
}
.lost {
  color: var(--buoy);
}
</style>
