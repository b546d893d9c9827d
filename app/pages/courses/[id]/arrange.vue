<script setup lang="ts">
import ArrangeCourse from '~/courses/arrange/ArrangeCourse.vue'
import type { CourseReply } from '~~/shared/api/courses'

const route = useRoute()
const id = computed(() => String(route.params.id))
const { data, problem, refresh } = useLoaded(() => api.get<CourseReply>(`/courses/${id.value}`))
watch(id, () => void refresh(), { immediate: true })
useHead({
  title: () => (data.value ? `Arrange ${codeText(data.value.course)} · Northtide` : 'Arrange · Northtide'),
})
</script>

<template>
  <main class="page">
    <ProblemNote v-if="problem" :problem="problem" @retry="refresh">
      <NuxtLink v-if="problem.status === 404" to="/">Back to the shells</NuxtLink>
    </ProblemNote>
    <LoadingLines v-else-if="!data" what="Fetching the course …" />
    <div v-else-if="!data.may.edit" class="note">
      <h2>You may read this course, not change it</h2>
      <p>Its instructors may, and whoever they have allowed to run into it.</p>
      <NuxtLink :to="`/courses/${id}`">Back to the course</NuxtLink>
    </div>
    <template v-else>
      <header>
        <p class="caps">{{ codeText(data.course) }} · {{ courseFacts(data.course) }}</p>
        <h1>
          <bdi>{{ data.course.title }}</bdi>
        </h1>
        <p class="soft">
          What you change here counts at once, for students too.
          <NuxtLink :to="`/courses/${id}`">Back to the course</NuxtLink>
        </p>
      </header>
      <ArrangeCourse :course="data" @changed="refresh" />
    </template>
  </main>
</template>
