<script setup lang="ts">
import type { SectionsReply } from '~~/shared/api/sections'

/** Exactly what goes from a section that is to show another's content. */
const props = defineProps<{
  name: string
  leaves: SectionsReply['could'][number]['leaves']
  open?: boolean
  /** The section keeps the dates that it has of what both hold. */
  keepsDates?: boolean
}>()
const countText = computed(() => {
  const units = props.leaves.filter(({ type }) => type === 'unit').length
  const items = props.leaves.length - units
  return [units && counted(units, 'unit'), items && counted(items, 'item')].filter(Boolean).join(' and ')
})
</script>

<template>
  <details v-if="leaves.length" class="small" :open="open">
    <summary>
      {{ countText }} {{ leaves.length === 1 ? 'goes' : 'go' }} from {{ name }}, untouched since
      {{ leaves.length === 1 ? 'it' : 'they' }} came{{ keepsDates ? ', but for dates, which stay' : '' }}
    </summary>
    <ul>
      <li v-for="thing in leaves" :key="thing.lineage">
        <KindMark v-if="thing.kind" :kind="thing.kind" />{{ ' '
        }}<bdi :class="thing.type">{{ thing.title }}</bdi>
      </li>
    </ul>
  </details>
</template>

<style scoped>
summary {
  cursor: pointer;
  color: var(--buoy);
}
.unit {
  font-weight: 600;
}
ul {
  list-style: none;
  max-height: 240px;
  overflow: auto;
}
</style>
