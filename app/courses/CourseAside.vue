<script setup lang="ts">
import { itemKinds } from '~~/core/course/model'
import { graceText } from '~~/core/grading/grace'
import { furnishings } from '~~/core/course/furniture'
import { studentDataNames, studentDataWords } from '~~/core/student-data/student-data'
import type { CourseReply } from '~~/shared/api/courses'
import BringMore from './BringMore.vue'
import CourseClearings from './CourseClearings.vue'
import CourseSections from './CourseSections.vue'
import CourseShares from './CourseShares.vue'
import CourseStaff from './CourseStaff.vue'
import PlanFromHere from './PlanFromHere.vue'

/** What stands beside what a course holds: where it came from, how it grades, what is around its units, its sections and people. */
const props = defineProps<{
  course: CourseReply
  /** The shell that one looks for something to fill it with. */
  forShell: string | null
}>()
defineEmits<{ changed: [] }>()
const id = computed(() => props.course.course.id)
const weights = computed(() =>
  props.course.categories.reduce((sum, category) => sum + (category.weight ?? 0), 0),
)
/** How grades are reckoned here, in a line. */
const gradingText = computed(() => {
  const rules = props.course.grading
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
const kinds = computed(() => itemKinds.filter(kind => props.course.nodes.some(node => node.kind === kind)))
const topUnits = computed(() => props.course.nodes.filter(node => node.type === 'unit' && node.depth === 0))
/** Whoever was only given a share of it sees no roster and no work of students. */
const isStaff = computed(() => props.course.course.role !== 'shared')
/** Whether the people are shown; what stands below them follows. */
const staffShown = ref(false)
const studentDataText = (counts: CourseReply['studentData']): string =>
  studentDataNames
    .filter(name => counts[name] > 0)
    .map(name => counted(counts[name], ...studentDataWords(name)))
    .join(', ') || 'Nothing of students is here'
</script>

<template>
  <div>
    <PlanFromHere v-if="forShell && forShell !== id" :source="id" :shell="forShell" />
    <div v-if="course.lastRun" class="note">
      <h2>Rolled {{ instantBeside(course.course, course.lastRun.at) }}</h2>
      <p class="small">
        from {{ codeText(course.lastRun.source) }}, {{ course.lastRun.source.term.name }}, by
        {{ course.lastRun.by }}.
      </p>
      <p class="small">
        <NuxtLink :to="`/runs/${course.lastRun.id}`">Read the record</NuxtLink> ·
        <NuxtLink :to="`/runs/${course.lastRun.id}/undo`">Undo it …</NuxtLink> ·
        <NuxtLink :to="`/courses/${course.lastRun.source.id}`">Open the old course</NuxtLink>
      </p>
    </div>
    <template v-if="course.categories.length">
      <h2>Grade categories</h2>
      <table class="ruled">
        <tbody>
          <tr v-for="category in course.categories" :key="category.lineage">
            <td>
              <bdi>{{ category.title }}</bdi>
            </td>
            <td class="number">
              {{ category.weight === null ? '' : `${pointsText(category.weight)} %` }}
            </td>
          </tr>
          <tr v-if="course.grading?.by !== 'points'">
            <td><b>Together</b></td>
            <td class="number">
              <b>{{ pointsText(weights) }} %</b>
            </td>
          </tr>
        </tbody>
      </table>
      <p class="small soft">{{ gradingText }}</p>
    </template>
    <template v-if="course.grace">
      <h2>Grace allowances</h2>
      <p class="small">{{ graceText(course.grace) }}</p>
    </template>
    <template v-if="course.furniture.length">
      <h2>Around the units</h2>
      <ul class="plain">
        <li v-for="each in course.furniture" :key="each.lineage" class="small">
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
    <template v-if="course.nodes.length && isStaff">
      <h2>Students’ work here</h2>
      <p class="small">{{ studentDataText(course.studentData) }}.</p>
    </template>
    <BringMore v-if="isStaff" :id="id" :key="`more ${id}`" :may-plan="course.may.edit" />
    <CourseSections
      v-if="isStaff && course.course.origin !== 'template'"
      :id="id"
      :key="id"
      :may-edit="course.may.edit"
      @changed="$emit('changed')"
    />
    <CourseClearings v-if="isStaff && course.may.edit" :id="id" @restored="$emit('changed')" />
    <CourseStaff v-if="isStaff" :id="id" :may="course.may.delegate" @ready="staffShown = true" />
    <CourseShares
      v-if="course.may.share && (staffShown || !isStaff)"
      :course="course.course"
      :kinds="kinds"
      :units="topUnits"
    />
  </div>
</template>

<style scoped>
.number {
  text-align: right;
}
div :deep(h2) {
  margin: 20px 0 8px;
}
.plain {
  list-style: none;
}
.plain li {
  padding: 2px 0;
}
b {
  font-weight: 600;
}
</style>
