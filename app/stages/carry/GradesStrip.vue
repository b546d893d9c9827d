<script setup lang="ts">
import { usePlan } from '../plan/store'

/** The grade rules in a strip: each category as wide as its weight, what they make, and what is to settle. */
defineProps<{ planId: string }>()
const store = usePlan()
const grades = computed(() => store.carrying?.grades ?? null)
const byWeights = computed(() => grades.value?.rules.by === 'weights')
const parts = computed(() =>
  (grades.value?.categories ?? [])
    .filter(line => !line.exempt && (line.weight ?? 0) > 0)
    .map(line => ({ ...line, grow: line.weight ?? 0 })),
)
const settle = computed(() => store.toSettle.grades + store.toSettle.categories)
const isWhole = computed(() => grades.value?.sum === 1_000_000)
</script>

<template>
  <div class="strip">
    <b>Grades</b>
    <span class="soft">{{ byWeights ? 'by weights' : 'by points' }}</span>
    <span class="scale" aria-hidden="true">
      <span v-for="part in parts" :key="part.lineage" :style="{ flexGrow: part.grow }" :title="part.title">
        {{ part.title }} {{ pointsText(part.grow) }}
      </span>
    </span>
    <span v-if="grades && grades.categories.length" class="sum">
      <template v-if="byWeights">
        <b :class="{ settle: !isWhole }">{{ pointsText(grades.sum) }}</b> of 100 ·
      </template>
      {{ counted(grades.categories.length, 'category', 'categories') }}
      <b v-if="settle" class="settle">· {{ settle }} to settle</b>
    </span>
    <span v-else class="soft">no grade categories</span>
    <NuxtLink :to="`/plans/${planId}/grades`">Open the grade rules</NuxtLink>
  </div>
</template>

<style scoped>
.strip {
  display: flex;
  align-items: center;
  gap: 12px;
  padding-bottom: 9px;
  flex-wrap: wrap;
}
.scale {
  flex: 1 1 200px;
  display: flex;
  border-top: 1px solid var(--rule-strong);
  min-width: 0;
}
.scale span {
  flex: 1 1 0;
  min-width: 0;
  overflow: hidden;
  text-overflow: clip;
  white-space: nowrap;
  font-size: 11.5px;
  color: var(--ink-soft);
  border-left: 1.5px solid var(--rule-strong);
  padding-left: 4px;
}
@media (max-width: 620px) {
  .scale {
    display: none;
  }
}
</style>
