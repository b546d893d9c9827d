<script setup lang="ts">
import { dayOf, minuteOf } from '~~/core/calendar/day'
import { useLedgerSource } from './source'
import { hangsBy } from './crossing'
import { sourceY, targetY, type Axis } from './crossing-axes'
import type { LedgerItem } from './ledger'

/** Another way of crossing laid over this one: where it would put what lands elsewhere by it. */
const props = defineProps<{ items: readonly LedgerItem[]; axes: { source: Axis; target: Axis } }>()
const base = useLedgerSource()
const path = computed(() => {
  const over = base.laidOver
  if (!over) return ''
  const at = (wall: string): number => dayOf(wall) + minuteOf(wall) / 1440
  const strings = props.items.flatMap(item => {
    const field = hangsBy(item)
    const was = field && item.node[field]
    const other = field && over.planned.get(item.lineage)?.[field]
    if (!field || !was || !other || other === item.planned[field]) return []
    const [from, to] = [props.axes.source.x(at(was)), props.axes.target.x(at(other))]
    return [`M${from.toFixed(1)} ${sourceY + 8}L${to.toFixed(1)} ${targetY}m-3 0l3 -3l3 3l-3 3z`]
  })
  return [...new Set(strings)].join('')
})
</script>

<template>
  <path v-if="path" class="over" :d="path" />
</template>

<style scoped>
.over {
  fill: none;
  stroke: var(--kind-discussion);
  stroke-width: 1;
  stroke-dasharray: 3 3;
  pointer-events: none;
}
</style>
