<script setup lang="ts">
import type { Axis } from './crossing-axes'

/** One term of the crossing: its weeks, and shaded what is no class day. */
const props = defineProps<{ axis: Axis }>()
const named = computed(() => props.axis.spans.filter(span => span.named))
</script>

<template>
  <g>
    <title>{{ axis.title }}</title>
    <rect
      v-for="span in axis.spans"
      :key="span.key"
      :x="span.x"
      :y="axis.y - 13"
      :width="span.width"
      height="26"
      :fill="span.exams ? 'var(--exams)' : 'url(#hatch)'"
    >
      <title>{{ span.title }}</title>
    </rect>
    <text v-for="span in named" :key="span.key" class="closure" :x="span.middle" :y="axis.closureY">
      {{ span.name }}
    </text>
    <path class="axis" :d="axis.line" />
    <path
      v-for="week in axis.weeks"
      :key="week.number"
      class="tick"
      :d="`M${week.x} ${axis.y - 5}V${axis.y + 5}`"
    />
    <text v-for="{ number, middle } in axis.weekNames" :key="number" class="week" :x="middle" :y="axis.weekY">
      {{ number }}
    </text>
    <text class="term" x="0" :y="axis.y + 5">{{ axis.name }}</text>
  </g>
</template>

<style scoped>
.axis {
  stroke: var(--ink);
  stroke-width: 2;
}
.tick {
  stroke: var(--ink);
  stroke-width: 1;
}
.week {
  font-size: 12px;
  fill: var(--ink-soft);
  text-anchor: middle;
}
.closure {
  font: italic 12.5px var(--serif);
  fill: var(--sand-text);
  text-anchor: middle;
}
.term {
  font: italic 500 15px var(--serif);
  fill: var(--ink);
}
</style>
