<script setup lang="ts">
import type { Finding } from '~~/core/checks/finding'
import { usePlan } from '../plan/store'

/** What checks notice in what the run will write: it bars nothing, and each leads to where it can be mended. */
const props = defineProps<{ findings: readonly Finding[]; planId: string }>()
const store = usePlan()
const shownAtOnce = 6
/** Where what a check finds is mended. */
const pageOf = (check: string): string =>
  check.startsWith('dates.') ? 'date' : check.startsWith('grade.') ? 'grades' : 'carry'
const nodes = computed(() => new Map(store.nodes.map(node => [node.lineage, node])))
const lines = computed(() =>
  props.findings.map(({ check, grave, where, sentence, mends }) => ({
    key: `${check} ${where.lineage} ${sentence}`,
    node: nodes.value.get(where.lineage ?? '') ?? null,
    to: `/plans/${props.planId}/${pageOf(check)}?item=${where.lineage}`,
    grave,
    sentence,
    mends,
  })),
)
const all = ref(false)
const shown = computed(() => (all.value ? lines.value : lines.value.slice(0, shownAtOnce)))
</script>

<template>
  <section class="findings">
    <h3>{{ counted(lines.length, 'thing') }} to look at before you run</h3>
    <ul>
      <li v-for="{ key, node, to, grave, sentence, mends } in shown" :key="key">
        <template v-if="node"
          ><KindMark :kind="node.kind" :exam="node.exam" /><NuxtLink :to="to"
            ><bdi>{{ node.title }}</bdi></NuxtLink
          ></template
        >
        <span :class="grave === 'must' ? 'must' : 'settle'">{{ sentence }}</span>
        <span class="soft">{{ mends }}.</span>
      </li>
    </ul>
    <button v-if="lines.length > shown.length" class="link small" type="button" @click="all = true">
      Show the other {{ lines.length - shown.length }}
    </button>
  </section>
</template>

<style scoped>
.must {
  color: var(--buoy);
}
.findings {
  margin-top: 22px;
}
ul {
  list-style: none;
}
li {
  padding: 5px 0;
  border-bottom: 1px solid var(--rule);
  max-width: 860px;
  display: flex;
  flex-wrap: wrap;
  gap: 2px 8px;
  align-items: baseline;
}
</style>
