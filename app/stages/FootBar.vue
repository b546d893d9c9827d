<script setup lang="ts">
/** The foot of a stage: running totals, the keys that work here, and the one next thing to do. */
defineProps<{ totals?: { count: number; words: string; settle?: boolean }[] }>()
</script>

<template>
  <section class="foot no-print" aria-label="Where it stands, and what is next">
    <span
      v-for="total in totals"
      :key="total.words"
      class="total"
      :class="{ settle: total.settle && total.count > 0 }"
      ><b>{{ numberText(total.count) }}</b> {{ total.words }}</span
    >
    <span v-if="letterKeys" class="keys"><slot name="keys" /></span>
    <span class="spring" />
    <slot />
  </section>
</template>

<style scoped>
.foot {
  flex: none;
  min-height: 44px;
  background: var(--deep);
  color: var(--on-deep);
  display: flex;
  align-items: center;
  gap: 20px;
  padding: 6px var(--gutter);
  font-size: 13.5px;
}
.total {
  color: var(--on-deep-soft);
}
.total b {
  color: var(--on-deep);
  font-weight: 600;
}
.total.settle,
.total.settle b {
  color: var(--brass-on-deep);
}
.spring {
  flex: 1;
}
.keys {
  color: var(--on-deep-soft);
  display: flex;
  gap: 14px;
}
.keys :deep(kbd) {
  background: transparent;
  border-color: var(--on-deep-rule);
  color: var(--on-deep);
}
@media (max-width: 900px) {
  .foot {
    position: sticky;
    bottom: 0;
    z-index: 5;
    gap: 14px;
    white-space: nowrap;
  }
  .keys {
    display: none;
  }
}
@media (max-width: 620px) {
  .total:not(.settle) {
    display: none;
  }
}
</style>
