<script setup lang="ts">
import { watchDebounced } from '@vueuse/core'
import type { CoursesReply } from '~~/shared/api/courses'

/** Finds a course by code, title or term as one types; Enter opens the one that is marked. */
const emit = defineEmits<{ close: [] }>()
const text = ref('')
const at = ref(0)
const field = ref<HTMLInputElement>()
const { data, problem, refresh } = useLoaded(() =>
  api.get<CoursesReply>(`/courses?q=${encodeURIComponent(text.value)}`),
)
const courses = computed(() => data.value?.courses ?? [])
watchDebounced(
  text,
  () => {
    at.value = 0
    void refresh()
  },
  { debounce: 120 },
)
onMounted(() => {
  field.value?.focus()
  void refresh()
})
function move(step: number): void {
  at.value = Math.max(0, Math.min(courses.value.length - 1, at.value + step))
}
function open(index: number): void {
  const course = courses.value[index]
  if (course) {
    emit('close')
    void navigateTo(`/courses/${course.id}`)
  }
}
</script>

<template>
  <div
    class="find"
    @focusout="
      event => {
        if (!(event.currentTarget as HTMLElement).contains(event.relatedTarget as Node)) emit('close')
      }
    "
  >
    <input
      ref="field"
      v-model="text"
      type="search"
      placeholder="code, title or term"
      aria-label="Find a course"
      role="combobox"
      aria-expanded="true"
      aria-controls="found"
      :aria-activedescendant="courses[at] ? `found-${at}` : undefined"
      @keydown.down.prevent="move(1)"
      @keydown.up.prevent="move(-1)"
      @keydown.enter="open(at)"
      @keydown.esc.stop="emit('close')"
    />
    <ul id="found" role="listbox" aria-label="Courses found">
      <li
        v-for="(course, index) in courses"
        :id="`found-${index}`"
        :key="course.id"
        role="option"
        :aria-selected="index === at"
        :class="{ marked: index === at }"
        @mousedown.prevent="open(index)"
        @mousemove="at = index"
      >
        <strong>{{ codeOf(course) }}</strong> <bdi>{{ course.title }}</bdi>
        <span class="soft">{{ course.term.name }} · {{ counted(course.items, 'item') }}</span>
      </li>
      <li v-if="problem" class="soft">{{ problem.title }}</li>
      <li v-else-if="data && !courses.length" class="soft">
        No course of yours has “{{ text }}” in its code, title or term.
      </li>
    </ul>
  </div>
</template>

<style scoped>
.find {
  position: relative;
}
input {
  font: inherit;
  width: min(330px, calc(100vw - 2 * var(--gutter)));
  padding: 4px 8px;
  border: 1px solid var(--tide);
  background: var(--paper-raised);
  color: var(--ink);
}
ul {
  position: absolute;
  top: 34px;
  right: 0;
  width: min(460px, calc(100vw - 2 * var(--gutter)));
  z-index: 15;
  background: var(--paper-raised);
  border: 1px solid var(--ink-soft);
  list-style: none;
  max-height: 420px;
  overflow: auto;
}
li {
  padding: 6px 12px;
  border-bottom: 1px solid var(--rule);
  cursor: pointer;
}
li.marked {
  background: var(--tide-wash);
}
</style>
