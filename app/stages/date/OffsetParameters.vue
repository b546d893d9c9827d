<script setup lang="ts">
import type { RuleOf } from '~~/core/dates/rule'

/** How far everything moves: by the distance between the first days, or by so many days. */
const props = defineProps<{ rule: RuleOf<'offset'>; mayEdit: boolean }>()
const emit = defineEmits<{ change: [rule: RuleOf<'offset'>] }>()
const setWholeWeeks = (value: unknown): void => emit('change', { ...props.rule, wholeWeeks: Boolean(value) })
function setDays(event: Event): void {
  const text = event.target instanceof HTMLInputElement ? event.target.value.trim() : ''
  emit('change', { ...props.rule, days: /^-?\d{1,4}$/.test(text) ? Number(text) : null })
}
</script>

<template>
  <div class="more small">
    <ElCheckbox
      :model-value="rule.wholeWeeks"
      :disabled="!mayEdit || rule.days !== null"
      @change="setWholeWeeks"
      >in whole weeks</ElCheckbox
    >
    <label>
      or days
      <input class="number" type="number" :value="rule.days ?? ''" :disabled="!mayEdit" @change="setDays" />
    </label>
  </div>
</template>

<style scoped>
.more {
  margin: 4px 0 0 23px;
  display: flex;
  gap: 16px;
  align-items: center;
}
</style>
