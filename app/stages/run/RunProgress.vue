<script setup lang="ts">
import type { WritingNow } from '~~/shared/api/writing'
import { progressText } from './progress'

/** A run that goes on: how far it is, that one may leave, and how to stop it. */
const props = defineProps<{
  writing: NonNullable<WritingNow>
  shell: string
  mayStop: boolean
  stopping: boolean
}>()
defineEmits<{ stop: [] }>()
const heading = ref<HTMLElement>()
// What was pressed is gone: one goes on from what came of it.
onMounted(() => {
  if (isFocusNowhere()) giveFocus(heading.value)
})
const leaveText = computed(() =>
  props.writing.mails
    ? 'You may leave this page. Northtide goes on, and mails you when it is done.'
    : 'You may leave this page. Northtide goes on, and the log says when it is done.',
)
</script>

<template>
  <section class="progress" aria-labelledby="progress-head">
    <h2 id="progress-head" ref="heading">Running into {{ shell }}</h2>
    <progress
      :value="writing.total ? writing.done : undefined"
      :max="writing.total || 1"
      aria-label="How far the run is"
    />
    <p role="status">{{ progressText(writing) }}</p>
    <p class="soft small">{{ leaveText }} Until everything is written, the shell stays as it was.</p>
    <button v-if="mayStop" class="act plain" type="button" :disabled="stopping" @click="$emit('stop')">
      Stop this run
    </button>
  </section>
</template>

<style scoped>
.progress {
  max-width: 620px;
}
progress {
  appearance: none;
  display: block;
  width: 100%;
  height: 10px;
  border: 1px solid var(--rule-strong);
  background: var(--paper-raised);
  margin: 14px 0 8px;
}
progress::-webkit-progress-bar {
  background: var(--paper-raised);
}
progress::-webkit-progress-value {
  background: var(--tide);
}
progress::-moz-progress-bar {
  background: var(--tide);
}
</style>
