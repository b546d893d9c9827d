<script setup lang="ts">
import type { Density } from './crossing'

/** What thousands of threads come to: how many dates a day holds, and where they go. */
defineProps<{ density: Density }>()
</script>

<template>
  <g class="density">
    <path
      v-for="{ outcome, path } in density.strings"
      :key="outcome"
      class="strings"
      :class="outcome"
      :d="path"
    />
    <rect
      v-for="bar in density.bars"
      :key="bar.key"
      :class="{ settle: bar.settle }"
      :x="bar.x"
      :y="bar.y"
      :width="bar.width"
      :height="bar.height"
    >
      <title>{{ counted(bar.count, 'date') }}</title>
    </rect>
  </g>
</template>

<style scoped>
.strings {
  fill: none;
  stroke: var(--thread);
  stroke-width: 1;
  opacity: 0.3;
  pointer-events: none;
}
.strings.settle,
.strings.moved {
  stroke: var(--brass);
}
.strings.held {
  stroke: var(--tide);
}
rect {
  fill: var(--ink-soft);
}
rect.settle {
  fill: var(--brass);
}
</style>
