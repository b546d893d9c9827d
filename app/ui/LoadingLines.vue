<script setup lang="ts">
/** Stands where rows will stand while they are fetched. Appears only if it takes a moment. */
withDefaults(defineProps<{ what: string; rows?: number }>(), { rows: 6 })
</script>

<template>
  <div class="loading" role="status">
    <span class="soft">{{ what }}</span>
    <i v-for="row in rows" :key="row" :style="{ width: `${92 - ((row * 17) % 40)}%` }" />
  </div>
</template>

<style scoped>
.loading {
  opacity: 0;
  animation: appear 0.2s 0.25s forwards;
}
.loading i {
  display: block;
  height: 10px;
  margin: 18px 0;
  background: var(--sand);
}
@keyframes appear {
  to {
    opacity: 1;
  }
}
</style>
