<script setup lang="ts">
import { usePlan } from '../plan/store'
import { howText, type LedgerItem } from '../date/ledger'

/** Items with dates to settle or to look at: they do not bar the way, and each leads to its row. */
const props = withDefaults(
  defineProps<{ items: LedgerItem[]; planId: string; head: string; what?: string }>(),
  {
    what: 'You can run without settling them. Each date is written as the table shows.',
  },
)
const store = usePlan()
const years = computed(() => store.terms && yearsOf(store.terms.target))
function whenText({ due, opens }: LedgerItem['planned']): string {
  if (due) return `due ${momentText(due, years.value)}`
  return opens ? `opens ${momentText(opens, years.value)}` : ''
}
const lines = computed(() =>
  props.items.map(item => ({
    lineage: item.lineage,
    node: item.node,
    text: item.findings[0]?.sentence ?? [whenText(item.planned), howText(item)].filter(Boolean).join(' · '),
  })),
)
</script>

<template>
  <section class="settling">
    <h3>{{ head }}</h3>
    <p class="small soft">{{ what }}</p>
    <ul>
      <li v-for="{ lineage, node, text } in lines" :key="lineage">
        <KindMark :kind="node.kind" :exam="node.exam" />
        <NuxtLink :to="`/plans/${planId}/date?item=${lineage}`"
          ><bdi>{{ node.title }}</bdi></NuxtLink
        >
        <span class="soft">{{ text }}</span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.settling {
  margin-top: 22px;
}
ul {
  list-style: none;
}
li {
  padding: 5px 0;
  border-bottom: 1px solid var(--rule);
  max-width: 760px;
  display: flex;
  gap: 8px;
  align-items: center;
}
</style>
