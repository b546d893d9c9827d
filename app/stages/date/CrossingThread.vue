<script setup lang="ts">
import { sourceY, targetY, threadTitle, type Thread } from './crossing'

/** A thread from where items were to where they land, with their mark at both ends. */
const props = defineProps<{ thread: Thread }>()
const title = computed(() => threadTitle(props.thread))
const end = computed(() => {
  const scale = props.thread.chosen ? ' scale(1.5)' : ''
  return `translate(${props.thread.to} ${targetY})${scale}`
})
</script>

<template>
  <g class="thread" :class="[thread.outcome, { chosen: thread.chosen, outside: thread.outside }]">
    <title>{{ title }}</title>
    <path v-if="thread.to !== null" class="string" :d="thread.path" />
    <path
      :d="thread.mark.path"
      :fill="thread.mark.colour"
      :transform="`translate(${thread.from} ${sourceY})`"
    />
    <template v-if="thread.to !== null">
      <circle v-if="thread.bent" :cx="thread.to" :cy="targetY" r="7.5" class="ring" />
      <path :d="thread.mark.path" :fill="thread.mark.colour" :transform="end" />
    </template>
  </g>
</template>

<style scoped>
.thread {
  cursor: pointer;
}
.string {
  fill: none;
  stroke: var(--thread);
  stroke-width: 1;
}
.thread:hover .string {
  stroke: var(--ink);
  stroke-width: 2;
}
.moved .string,
.settle .string {
  stroke: var(--brass);
  stroke-width: 1.5;
}
.held .string {
  stroke: var(--tide);
  stroke-width: 1.5;
}
.chosen .string {
  stroke: var(--tide);
  stroke-width: 3;
}
.outside .string {
  stroke-dasharray: 5 4;
}
.ring {
  fill: none;
  stroke: var(--brass);
  stroke-width: 1.5;
}
</style>
