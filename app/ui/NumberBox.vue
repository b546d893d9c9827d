<script setup lang="ts">
/** A number in a row of settings. Emptied, it becomes the least that it may be. */
defineProps<{
  value: number
  label: string
  min: number
  max: number
  disabled?: boolean
}>()
defineEmits<{ change: [value: number] }>()
</script>

<template>
  <ElInputNumber
    :model-value="value"
    size="small"
    class="number-box"
    :min="min"
    :max="max"
    :disabled="disabled"
    :aria-label="label"
    @change="next => $emit('change', next ?? min)"
  />
</template>

<style scoped>
.number-box {
  width: 84px;
}
</style>
