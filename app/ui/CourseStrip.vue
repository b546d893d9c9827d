<script setup lang="ts">
import type { TemplateLine } from '~~/shared/api/shares'

/** A course drawn as one long strip, unit by unit: a mark for each item, in order. Nothing is invented: the marks are its items. */
const props = defineProps<{ shape: TemplateLine['shape']; arrangement: TemplateLine['arrangement'] }>()
const [pitch, gap, height] = [9, 13, 22]
const units = computed(() => {
  let x = 0
  return props.shape.map((unit, at) => {
    const items = unit.kinds.map((item, n) => ({ ...markOf(item.kind, item.exam), x: 6 + n * pitch }))
    const width = Math.max(items.length * pitch, pitch)
    const placed = { title: unit.title, number: at + 1, x, width, items }
    x += width + gap
    return placed
  })
})
const width = computed(() => {
  const last = units.value.at(-1)
  return last ? last.x + last.width : 0
})
const items = computed(() => props.shape.reduce((sum, unit) => sum + unit.kinds.length, 0))
const told = computed(() => {
  const divisions = counted(props.shape.length, props.arrangement === 'weeks' ? 'week' : 'unit')
  return `${divisions} with ${counted(items.value, 'item')}`
})
</script>

<template>
  <svg
    :viewBox="`0 0 ${width} ${height}`"
    :style="{ maxWidth: `${width}px` }"
    class="strip"
    role="img"
    :aria-label="told"
  >
    <g v-for="unit in units" :key="unit.number" :transform="`translate(${unit.x} 0)`">
      <title>{{ unit.number }} · {{ unit.title }}</title>
      <path :d="`M0 ${height - 1}H${unit.width}M.5 2V${height - 1}`" class="rule" />
      <path
        v-for="item in unit.items"
        :key="item.x"
        :d="item.path"
        :fill="item.colour"
        :transform="`translate(${item.x} 10) scale(.62)`"
      />
    </g>
  </svg>
</template>

<style scoped>
.strip {
  display: block;
  width: 100%;
  height: auto;
  max-height: 30px;
}
.rule {
  fill: none;
  stroke: var(--rule-strong);
  stroke-width: 1;
}
</style>
