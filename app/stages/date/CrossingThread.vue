<script setup lang="ts">
import { useLedgerSource } from './source'
import { threadTitle, type Thread } from './crossing'
import { sourceY, targetY } from './crossing-axes'

/** A thread from where items were to where they land, with their mark at both ends. */
const props = defineProps<{
  thread: Thread
  /** Whether one of its items is chosen. */
  among: boolean
  showsWindow: boolean
  mayDrag: boolean
}>()
const emit = defineEmits<{ grab: [event: PointerEvent] }>()
const ledger = useLedgerSource()
const years = computed(() => ({
  source: yearsOf(present(ledger.terms).source),
  target: yearsOf(present(ledger.terms).target),
}))
const title = computed(() => threadTitle(props.thread, years.value))
const end = computed(() => {
  const scale = props.thread.chosen || props.among ? ' scale(1.5)' : ''
  return `translate(${props.thread.to} ${targetY})${scale}`
})
</script>

<template>
  <g
    class="thread"
    :class="[
      thread.outcome,
      { chosen: thread.chosen, among, outside: thread.outside, crosses: thread.crosses, mayDrag },
    ]"
  >
    <title>{{ title }}</title>
    <path v-if="thread.to !== null" class="string" :d="thread.path" />
    <rect
      v-if="showsWindow && thread.window"
      class="window"
      :x="thread.window.from"
      :y="targetY - 9 - ((thread.items[0]?.node.position ?? 0) % 8) * 3"
      :width="Math.max(1, thread.window.to - thread.window.from)"
      height="2.5"
      :fill="thread.mark.colour"
    />
    <path
      :d="thread.mark.path"
      :fill="thread.mark.colour"
      :transform="`translate(${thread.from} ${sourceY})`"
    />
    <template v-if="thread.to !== null">
      <circle v-if="thread.bent" :cx="thread.to" :cy="targetY" r="7.5" class="ring" />
      <path
        class="end"
        :d="thread.mark.path"
        :fill="thread.mark.colour"
        :transform="end"
        @pointerdown="event => emit('grab', event)"
      />
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
.crosses .string {
  stroke: var(--ink);
  stroke-width: 1.3;
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
.mayDrag .end {
  cursor: ew-resize;
}
.window {
  opacity: 0.55;
}
.among .string {
  stroke: var(--tide);
  stroke-width: 2;
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
