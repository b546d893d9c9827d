<script setup lang="ts">
import type { ImportWish, UploadReply } from '~~/shared/api/uploads'
import type { GatherChoices } from './gathering'

/** What a person may do with a file that has been read. Says what will happen, in numbers, before it does. */
const props = defineProps<{
  file: UploadReply
  chosen: Extract<ImportWish, { as: 'closures' }>['events']
  wantsColumns: boolean
  /** Files that come in with a package, and what is decided of them. */
  gathered: GatherChoices
}>()
const emit = defineEmits<{ brought: [] }>()
type UploadReportTables = NonNullable<UploadReply['report']>['offered']
const report = computed(() => props.file.report!)
const guessed = /^(\p{Lu}{2,6}[ -]?\d{2,4}\p{Lu}?)[\s:–—-]+(.+)$/u.exec(report.value.title ?? '')
const code = ref(guessed?.[1] ?? '')
const section = ref('')
const title = ref((guessed?.[2] ?? report.value.title ?? '').slice(0, 500))
const term = defineModel<string>('term', { required: true })
const {
  run: bringIn,
  busy,
  problem,
} = useAction(async (request: ImportWish) => {
  await api.post(`/uploads/${props.file.id}/import`, request)
  emit('brought')
})
/** Tables to bring in though the manifest says that they are not there. */
const tables = ref<UploadReportTables>([])
const fault = (field: string): string | undefined =>
  problem.value?.errors.find(error => error.field === field)?.message
const listed = ['term', 'code', 'section', 'title']
const asCourse = computed(() => ({
  as: 'course' as const,
  term: term.value,
  code: code.value,
  section: section.value,
  title: title.value,
  ...props.gathered,
}))
const withText = computed(() => {
  const { length } = props.gathered.beside
  return length === 0
    ? ''
    : `, and with what ${counted(length, 'other file')} ${length === 1 ? 'says' : 'say'} of it`
})
const termName = computed(() => props.file.terms.find(entry => entry.code === term.value)?.name ?? '')
/** What is still to do before days can be added, or the button that adds them. */
const closuresText = computed(() => {
  if (props.wantsColumns) return 'Confirm the columns first'
  if (props.chosen.length === 0) return 'Mark the days first'
  return `Add ${counted(props.chosen.length, 'closure')}${termName.value ? ` to ${termName.value}` : ''}`
})
</script>

<template>
  <section>
    <form v-if="file.may.keepAsCourse" @submit.prevent="bringIn(asCourse)">
      <h2>Keep it as a course</h2>
      <p class="small">
        This adds one course with everything listed here{{ withText }}. You become its instructor. No shell
        changes, and the course has no students.
      </p>
      <FormField label="Term it was taught in" :fault="fault('term')">
        <TermSelect v-model="term" :terms="file.terms" label="Term it was taught in" />
      </FormField>
      <div class="pair">
        <FormField label="Code" :fault="fault('code')">
          <ElInput v-model="code" maxlength="40" placeholder="as HYD 240" />
        </FormField>
        <FormField label="Section" :fault="fault('section')">
          <ElInput v-model="section" maxlength="40" />
        </FormField>
      </div>
      <FormField label="Title" :fault="fault('title')">
        <ElInput v-model="title" type="textarea" autosize maxlength="500" />
      </FormField>
      <button class="act" type="submit" :disabled="busy">Keep as a course</button>
    </form>
    <div v-else-if="file.may.importRoster">
      <h2>Bring the roster in</h2>
      <p class="small">
        New people, classes and enrolments are added, and those already here are brought up to date. Nothing
        is deleted, even if the bundle leaves it out.
      </p>
      <template v-if="report.offered.length">
        <p class="small">The manifest says that these tables are absent, but the bundle holds them:</p>
        <ElCheckboxGroup v-model="tables" aria-label="Tables to bring in all the same">
          <ElCheckbox v-for="table in report.offered" :key="table" :value="table" :label="`${table}.csv`" />
        </ElCheckboxGroup>
      </template>
      <button class="act" type="button" :disabled="busy" @click="bringIn({ as: 'roster', tables })">
        Bring the roster in
      </button>
    </div>
    <div v-else-if="file.may.addClosures">
      <h2>Add days without classes</h2>
      <p class="small">
        The days you mark become closures of a term. Every plan into that term then moves work off them.
      </p>
      <FormField label="Term">
        <TermSelect v-model="term" :terms="file.terms" label="Term" />
      </FormField>
      <button
        class="act"
        type="button"
        :disabled="busy || wantsColumns || !chosen.length"
        @click="bringIn({ as: 'closures', term, events: chosen })"
      >
        {{ closuresText }}
      </button>
    </div>
    <div v-else-if="file.may.importCalendar">
      <h2>Bring the calendar in</h2>
      <p class="small">The term takes the days in this file. Plans into that term move to the new days.</p>
      <button class="act" type="button" :disabled="busy" @click="bringIn({ as: 'calendar' })">
        Bring the calendar in
      </button>
    </div>
    <div v-else-if="file.may.importCourse">
      <h2>Bring it into its class</h2>
      <p class="small">
        The class must already be here from a roster, and be empty. It gets its grade categories, its weekly
        meetings and its students’ work.
      </p>
      <button class="act" type="button" :disabled="busy" @click="bringIn({ as: 'course-json' })">
        Bring it into its class
      </button>
    </div>
    <div v-else class="note">
      <h2>For the academic office</h2>
      <p class="small">
        Only the academic office brings such a file in, because every course of the term depends on it. Send
        them this file.
      </p>
    </div>
    <div v-if="problem" class="note buoy" role="alert">
      <h2>{{ problem.title }}</h2>
      <p v-if="problem.detail" class="small">{{ problem.detail }}</p>
      <p
        v-for="error in problem.errors.filter(entry => !listed.includes(entry.field))"
        :key="error.field"
        class="small"
      >
        {{ error.message }}
      </p>
    </div>
  </section>
</template>

<style scoped>
form,
section > div {
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
.buoy {
  margin-top: 14px;
}
</style>
