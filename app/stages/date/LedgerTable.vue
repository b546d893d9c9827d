<script setup lang="ts">
import { useVirtualizer } from '@tanstack/vue-virtual'
import type { DateField, ItemDates } from '~~/core/course/dates'
import { usePlan } from '../plan/store'
import LedgerEditRow from './LedgerEditRow.vue'
import LedgerItemRow from './LedgerItemRow.vue'
import type { LedgerRow } from './ledger'

/** The ledger: every carried item in course order with its old and new dates. */
const props = defineProps<{
  rows: LedgerRow[]
  selected: string | null
  editing: string | null
  field: DateField | null
}>()
const emit = defineEmits<{
  select: [lineage: string]
  field: [field: DateField | null]
  edit: [lineage: string]
  commit: [lineage: string, dates: ItemDates]
  cancel: []
}>()
const store = usePlan()
const list = ref<HTMLElement>()
const columns = ['Item', 'Was due', 'Opens', 'Due', 'Closes', 'How']
const heights = { unit: 38, item: 29 }
const virtual = useVirtualizer(
  computed(() => ({
    count: props.rows.length,
    getScrollElement: () => list.value ?? null,
    overscan: 14,
    estimateSize: (index: number) => heights[props.rows[index]?.type ?? 'item'],
    getItemKey: (index: number) => props.rows[index]?.lineage ?? index,
  })),
)
const visible = computed(() =>
  virtual.value.getVirtualItems().flatMap(({ index, start }) => {
    const row = props.rows[index]
    return row ? [{ row, index: index + 2, place: { transform: `translateY(${start}px)` } }] : []
  }),
)
const emptyText = computed(() =>
  store.counts.carried > 0
    ? 'There is nothing to move; items can still be given dates by hand once “items without dates” are shown.'
    : 'Choose something in Carry first.',
)
defineExpose({
  show: (lineage: string) => {
    const index = props.rows.findIndex(row => row.lineage === lineage)
    if (index >= 0) virtual.value.scrollToIndex(index, { align: 'auto' })
  },
})
function commit(lineage: string, dates: ItemDates): void {
  emit('commit', lineage, dates)
  list.value?.focus()
}
function cancel(): void {
  emit('cancel')
  list.value?.focus()
}
</script>

<template>
  <div class="ledger" role="table" aria-label="Dates, old and new" :aria-rowcount="rows.length + 1">
    <div class="ledger-columns caps" role="row" aria-rowindex="1">
      <span v-for="name in columns" :key="name" role="columnheader">{{ name }}</span>
    </div>
    <div ref="list" class="list" role="rowgroup" tabindex="0" aria-label="Rows; j and k move, e edits">
      <div :style="{ height: `${virtual.getTotalSize()}px`, position: 'relative' }">
        <template v-for="{ row, index, place } in visible" :key="row.lineage">
          <div v-if="row.type === 'unit'" class="unit" role="row" :aria-rowindex="index" :style="place">
            <span role="cell">
              <b>{{ row.number ? `${row.number} · ` : '' }}{{ row.title }}</b>
              <span class="soft small">{{ row.dated }} dated · {{ row.undated }} undated</span>
            </span>
          </div>
          <LedgerEditRow
            v-else-if="editing === row.lineage"
            :item="row"
            class="placed"
            :style="place"
            @commit="dates => commit(row.lineage, dates)"
            @cancel="cancel"
          />
          <LedgerItemRow
            v-else
            :item="row"
            :source="store.terms?.source ?? null"
            :selected="row.lineage === selected"
            :field="field"
            :aria-rowindex="index"
            class="placed"
            :style="place"
            @click="emit('select', row.lineage)"
            @field="chosen => emit('field', row.lineage === selected ? chosen : null)"
            @dblclick="emit('edit', row.lineage)"
          />
        </template>
      </div>
      <p v-if="!rows.length" class="empty soft">No carried item has a date. {{ emptyText }}</p>
    </div>
  </div>
</template>

<style>
.ledger-columns,
.ledger-row {
  display: grid;
  grid-template-columns: minmax(0, 1.55fr) minmax(0, 1.12fr) 126px 126px 126px minmax(0, 1.2fr);
  column-gap: 8px;
  align-items: center;
  padding: 0 8px;
}
.ledger-row {
  height: 29px;
  border-bottom: 1px solid var(--rule);
  cursor: default;
  font-size: 13.5px;
  white-space: nowrap;
}
.ledger-row > span {
  overflow: hidden;
  text-overflow: ellipsis;
}
.ledger-row .name {
  display: flex;
  gap: 8px;
  align-items: center;
}
.ledger-row .words {
  overflow: hidden;
  text-overflow: ellipsis;
}
</style>
<style scoped>
.ledger {
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
}
.ledger-columns {
  padding-bottom: 5px;
  border-bottom: 1.5px solid var(--rule-strong);
  flex: none;
}
.list {
  flex: 1;
  min-height: 0;
  overflow: auto;
  outline-offset: -2px;
}
.unit,
.placed {
  position: absolute;
  left: 0;
  right: 0;
}
.unit {
  height: 38px;
  padding: 12px 8px 0;
  border-bottom: 1px solid #c4b99b;
}
.unit b {
  font: 600 15.5px var(--serif);
  margin-right: 8px;
}
.empty {
  padding: 24px 8px;
}
</style>
