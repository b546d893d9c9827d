<script setup lang="ts">
import { itemKinds } from '~~/core/course/model'
import { graceText } from '~~/core/grading/grace'
import { furnishings } from '~~/core/course/furniture'
import { studentDataNames, studentDataWords } from '~~/core/student-data/student-data'
import type { CourseReply } from '~~/shared/api/courses'
import CourseClearings from '~/courses/CourseClearings.vue'
import CourseOutline from '~/courses/CourseOutline.vue'
import CoursePreferences from '~/courses/CoursePreferences.vue'
import CourseSections from '~/courses/CourseSections.vue'
import CourseShares from '~/courses/CourseShares.vue'
import CourseStaff from '~/courses/CourseStaff.vue'
import PlanFromHere from '~/courses/PlanFromHere.vue'
import { courseWindowsText } from '~/courses/windows'
import WritingNote from '~/shells/WritingNote.vue'

const route = useRoute()
const id = computed(() => String(route.params.id))
const { data, problem, refresh } = useLoaded(() => api.get<CourseReply>(`/courses/${id.value}`))
watch(id, () => void refresh(), { immediate: true })
/** The shell that one looks for something to fill it with. */
const forShell = computed(() => (typeof route.query.for === 'string' ? route.query.for : null))
useHead({ title: () => (data.value ? `${codeText(data.value.course)} · Northtide` : 'Course · Northtide') })
useRefreshWhile(
  computed(() => Boolean(data.value?.writing)),
  refresh,
  1500,
)
const weights = computed(
  () => data.value?.categories.reduce((sum, category) => sum + (category.weight ?? 0), 0) ?? 0,
)
/** How grades are reckoned here, in a line. */
const gradingText = computed(() => {
  const rules = data.value?.grading
  if (!rules) return 'Nobody has said how grades are reckoned.'
  const letters = rules.scale.map(step => `${step.letter} from ${pointsText(step.from)}`).join(', ')
  return [
    `Reckoned by ${rules.by}`,
    rules.ungraded === 'zero' ? 'what is not graded counts 0' : 'what is not graded is left out',
    letters,
  ]
    .filter(Boolean)
    .join('; ')
})
const kinds = computed(() => itemKinds.filter(kind => data.value?.nodes.some(node => node.kind === kind)))
const topUnits = computed(
  () => data.value?.nodes.filter(node => node.type === 'unit' && node.depth === 0) ?? [],
)
const units = computed(() => data.value?.nodes.filter(node => node.type === 'unit').length ?? 0)
/** Whoever was only given a share of it sees no roster and no work of students. */
const isStaff = computed(() => data.value !== null && data.value.course.role !== 'shared')
/** Whether the people are shown; what stands below them follows. */
const staffShown = ref(false)
const origins = {
  registrar: '',
  hand: 'made by hand',
  awaited: 'the place of a shell that is still to come',
  template: 'a template',
  snapshot: 'a snapshot, kept as it was',
  version: 'an earlier version of what stands on a shelf',
  file: 'a file that is compared with a course',
}
/** What stands over the title: `HYD 240-01 · Autumn 2026 · … · made by hand`. */
const overTitle = computed(() => {
  const course = data.value?.course
  return course
    ? [
        codeText(course),
        courseFacts(course),
        origins[course.origin],
        course.role === 'shared' && 'shared with you',
      ]
        .filter(Boolean)
        .join(' · ')
    : ''
})
const peopleText = computed(() =>
  data.value
    ? [
        data.value.course.instructors.join(', ') || 'nobody teaches it yet',
        isStaff.value && `${counted(data.value.course.students, 'student')} on the roster`,
        `${counted(units.value, 'unit')}, ${counted(data.value.course.items, 'item')}`,
      ]
        .filter(Boolean)
        .join(' · ')
    : '',
)
const studentDataText = (counts: CourseReply['studentData']): string =>
  studentDataNames
    .filter(name => counts[name] > 0)
    .map(name => counted(counts[name], ...studentDataWords(name)))
    .join(', ') || 'Nothing of students is here'
</script>

