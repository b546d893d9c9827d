<script setup lang="ts">
import { titleOfPackage } from '~~/core/course/package-title'
import type { GatherReply } from '~~/shared/api/gathering'
import type { ImportWish, UploadReply } from '~~/shared/api/uploads'
import { noOwnSpan, type GatherChoices, type OwnSpan, type Taught } from './gathering'
import OwnTerm from './OwnTerm.vue'
import { belongsText } from './words'

/** Where a package goes: to a course of its own, into a class that holds nothing yet, or beside the course that it is of, to be compared. */
const props = defineProps<{
  file: UploadReply
  gathered: GatherChoices
  reply: Pick<GatherReply, 'courses' | 'calendars' | 'days'>
  /** First and last day of what is dated in it; null: nothing is. */
  dated: { from: string; to: string } | null
  busy: boolean
  fault: (field: string) => string | undefined
}>()
const emit = defineEmits<{ bring: [wish: ImportWish] }>()
/** When it was taught, as it is said now. */
const taught = defineModel<Taught>('taught', { required: true })
/** The course that it goes into, or is compared with; empty: one of its own. */
const into = defineModel<string>('into', { required: true })

let wasProposed = false
watch(
  () => props.reply.courses,
  ([surest]) => {
    // What names this very course, or has its items, is proposed once; a code or a title alone is not.
    if (wasProposed || !surest || !['class', 'items'].includes(surest.why)) return
    wasProposed = true
    into.value ||= surest.id
  },
  { immediate: true },
)
const target = computed(() => props.reply.courses.find(({ id }) => id === into.value) ?? null)

const said = titleOfPackage(props.file.report?.title ?? '')
const code = ref(said.code)
const section = ref(said.section)
const title = ref(said.title.slice(0, 500))

// The term: one that is here, one whose calendar is among the files, or from a first day to a last one.
const ownTerm = 'own'
const calendars = computed(() =>
  props.reply.calendars.filter(({ code }) => !props.file.terms.some(each => each.code === code)),
)
const terms = computed(() => [
  ...calendars.value.map(({ id, name, file }) => ({ code: id, name: `${name} (${file})` })),
  ...props.file.terms,
  { code: ownTerm, name: 'Another term' },
])
const termChosen = ref(props.file.terms.length === 0 ? ownTerm : (props.file.term ?? ''))
watch(
  calendars,
  ([first], before) => {
    // A calendar that came with the package is of its term.
    if (first && !before?.length) termChosen.value = first.id
  },
  { immediate: true },
)
const calendar = computed(() => calendars.value.find(({ id }) => id === termChosen.value) ?? null)
const span = ref<OwnSpan>(noOwnSpan())
watch(
  [termChosen, calendar, span, () => props.dated],
  () => {
    const { closures } = span.value
    const from = span.value.from ?? props.dated?.from
    const to = span.value.to ?? props.dated?.to
    const isOwn = termChosen.value === ownTerm
    taught.value = {
      term: isOwn || calendar.value ? '' : termChosen.value,
      calendar: calendar.value?.id ?? null,
      span: isOwn && from && to ? { from, to, closures } : null,
    }
  },
  { immediate: true },
)

const wish = computed((): ImportWish =>
  target.value
    ? { as: 'course', into: target.value.id, ...props.gathered }
    : {
        as: 'course',
        ...taught.value,
        code: code.value,
        section: section.value,
        title: title.value,
        ...props.gathered,
      },
)
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
    <h2>{{ reply.courses.length ? 'Where it goes' : 'Keep it as a course' }}</h2>
    <ElRadioGroup v-if="reply.courses.length" v-model="into" aria-label="Where the package goes">
      <ElRadio v-for="course in reply.courses" :key="course.id" :value="course.id">
        <bdi>{{ course.name }}</bdi>, {{ course.term }}
        <span class="soft small">{{ belongsText(course) }}</span>
      </ElRadio>
      <ElRadio value="">A course of its own</ElRadio>
    </ElRadioGroup>
    <details>
      <summary>
        {{ reply.courses.length ? 'It goes into another course' : 'It goes into a course that is there' }}
      </summary>
      <SourceChoice label="Find the course that it is of"
        ><template #default="{ course: found }"
          ><button class="act plain" type="button" @click="into = found.id">Choose it</button></template
        ></SourceChoice
      >
    </details>
    <p class="small">{{ doesText }}</p>
    <template v-if="!target">
      <FormField label="Term it was taught in" :fault="fault('term')">
        <TermSelect v-model="termChosen" :terms="terms" label="Term it was taught in" />
      </FormField>
      <OwnTerm
        v-if="termChosen === ownTerm"
        v-model="span"
        :dated="dated"
        :days="reply.days"
        :fault="fault"
      />
      <p v-else-if="calendar" class="small">
        Its classes ran from {{ rangeText(calendar.from, calendar.to) }}. The course gets this calendar as a
        term of its own. No other course is offered it.
      </p>
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
</style>
