<script setup lang="ts">
/** The mark of a kind of item: a colour and a shape, always with the word at hand. */
const props = defineProps<{ kind: string; exam?: boolean; size?: number }>()
const mark = computed(() => markOf(props.kind, props.exam))
const word = computed(() => (props.exam ? 'exam' : (kindWords[props.kind]?.[0] ?? props.kind)))
</script>

<template>
  <svg
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
