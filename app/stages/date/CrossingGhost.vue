<script setup lang="ts">
import { targetY } from './crossing-axes'

/** Where a mark that is dragged would be let go, and what that day is. */
const props = defineProps<{ x: number; words: string; width: number }>()
/** Roughly the width of the words, so that they stay within the picture. */
const half = computed(() => props.words.length * 3.1 + 8)
const middle = computed(() => Math.min(Math.max(props.x, half.value), props.width - half.value))
</script>

<template>
  <g class="ghost">
    <path :d="`M${x} ${targetY - 34}V${targetY + 14}`" />
    <rect :x="middle - half" :y="targetY - 58" :width="2 * half" height="22" rx="2" />
    <text :x="middle" :y="targetY - 43">{{ words }}</text>
  </g>
</template>

<style scoped>
.ghost {
  pointer-events: none;
}
path {
  stroke: var(--tide);
  stroke-width: 1.5;
}
rect {
  fill: var(--paper-raised);
  stroke: var(--tide);
}
text {
  font-size: 12.5px;
  fill: var(--ink);
  text-anchor: middle;
}
</style>
