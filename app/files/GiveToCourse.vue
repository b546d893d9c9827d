<script setup lang="ts">
import type { GatherReply } from '~~/shared/api/gathering'
import { belongsText } from './words'

/** Which course that is there a table, a course JSON or a bundle is about, and what it changes there. */
const props = defineProps<{
  courses: GatherReply['courses']
  /** What it would change in the course that is chosen; null: none is yet. */
  changes: { fields: number; items: number; kept: number } | null
  busy: boolean
}>()
const emit = defineEmits<{ give: [] }>()
const course = defineModel<{ id: string; name: string; term: string } | null>('course', { required: true })
const filled = computed(() => props.courses.filter(({ isEmpty }) => !isEmpty))
const changesText = computed(() => {
  if (!props.changes) return 'Choose the course first. This page then shows what would change there.'
  const { fields, items, kept } = props.changes
  const changed =
    fields === 0
      ? 'It changes nothing.'
      : `It changes ${counted(fields, 'date or number', 'dates and numbers')} of ${counted(items, 'item')}. You can take that back afterwards.`
  return kept === 0
    ? changed
    : `${changed} ${counted(kept, 'date or number stays', 'dates and numbers stay')} as the course has ${kept === 1 ? 'it' : 'them'}.`
})
</script>

<template>
  <section aria-labelledby="give-head">
    <h2 id="give-head">Give what it says to a course</h2>
    <ul v-if="filled.length" class="plain">
      <li v-for="each in filled" :key="each.id">
        <button
          class="link"
          type="button"
          :aria-pressed="course?.id === each.id"
          @click="course = { id: each.id, name: each.name, term: each.term }"
        >
          <bdi>{{ each.name }}</bdi>, {{ each.term }}
        </button>
        <span class="soft small">{{ belongsText(each) }}</span>
      </li>
    </ul>
    <p v-if="course" class="small">
      Chosen:
      <b
        ><bdi>{{ course.name }}</bdi></b
      >
      <button class="link small" type="button" @click="course = null">Choose another</button>
    </p>
    <details v-else :open="!filled.length">
      <summary>Find the course</summary>
      <SourceChoice label="Find the course that it is about"
        ><template #default="{ course: found }"
          ><button
            class="act plain"
            type="button"
            @click="course = { id: found.id, name: courseText(found), term: found.term.name }"
          >
            Choose it
          </button></template
        ></SourceChoice
      >
    </details>
    <p class="small" role="status">{{ changesText }}</p>
    <button class="act" type="button" :disabled="busy || !changes?.fields" @click="emit('give')">
      {{ course ? `Change ${course.name}` : 'Choose the course first' }}
    </button>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 12px;
}
p {
  margin: 0;
}
.act {
  justify-self: start;
  white-space: normal;
  text-align: left;
}
</style>
