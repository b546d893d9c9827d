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
    <ProgressBar :done="writing.done" :total="writing.total" label="How far the run is" />
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
</style>