<template>
  <main class="page">
    <ProblemNote v-if="problem" :problem="problem" @retry="refresh">
      <NuxtLink v-if="problem.status === 404" to="/">Back to the shells</NuxtLink>
    </ProblemNote>
    <LoadingLines v-else-if="!data" what="Fetching the course …" />
    <template v-else>
      <header>
        <p class="caps">{{ overTitle }}</p>
        <h1>
          <bdi>{{ data.course.title }}</bdi>
          <span v-if="data.course.label" class="label">{{ data.course.label }}</span>
        </h1>
        <p class="soft">
          {{ peopleText }}
          <template v-if="isStaff">
            · deadlines as <a :href="`/api/v1/courses/${id}/deadlines.ics`">iCalendar</a>, dates as
            <a :href="`/api/v1/courses/${id}/dates.csv`">CSV</a> or
            <a :href="`/api/v1/courses/${id}/dates.xlsx`">XLSX</a>
          </template>
        </p>
        <WritingNote v-if="data.writing" :writing="data.writing" />
        <p v-if="data.course.sharesWith" class="kept">
          It shares its content with
          <NuxtLink :to="`/courses/${data.course.sharesWith}`">another section</NuxtLink> and has its own
          dates.
        </p>
        <p v-if="courseWindowsText(data.course.windows)" class="soft">
          {{ courseWindowsText(data.course.windows) }}
        </p>
        <p v-if="data.course.missing" class="settle">
          The registrar no longer lists this course. Northtide keeps it.
        </p>
        <p v-if="data.may.edit && data.nodes.length">
          <NuxtLink :to="`/courses/${id}/arrange`">Rename, move or add something here</NuxtLink>
        </p>
        <CoursePreferences v-if="isStaff" :id="id" :preferences="data.preferences" @saved="refresh" />
        <p v-if="data.package" class="soft small">
          Read from <a :href="`/api/v1/courses/${id}/package`">{{ data.package.name }}</a>,
          {{ sizeText(data.package.size) }}, kept here as it came.
        </p>
      </header>
      <div class="beside">
        <div>
          <CourseOutline v-if="data.nodes.length" :course="data" />
          <div v-else class="note empty">
            <h2>This shell is empty</h2>
            <p>Nothing has been rolled into it yet.</p>
            <NuxtLink class="act" :to="`/fill/${id}`">Find what could fill it</NuxtLink>
          </div>
        </div>
        <aside>
          <PlanFromHere v-if="forShell && forShell !== id" :source="id" :shell="forShell" />
          <div v-if="data.lastRun" class="note">
            <h2>Rolled {{ instantBeside(data.course, data.lastRun.at) }}</h2>
            <p class="small">
              from {{ codeText(data.lastRun.source) }}, {{ data.lastRun.source.term.name }}, by
              {{ data.lastRun.by }}.
            </p>
            <p class="small">
              <NuxtLink :to="`/runs/${data.lastRun.id}`">Read the record</NuxtLink> ·
              <NuxtLink :to="`/runs/${data.lastRun.id}/undo`">Undo it …</NuxtLink> ·
              <NuxtLink :to="`/courses/${data.lastRun.source.id}`">Open the old course</NuxtLink>
            </p>
          </div>
          <template v-if="data.categories.length">
            <h2>Grade categories</h2>
            <table class="ruled">
              <tbody>
                <tr v-for="category in data.categories" :key="category.lineage">
                  <td>
                    <bdi>{{ category.title }}</bdi>
                  </td>
                  <td class="number">
                    {{ category.weight === null ? '' : `${pointsText(category.weight)} %` }}
                  </td>
                </tr>
                <tr v-if="data.grading?.by !== 'points'">
                  <td><b>Together</b></td>
                  <td class="number">
                    <b>{{ pointsText(weights) }} %</b>
                  </td>
                </tr>
              </tbody>
            </table>
            <p class="small soft">{{ gradingText }}</p>
          </template>
          <template v-if="data.grace">
            <h2>Grace allowances</h2>
            <p class="small">{{ graceText(data.grace) }}</p>
          </template>
          <template v-if="data.furniture.length">
            <h2>Around the units</h2>
            <ul class="plain">
              <li v-for="each in data.furniture" :key="each.lineage" class="small">
                {{ furnishings[each.part].words }}:
                <NuxtLink v-if="each.item" :to="`/courses/${id}/items/${each.item}`"
                  ><bdi>{{ each.title }}</bdi></NuxtLink
                >
                <bdi v-else>{{ each.title }}</bdi>
                <span v-if="Object.keys(each.details).length" class="soft">
                  {{ Object.values(each.details).join(', ') }}</span
                >
              </li>
            </ul>
          </template>
          <template v-if="data.nodes.length && isStaff">
            <h2>Students’ work here</h2>
            <p class="small">{{ studentDataText(data.studentData) }}.</p>
          </template>
          <CourseSections
            v-if="isStaff && data.course.origin !== 'template'"
            :id="id"
            :key="id"
            :may-edit="data.may.edit"
            @changed="refresh"
          />
          <CourseClearings v-if="isStaff && data.may.edit" :id="id" @restored="refresh" />
          <CourseStaff v-if="isStaff" :id="id" :may="data.may.delegate" @ready="staffShown = true" />
          <CourseShares
            v-if="data.may.share && (staffShown || !isStaff)"
            :course="data.course"
            :kinds="kinds"
            :units="topUnits"
          />
        </aside>
      </div>
    </template>
  </main>
</template>

<style scoped>
.number {
  text-align: right;
}
aside :deep(h2) {
  margin: 20px 0 8px;
}
.label {
  font: 400 16px var(--sans);
  color: var(--ink-soft);
  margin-left: 12px;
}
.plain {
  list-style: none;
}
.plain li {
  padding: 2px 0;
}
.empty {
  max-width: 420px;
}
b {
  font-weight: 600;
}
</style>
