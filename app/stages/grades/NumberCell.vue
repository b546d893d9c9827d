<script setup lang="ts">
import { parsePoints, pointsText } from '~~/core/grading/points'

/** A number that is typed: a weight, points. What cannot be meant is said beside it, and nothing is changed by it. */
const props = defineProps<{ value: number | null; label: string; disabled?: boolean; most?: number }>()
const emit = defineEmits<{ change: [value: number | null] }>()
const text = ref('')
const fault = ref('')
const show = (): void => {
  text.value = props.value === null ? '' : pointsText(props.value)
  fault.value = ''
}
watch(() => props.value, show, { immediate: true })
function commit(): void {
  const typed = text.value.trim().replace(',', '.')
  if (typed === '') {
    fault.value = ''
    if (props.value !== null) emit('change', null)
    return
  }
  const value = parsePoints(typed)
  if (value === null || value < 0 || (props.most !== undefined && value > props.most)) {
    fault.value = 'A number such as 12.5'
    return
  }
  fault.value = ''
  if (value !== props.value) emit('change', value)
}
</script>

<template>
  <span class="number-cell">
    <input
      v-model="text"
      class="number"
      inputmode="decimal"
      :aria-label="label"
      :aria-invalid="fault !== ''"
      :disabled="disabled"
      @change="commit"
      @keydown.enter="commit"
      @keydown.esc="show"
    />
    <span v-if="fault" class="fault small" role="alert">{{ fault }}</span>
  </span>
</template>

<style scoped>
.number {
  width: 58px;
  text-align: right;
}
.fault {
  display: block;
}
</style>
