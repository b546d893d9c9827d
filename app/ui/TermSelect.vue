<script setup lang="ts">
/** A choice of one of the terms that are here. */
defineProps<{ terms: readonly { code: string; name: string }[]; label: string }>()
const term = defineModel<string>({ required: true })
</script>

<template>
  <ElSelect v-model="term" :aria-label="label">
    <ElOption v-for="entry in terms" :key="entry.code" :value="entry.code" :label="entry.name" />
  </ElSelect>
</template>
