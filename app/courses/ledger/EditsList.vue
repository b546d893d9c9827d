<script setup lang="ts">
import type { CourseLine } from '~~/shared/api/courses'
import type { EditsReply } from '~~/shared/api/edits'

/** What was changed in the shell, the latest first: each can be taken back by itself. */
const props = defineProps<{
  edits: EditsReply['edits']
  course: CourseLine
  /** The last run into it: what was changed before is no longer told. */
  since: string | null
  overtaken: number
}>()
defineEmits<{ takeBack: [edit: string] }>()
const shownAtMost = 5
const all = ref(false)
const changed = computed(() => props.edits.filter(({ id }) => props.since === null || id > props.since))
const shown = computed(() => (all.value ? changed.value : changed.value.slice(0, shownAtMost)))
</script>

<template>
  <section v-if="changed.length">
    <h2>{{ since ? 'Changed since the run' : 'Changed here' }}</h2>
    <p v-if="overtaken" class="small settle" role="status">
      {{ counted(overtaken, 'part was', 'parts were') }} changed again since, and
      {{ overtaken === 1 ? 'stays' : 'stay' }}.
    </p>
    <ul>
      <li v-for="edit in shown" :key="edit.id" class="small">
        {{ edit.by }} {{ edit.words }} <span class="soft">{{ instantBeside(course, edit.at) }}</span>{{ ' '
        }}<button
          class="link"
          type="button"
          :aria-label="`Take back: ${edit.words}`"
          @click="$emit('takeBack', edit.id)"
        >
          Take it back
        </button>
      </li>
    </ul>
    <button v-if="changed.length > shown.length" class="link small" type="button" @click="all = true">
      Show all {{ changed.length }}
    </button>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
}
li {
  padding: 4px 0;
  border-bottom: 1px dotted var(--rule-middle);
}
</style>
