<script setup lang="ts">
/** A field of a form with its name, and what is wrong with it where the server said so. */
defineProps<{ label: string; fault?: string }>()
</script>

<template>
  <label>
    {{ label }}
    <slot />
    <span v-if="fault" class="fault">{{ fault }}</span>
  </label>
</template>

<style scoped>
label {
  display: grid;
  gap: 3px;
  font-size: 12.5px;
  color: var(--ink-soft);
}
.fault {
  color: var(--buoy);
}
</style>
