<script setup lang="ts">
/** Long work on a batch: how far it is, that it can be left, and how it is stopped. In the slot: what has come of it so far. */
defineProps<{
  title: string
  label: string
  done: number
  total: number
  leave: string
  /** What the button says; null: it cannot be stopped any more. */
  stop: string | null
  busy: boolean
}>()
defineEmits<{ stop: [] }>()
</script>

<template>
  <section :aria-label="label">
    <h2>{{ title }}</h2>
    <ProgressBar :done="done" :total="total" :label="label" />
    <p role="status"><slot /></p>
    <p class="soft small">{{ leave }}</p>
    <button v-if="stop" class="act plain" type="button" :disabled="busy" @click="$emit('stop')">
      {{ stop }}
    </button>
  </section>
</template>

<style scoped>
section {
  max-width: 760px;
  margin-bottom: 22px;
}
</style>
