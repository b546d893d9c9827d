<script setup lang="ts">
import type { TemplateLine } from '~~/shared/api/shares'

/** What a template holds, drawn: a column for each unit, a mark for each item from the top down. Nothing is invented: the marks are its items. */
const props = defineProps<{ shape: TemplateLine['shape']; arrangement: TemplateLine['arrangement'] }>()
const [width, height, most] = [230, 100, 20]
const columns = computed(() => props.shape.slice(0, 18))
const step = computed(() => width / Math.max(columns.value.length, 1))
/** As many rows as the fullest unit has, so that the whole shape is seen. */
const pitch = computed(() =>
  Math.min(9, (height - 8) / Math.max(1, ...columns.value.map(unit => Math.min(unit.kinds.length, most)))),
)
const items = computed(() => props.shape.reduce((sum, unit) => sum + unit.kinds.length, 0))
</script>

<template>
  <svg
    :viewBox="`0 0 ${width} ${height}`"
    class="picture"
    role="img"
    :aria-label="`${shape.length} ${arrangement === 'weeks' ? 'weeks' : 'units'} with ${items} items`"
  >
    <g v-for="(unit, at) in columns" :key="at" :transform="`translate(${at * step} 0)`">
      <title>{{ unit.title }}</title>
      <rect
        v-if="arrangement === 'weeks'"
        :x="0.5"
        y="0.5"
        :width="Math.max(step - 3, 2)"
        :height="height - 1"
        fill="none"
        stroke="var(--rule)"
      />
      <line
        v-else
        x1="0"
        :x2="Math.max(step - 4, 2)"
        y1="1"
        y2="1"
        stroke="var(--rule-strong)"
        stroke-width="1.5"
      />
      <path
        v-for="(item, n) in unit.kinds.slice(0, most)"
        :key="n"
        :d="markOf(item.kind, item.exam).path"
        :fill="markOf(item.kind, item.exam).colour"
        :transform="`translate(${step / 2 - 1.5} ${6 + (n + 0.5) * pitch}) scale(${pitch / 13})`"
      />
    </g>
  </svg>
</template>

<style scoped>
.picture {
  display: block;
  width: 100%;
  height: auto;
  background: var(--paper-raised);
  border: 1px solid var(--rule);
  padding: 8px;
}
</style>
