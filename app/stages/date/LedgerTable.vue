<script setup lang="ts">
import { useVirtualizer } from '@tanstack/vue-virtual'
import { useMediaQuery } from '@vueuse/core'
import type { DateField, ItemDates } from '~~/core/course/dates'
import { useLedgerSource } from './source'
import LedgerEditRow from './LedgerEditRow.vue'
import LedgerItemRow from './LedgerItemRow.vue'
import type { LedgerRow } from './ledger'
import type { LedgerOrder } from './view'

/** The ledger: every carried item in course order with its old and new dates. */
const props = defineProps<{
  rows: LedgerRow[]
  selected: string | null
  chosen: ReadonlySet<string>
  editing: string | null
  field: DateField | null
  order: LedgerOrder
  /** Whether only a part of the ledger is shown, or only what is to settle. */
  narrowed: 'no' | 'some' | 'settle'
}>()
const emit = defineEmits<{
  select: [lineage: string]
  choose: [lineage: string]
  chooseTo: [lineage: string]
  order: [order: LedgerOrder]
  showAll: []
  field: [field: DateField | null]
  edit: [lineage: string]
  commit: [lineage: string, dates: ItemDates]
  cancel: []
}>()
const base = useLedgerSource()
const years = computed(() => base.terms && yearsOf(base.terms.target))
const list = ref<HTMLElement>()
const columns: { name: string; order: Exclude<LedgerOrder, 'course'> }[] = [
  { name: 'Item', order: 'item' },
  { name: base.words.was, order: 'was' },
  { name: 'Opens', order: 'opens' },
  { name: 'Due', order: 'due' },
  { name: 'Closes', order: 'closes' },
  { name: 'How', order: 'how' },
]
/** A press on a column orders by it, another puts the course's own order back. */
const orderBy = (order: LedgerOrder): void => emit('order', props.order === order ? 'course' : order)
function press(event: MouseEvent, lineage: string): void {
  if (event.shiftKey) emit('chooseTo', lineage)
  else if (event.ctrlKey || event.metaKey) emit('choose', lineage)
  else emit('select', lineage)
}
// A row grows where its words need more than a line; on a narrow page all of them do.
const isNarrow = useMediaQuery('(max-width: 620px)')
const heights = computed(() => ({ unit: 38, head: isNarrow.value ? 92 : 38, item: isNarrow.value ? 86 : 29 }))
const heightOf = (row: LedgerRow | undefined): number => {
  if (row?.type === 'unit') return heights.value.unit
  return row?.head ? heights.value.head : heights.value.item
}
const virtual = useVirtualizer(
  computed(() => ({
    count: props.rows.length,
    getScrollElement: () => list.value ?? null,
    overscan: 6,
    estimateSize: (index: number) => heightOf(props.rows[index]),
    getItemKey: (index: number) => props.rows[index]?.lineage ?? index,
  })),
)
const visible = computed(() =>
  virtual.value.getVirtualItems().flatMap(({ index, start }) => {
    const row = props.rows[index]
    const place = { transform: `translateY(${start}px)` }
    return row ? [{ row, index, place }] : []
  }),
)
// Measuring takes time: on a wide page only the selected row can be higher than the others.
const grows = (lineage: string): boolean => isNarrow.value || lineage === props.selected
const measure = (row: unknown): void => {
  const element = row instanceof HTMLElement ? row : (row as { $el?: HTMLElement } | null)?.$el
  if (element) virtual.value.measureElement(element)
}
const emptyText = computed(() => {
  if (!base.ledger) return 'Reckoning where every date lands …'
  if (props.narrowed === 'settle') return 'Nothing is to settle here.'
  if (props.narrowed === 'some') return 'No item is like that.'
  return base.carried > 0
    ? 'No carried item has a date. There is nothing to move; items can still be given dates by hand once “items without dates” are shown.'
    : 'No carried item has a date. Choose something in Carry first.'
})
defineExpose({
  show: (lineage: string) => {
    const index = props.rows.findIndex(row => row.lineage === lineage)
    if (index < 0) return
    virtual.value.scrollToIndex(index, { align: 'auto' })
    // Selected, it may have grown: then its end is brought into sight too.
    requestAnimationFrame(() => {
      list.value?.querySelector('[aria-current=true]')?.scrollIntoView({ block: 'nearest' })
    })
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
  <div
    class="ledger"
    role="grid"
    aria-label="Dates, old and new"
    aria-multiselectable="true"
    :aria-rowcount="rows.length + 1"
  >
    <div class="ledger-columns caps" role="row" aria-rowindex="1">
      <span
        v-for="column in columns"
        :key="column.order"
        role="columnheader"
        :aria-sort="order === column.order ? 'ascending' : undefined"
      >
        <button
          type="button"
          :title="order === column.order ? 'Back to the course’s own order' : `Order by this column`"
          @click="orderBy(column.order)"
        >
          {{ column.name }}<i v-if="order === column.order" aria-hidden="true"> ↓</i>
        </button>
      </span>
    </div>
    <div ref="list" class="list" role="rowgroup" tabindex="0" aria-label="Rows; j and k move, e edits">
      <div :style="{ height: `${virtual.getTotalSize()}px`, position: 'relative' }">
        <template v-for="{ row, index, place } in visible" :key="row.lineage">
          <div
            v-if="row.type === 'unit'"
            :ref="isNarrow ? measure : undefined"
            class="unit"
            role="row"
            :data-index="index"
            :aria-rowindex="index + 2"
            :style="place"
          >
            <span role="gridcell">
              <b
                >{{ row.number ? `${row.number} · ` : '' }}<bdi>{{ row.title }}</bdi></b
              >
              <span class="soft small">{{ row.dated }} dated · {{ row.undated }} undated</span>
            </span>
          </div>
          <LedgerEditRow
            v-else-if="editing === row.lineage"
            :ref="measure"
            :item="row"
            :data-index="index"
            class="placed"
            :style="place"
            @commit="dates => commit(row.lineage, dates)"
            @cancel="cancel"
          />
          <LedgerItemRow
            v-else
            :ref="grows(row.lineage) ? measure : undefined"
            :item="row"
            :data-index="index"
            :source="base.terms?.source ?? null"
            :years="years"
            :how="base.how(row)"
            :selected="row.lineage === selected"
            :chosen="chosen.has(row.lineage)"
            :field="field"
            :aria-rowindex="index + 2"
            class="placed"
            :style="place"
            @click="(event: MouseEvent) => press(event, row.lineage)"
            @choose="emit('choose', row.lineage)"
            @field="chosen => emit('field', row.lineage === selected ? chosen : null)"
            @dblclick="emit('edit', row.lineage)"
          />
        </template>
      </div>
      <p v-if="!rows.length" class="empty soft">
        {{ emptyText }}
        <button v-if="narrowed !== 'no'" class="link" type="button" @click="emit('showAll')">
          Show the whole ledger
        </button>
      </p>
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
  min-height: 29px;
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
/* The row one looks at is read whole. */
.ledger-row[aria-current='true'] {
  white-space: normal;
}
@media (max-width: 620px) {
  .ledger-columns {
    position: absolute;
    width: 1px;
    height: 1px;
    overflow: hidden;
    clip-path: inset(50%);
  }
  .ledger-row {
    grid-template-columns: repeat(3, minmax(0, 1fr));
    padding-block: 6px;
    row-gap: 2px;
    white-space: normal;
  }
  .ledger-row > [role='gridcell']:first-child,
  .ledger-row > [role='gridcell']:last-child,
  .ledger-row > [role='gridcell']:nth-child(2) {
    grid-column: 1 / -1;
  }
}
</style>
<style scoped>
.ledger {
  flex: 1;
  min-height: 0;
  position: relative;
  display: flex;
  flex-direction: column;
}
.ledger-columns button {
  all: unset;
  cursor: pointer;
}
.ledger-columns button:focus-visible {
  outline: 2px solid var(--tide);
}
.ledger-columns i {
  font-style: normal;
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
  min-height: 38px;
  padding: 12px 8px 2px;
  border-bottom: 1px solid var(--rule-middle);
}
.unit b {
  font: 600 15.5px var(--serif);
  margin-right: 8px;
}
.empty {
  padding: 24px 8px;
}
@media (max-width: 900px) {
  .list {
    flex: none;
    height: max(280px, calc(100vh - 190px));
  }
}
</style>
