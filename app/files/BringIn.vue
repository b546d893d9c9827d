<script setup lang="ts">
import type { GatherReply } from '~~/shared/api/gathering'
import type { ImportWish, UploadReply } from '~~/shared/api/uploads'
import AddClosures from './AddClosures.vue'
import type { GatherChoices, Taught } from './gathering'
import GiveToCourse from './GiveToCourse.vue'
import KeepCourse from './KeepCourse.vue'
import { belongsText } from './words'

/** What a person may do with a file that has been read. Says what will happen, in numbers, before it does. */
const props = defineProps<{
  file: UploadReply
  chosen: Extract<ImportWish, { as: 'closures' }>['events']
  wantsColumns: boolean
  /** Files that come in with it, and what is decided of them. */
  gathered: GatherChoices
  /** Courses that are there to which it may belong, and calendars among the files. */
  reply: Pick<GatherReply, 'courses' | 'calendars' | 'days'>
  dated: { from: string; to: string } | null
  changes: { fields: number; items: number; kept: number } | null
}>()
const emit = defineEmits<{ brought: [] }>()
type UploadReportTables = NonNullable<UploadReply['report']>['offered']
const report = computed(() => props.file.report!)
const courses = computed(() => props.reply.courses)
/** The term that marked days are added to. */
const term = defineModel<string>('term', { required: true })
const taught = defineModel<Taught>('taught', { required: true })
const into = defineModel<string>('into', { required: true })
const course = defineModel<{ id: string; name: string; term: string } | null>('course', { required: true })
const {
  run: bringIn,
  busy,
  problem,
} = useAction(async (request: ImportWish) => {
  await api.post(`/uploads/${props.file.id}/import`, request)
  emit('brought')
})
/** A course JSON of a class that holds nothing yet fills it; else what it says of items goes to a course that holds some. */
const fillsClass = computed(
  () => props.file.may.importCourse && courses.value.some(({ why, isEmpty }) => why === 'class' && isEmpty),
)
const givesToCourse = computed(() => props.file.may.giveToCourse && !fillsClass.value)
const give = (): void => {
  if (course.value) void bringIn({ as: 'said', into: course.value.id, ...props.gathered })
}
/** Tables to bring in though the manifest says that they are not there. */
const tables = ref<UploadReportTables>([])
const fault = (field: string): string | undefined =>
  problem.value?.errors.find(error => error.field === field)?.message
const listed = ['term', 'span', 'code', 'section', 'title']
</script>

<template>
  <section>
    <KeepCourse
      v-if="file.may.keepAsCourse"
      v-model:taught="taught"
      v-model:into="into"
      :file="file"
      :gathered="gathered"
      :reply="reply"
      :dated="dated"
      :busy="busy"
      :fault="fault"
      @bring="bringIn"
    />
    <div v-else-if="file.may.importRoster">
      <h2>Bring the roster in</h2>
      <p class="small">
        New people, classes and enrolments are added, and those already here are brought up to date. Nothing
        is deleted, even if the bundle leaves it out. Line items and results go to their courses, where those
        hold something.
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
    <div v-else-if="file.may.spreadLineItems">
      <h2>Bring its line items in</h2>
      <p class="small">
        Dates, points, grade categories and results go to your courses. What somebody changed there stays.
        Terms, people and enrolments stay out: the academic office brings a roster in.
      </p>
      <ul v-if="courses.length" class="plain">
        <li v-for="each in courses" :key="each.id" class="small">
          <bdi>{{ each.name }}</bdi>, {{ each.term }} <span class="soft">({{ belongsText(each) }})</span>
        </li>
      </ul>
      <p v-else class="small">None of its classes is a course of yours.</p>
      <button
        class="act"
        type="button"
        :disabled="busy || !courses.some(each => !each.isEmpty)"
        @click="bringIn({ as: 'line-items' })"
      >
        Bring its line items in
      </button>
    </div>
    <AddClosures
      v-else-if="file.may.addClosures && !givesToCourse"
      v-model:term="term"
      :file="file"
      :chosen="chosen"
      :wants-columns="wantsColumns"
      :busy="busy"
      @bring="bringIn"
    >
      <h2>Add days without classes</h2>
      <p class="small">
        The days you mark become closures of a term. Every plan into that term then moves work off them.
      </p>
    </AddClosures>
    <div v-else-if="file.may.importCalendar">
      <h2>Bring the calendar in</h2>
      <p class="small">The term takes the days in this file. Plans into that term move to the new days.</p>
      <button class="act" type="button" :disabled="busy" @click="bringIn({ as: 'calendar' })">
        Bring the calendar in
      </button>
    </div>
    <div v-else-if="fillsClass">
      <h2>Bring it into its class</h2>
      <p class="small">
        The class holds nothing yet. It gets its grade categories and its weekly meetings. What the file says
        of items comes with a package: send that too, and bring both in together.
      </p>
      <button class="act" type="button" :disabled="busy" @click="bringIn({ as: 'course-json' })">
        Bring it into its class
      </button>
    </div>
    <div v-else-if="!givesToCourse" class="note">
      <h2>For the academic office</h2>
      <p class="small">
        Only the academic office brings such a file in, because every course of the term depends on it. Send
        them this file.
      </p>
    </div>
    <GiveToCourse
      v-if="givesToCourse"
      v-model:course="course"
      :courses="courses"
      :changes="changes"
      :busy="busy"
      @give="give"
    />
    <AddClosures
      v-if="file.may.addClosures && givesToCourse"
      v-model:term="term"
      class="days"
      :file="file"
      :chosen="chosen"
      :wants-columns="wantsColumns"
      :busy="busy"
      @bring="bringIn"
    >
      <h2>Or add days without classes</h2>
      <p class="small">If it is a table of closures, mark the days below.</p>
    </AddClosures>
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
section > div {
  display: grid;
  gap: 12px;
}
.days {
  margin-top: 22px;
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
