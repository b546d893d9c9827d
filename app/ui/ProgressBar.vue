<script setup lang="ts">
/** How far something is, as a ruled bar. `total` 0: it is not known yet how much there is. */
defineProps<{ done: number; total: number; label: string }>()
</script>

<template>
  <progress :value="total ? done : undefined" :max="total || 1" :aria-label="label" />
</template>

<style scoped>
progress {
  appearance: none;
  display: block;
  width: 100%;
  height: 10px;
  border: 1px solid var(--rule-strong);
  background: var(--paper-raised);
  margin: 12px 0 8px;
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
