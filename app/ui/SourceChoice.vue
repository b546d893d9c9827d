<script setup lang="ts">
import { watchDebounced } from '@vueuse/core'
import type { CourseLine, CoursesReply } from '~~/shared/api/courses'

/** Finds a course to roll from: only those that hold something. What is done with it is the slot’s. */
const props = defineProps<{ label: string; not?: readonly string[]; shared?: boolean }>()
const text = ref('')
const { data, problem, refresh } = useLoaded(() =>
  api.get<CoursesReply>(`/courses?q=${encodeURIComponent(text.value)}`),
)
watchDebounced(text, () => void refresh(), { debounce: 120 })
onMounted(refresh)
defineExpose({ refresh })
const courses = computed(
  (): CourseLine[] =>
    data.value?.courses.filter(
      course =>
        course.items > 0 &&
        course.origin !== 'template' &&
        !props.not?.includes(course.id) &&
        (!props.shared || course.role === 'shared'),
    ) ?? [],
)
const originText = (course: CourseLine): string => {
  if (course.role === 'shared') return ' · shared with you'
  return course.origin === 'snapshot' ? ' · a snapshot' : ''
}
const nothingText = computed(() => {
  if (props.shared) return 'Nobody shares a course with you or your department.'
  return text.value
    ? `No course with anything in it has the words “${text.value}”.`
    : 'No course of yours holds anything.'
})
</script>

<template>
  <div class="choice">
    <ElInput v-model="text" placeholder="code, title or term" clearable :aria-label="label" />
    <ProblemNote v-if="problem" :problem="problem" @retry="refresh" />
    <LoadingLines v-else-if="!data" what="Looking for courses …" :rows="3" />
    <ul v-else>
      <li v-for="course in courses" :key="course.id">
        <span
          ><b>{{ codeOf(course) }}</b> <bdi>{{ course.title }}</bdi><span class="soft"
            >, {{ course.term.name }}</span
          ><br /><span class="soft small"
            >{{ counted(course.items, 'item') }} · {{ course.instructors.join(', ') || 'no instructor'
            }}{{ originText(course) }}</span
          ></span
        ><slot :course="course" />
      </li>
      <li v-if="!courses.length" class="soft">
        {{ nothingText }}
      </li>
    </ul>
  </div>
</template>

<style scoped>
ul {
  list-style: none;
  margin-top: 6px;
}
li {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 14px;
  padding: 8px 0;
  border-bottom: 1px solid var(--rule);
}
b {
  font-weight: 600;
}
</style>
