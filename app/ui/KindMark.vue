<script setup lang="ts">
import type { ItemKind } from '~~/core/course/model'

/** The mark of a kind of item: a colour and a shape, always with the word at hand. A unit has none. */
const props = defineProps<{ kind: ItemKind | null; exam?: boolean; size?: number }>()
const mark = computed(() => props.kind && markOf(props.kind, props.exam))
const word = computed(() => {
  if (props.exam) return 'exam'
  return props.kind ? kindWords(props.kind)[0] : ''
})
</script>

<template>
  <svg
    v-if="mark"
    :width="size ?? 12"
    :height="size ?? 12"
    viewBox="-6 -6 12 12"
    role="img"
    :aria-label="word"
    class="kind-mark"
  >
    <title>{{ word }}</title>
    <path :d="mark.path" :fill="mark.colour" />
  </svg>
</template>

<style scoped>
.kind-mark {
  flex: none;
  vertical-align: -1px;
}
</style>
