<script setup lang="ts" generic="Value extends string">
/** One choice that goes with every method: a time of day, or what becomes of a date on a closure. */
defineProps<{
  id: string
  label: string
  options: { value: Value; label: string }[]
  value: Value
  mayEdit: boolean
}>()
defineEmits<{ change: [value: Value] }>()
</script>

<template>
  <dt>
    <label :for="id">{{ label }}</label>
  </dt>
  <dd>
    <slot>
      <ElSelect
        :id="id"
        :model-value="value"
        :disabled="!mayEdit"
        :aria-label="label"
        @change="(chosen: Value) => $emit('change', chosen)"
        ><ElOption v-for="option in options" :key="option.value" v-bind="option"
      /></ElSelect>
    </slot>
  </dd>
</template>

<style scoped>
dt,
dd {
  margin: 0;
  padding: 4px 0;
  border-bottom: 1px dotted var(--rule-middle);
  min-height: 31px;
  display: flex;
  align-items: center;
}
</style>
