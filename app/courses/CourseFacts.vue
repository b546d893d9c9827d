<script setup lang="ts">
import type { CourseReply } from '~~/shared/api/courses'
import CoursePreferences from './CoursePreferences.vue'
import { courseWindowsText } from './windows'

/** When students may enter a course, what one keeps of it for oneself, and the file that it came from. */
const props = defineProps<{ course: CourseReply }>()
defineEmits<{ changed: [] }>()
const id = computed(() => props.course.course.id)
const isStaff = computed(() => props.course.course.role !== 'shared')
</script>

<template>
  <div>
    <p v-if="courseWindowsText(course.course.windows)" class="soft">
      {{ courseWindowsText(course.course.windows) }}
    </p>
    <p v-if="course.course.missing" class="settle">
      The registrar no longer lists this course. Northtide keeps it.
    </p>
    <p v-if="course.may.edit && course.nodes.length">
      <NuxtLink :to="`/courses/${id}/arrange`">Rename, move or add something here</NuxtLink>
    </p>
    <CoursePreferences v-if="isStaff" :id="id" :preferences="course.preferences" @saved="$emit('changed')" />
    <p v-if="course.package" class="soft small">
      Read from <a :href="`/api/v1/courses/${id}/package`">{{ course.package.name }}</a>,
      {{ sizeText(course.package.size) }}, kept here as it came.
    </p>
  </div>
</template>
