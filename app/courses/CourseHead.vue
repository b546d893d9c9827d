<script setup lang="ts">
import type { CourseReply } from '~~/shared/api/courses'
import WritingNote from '~/shells/WritingNote.vue'
import CourseFacts from './CourseFacts.vue'

/** The head of a course's page: what it is, who teaches it, when students may enter. */
const props = defineProps<{
  course: CourseReply
  /** What is seldom looked at stands elsewhere. */
  compact?: boolean
}>()
defineEmits<{ changed: [] }>()
const id = computed(() => props.course.course.id)
const units = computed(() => props.course.nodes.filter(node => node.type === 'unit').length)
/** Whoever was only given a share of it sees no roster and no work of students. */
const isStaff = computed(() => props.course.course.role !== 'shared')
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
  const { course } = props.course
  return [
    codeText(course),
    courseFacts(course),
    origins[course.origin],
    course.role === 'shared' && 'shared with you',
  ]
    .filter(Boolean)
    .join(' · ')
})
const peopleText = computed(() => {
  const { course } = props.course
  return [
    course.instructors.join(', ') || 'nobody teaches it yet',
    isStaff.value && `${counted(course.students, 'student')} on the roster`,
    `${counted(units.value, 'unit')}, ${counted(course.items, 'item')}`,
  ]
    .filter(Boolean)
    .join(' · ')
})
</script>

<template>
  <!-- Over the ledger it stands outside the main part of the page, where a banner is there already. -->
  <component :is="compact ? 'div' : 'header'" :class="{ compact }">
    <p class="caps">{{ overTitle }}</p>
    <h1>
      <bdi>{{ course.course.title }}</bdi>
      <span v-if="course.course.label" class="label">{{ course.course.label }}</span>
    </h1>
    <p class="soft">
      {{ peopleText }}
      <template v-if="isStaff">
        · deadlines as <a :href="`/api/v1/courses/${id}/deadlines.ics`">iCalendar</a>, dates as
        <a :href="`/api/v1/courses/${id}/dates.csv`">CSV</a> or
        <a :href="`/api/v1/courses/${id}/dates.xlsx`">XLSX</a>
      </template>
    </p>
    <WritingNote v-if="course.writing" :writing="course.writing" />
    <p v-if="course.course.sharesWith" class="kept">
      It shares its content with
      <NuxtLink :to="`/courses/${course.course.sharesWith}`">another section</NuxtLink> and has its own dates.
    </p>
    <CourseFacts v-if="!compact" :course="course" @changed="$emit('changed')" />
    <slot />
  </component>
</template>

<style scoped>
.compact {
  display: flex;
  flex-wrap: wrap;
  gap: 0 18px;
  align-items: baseline;
}
.compact > p {
  margin: 0;
}
.compact h1 {
  font-size: 22px;
  order: -1;
}
.label {
  font: 400 16px var(--sans);
  color: var(--ink-soft);
  margin-left: 12px;
}
</style>
