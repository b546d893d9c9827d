<script setup lang="ts">
import { useVirtualizer } from '@tanstack/vue-virtual'
import { dayOf } from '~~/core/calendar/day'
import { teachingWeek } from '~~/core/calendar/term'
import { zoneOf } from '~~/core/dates/zones'
import type { SlotValues } from '~~/core/dates/plan'
import { slotNames, type SlotName } from '~~/core/dates/rule'
import { shortHow } from '~~/core/dates/sentences'
import { usePlan } from '../plan'
import type { LedgerItem, LedgerRow } from './ledger'

/** The ledger: every carried item in course order with its old and new dates. */
const props = defineProps<{
  rows: LedgerRow[]
  selected: string | null
  editing: string | null
  mayEdit: boolean
}>()
const emit = defineEmits<{
  select: [lineage: string]
  edit: [lineage: string]
  commit: [lineage: string, dates: SlotValues]
  cancel: []
}>()
const store = usePlan()
const list = ref<HTMLElement>()
const heights = { unit: 38, item: 29 }
const virtual = useVirtualizer(
  computed(() => ({
    count: props.rows.length,
    getScrollElement: () => list.value ?? null,
    overscan: 14,
    estimateSize: (index: number) => heights[props.rows[index]!.type],
    getItemKey: (index: number) => keyOf(props.rows[index]!),
  })),
)
const keyOf = (row: LedgerRow): string => (row.type === 'unit' ? row.lineage : row.node.lineage)
const visible = computed(() =>
  virtual.value.getVirtualItems().map(entry => ({ ...entry, row: props.rows[entry.index]! })),
)
defineExpose({
  show: (lineage: string) => {
    const index = props.rows.findIndex(row => keyOf(row) === lineage)
    if (index >= 0) virtual.value.scrollToIndex(index, { align: 'auto' })
  },
})

function was({ node }: LedgerItem): string {
  const slot = node.due ? 'due' : node.opens ? 'opens' : node.closes ? 'closes' : null
  if (!slot || !store.terms) return '–'
  const day = dayOf(node[slot]!)
  const zone = zoneOf(store.terms.source, day)
  const week = zone === 'classes' ? teachingWeek(store.terms.source, day) : null
  const where =
    zone === 'classes' ? (week!.after ? 'break' : `wk ${week!.week}`) : zone === 'exams' ? 'exams' : zone
  return `${where} · ${slot === 'due' ? dayText(node.due!) : `${slot === 'opens' ? 'opened' : 'closed'} ${shortDay(node[slot]!)}`}`
}
const how = ({ planned, outcomes, node }: LedgerItem): string => {
  const slot =
    slotNames.find(each => outcomes[each] === 'settle') ??
    slotNames.find(each => outcomes[each] === 'moved') ??
    (node.due ? 'due' : node.opens ? 'opens' : 'closes')
  const words = shortHow(planned.slots[slot].reasons)
  return slot === 'due' || !['settle', 'moved'].includes(outcomes[slot]) ? words : `${slot}: ${words}`
}

const draft = reactive<Record<SlotName, string>>({ opens: '', due: '', closes: '' })
watch(
  () => props.editing,
  lineage => {
    const row = props.rows.find(entry => entry.type === 'item' && entry.node.lineage === lineage)
    if (row?.type !== 'item') return
    for (const slot of slotNames) draft[slot] = row.planned[slot] ?? ''
    void nextTick(() => list.value?.querySelector<HTMLInputElement>('.editing input[name=due]')?.focus())
  },
)
function commit(lineage: string): void {
  emit('commit', lineage, {
    opens: draft.opens || null,
    due: draft.due || null,
    closes: draft.closes || null,
  })
  list.value?.focus()
}
function cancel(): void {
  emit('cancel')
  list.value?.focus()
}
</script>

<template>
  <div class="ledger" role="table" aria-label="Dates, old and new" :aria-rowcount="rows.length + 1">
    <div class="columns caps" role="row" aria-rowindex="1">
      <span
        v-for="name in ['Item', 'Was due', 'Opens', 'Due', 'Closes', 'How']"
        :key="name"
        role="columnheader"
        >{{ name }}</span
      >
    </div>
    <div ref="list" class="list" role="rowgroup" tabindex="0" aria-label="Rows; j and k move, e edits">
      <div :style="{ height: `${virtual.getTotalSize()}px`, position: 'relative' }">
        <template v-for="{ row, index, start } in visible" :key="keyOf(row)">
          <div
            v-if="row.type === 'unit'"
            class="unit"
            role="row"
            :aria-rowindex="index + 2"
            :style="{ transform: `translateY(${start}px)` }"
          >
            <span role="cell"
              ><b>{{ row.number ? `${row.number} · ` : '' }}{{ row.title }}</b>
              <span class="soft small">{{ row.dated }} dated · {{ row.undated }} undated</span></span
            >
          </div>
          <form
            v-else-if="editing === row.node.lineage"
            class="row editing"
            :style="{ transform: `translateY(${start}px)` }"
            @submit.prevent="commit(row.node.lineage)"
            @keydown.esc.stop="cancel"
          >
            <span class="name"
              ><KindMark :kind="row.node.kind!" :exam="row.node.exam" />
              <span class="words">{{ row.node.title }}</span></span
            >
            <input
              v-for="slot in slotNames"
              :key="slot"
              v-model="draft[slot]"
              type="datetime-local"
              :name="slot"
              :aria-label="slot === 'due' ? 'Due' : slot === 'opens' ? 'Opens' : 'Closes'"
            />
            <span class="acts"
              ><button class="link" type="submit">Hold</button>
              <button class="link" type="button" @click="cancel">Leave</button></span
            >
          </form>
          <div
            v-else
            class="row"
            role="row"
            :aria-rowindex="index + 2"
            :aria-selected="row.node.lineage === selected"
            :class="{ selected: row.node.lineage === selected }"
            :data-item="row.node.title"
            :style="{ transform: `translateY(${start}px)` }"
            @click="emit('select', row.node.lineage)"
            @dblclick="emit('edit', row.node.lineage)"
          >
            <span class="name" role="cell"
              ><KindMark :kind="row.node.kind!" :exam="row.node.exam" />
              <span class="words" :title="row.node.title">{{ row.node.title }}</span></span
            >
            <span class="soft" role="cell">{{ was(row) }}</span>
            <span
              v-for="slot in slotNames"
              :key="slot"
              role="cell"
              :data-slot="slot"
              :data-at="row.planned[slot] ?? ''"
              :data-outcome="row.outcomes[slot]"
              ><template v-if="row.planned[slot]"
                ><b>{{ dayText(row.planned[slot]!) }}</b> <i>{{ row.planned[slot]!.slice(11) }}</i></template
              ><template v-else>{{ row.outcomes[slot] === 'none' ? 'none' : '–' }}</template></span
            >
            <span role="cell" :class="row.held ? 'kept' : row.settle ? 'settle' : 'soft'"
              >{{ row.settle ? 'to settle: ' : '' }}{{ how(row) }}</span
            >
          </div>
        </template>
      </div>
      <p v-if="!rows.length" class="empty soft">
        No carried item has a date.
        {{
          store.counts.carried
            ? 'There is nothing to move; items can still be given dates by hand once “items without dates” are shown.'
            : 'Choose something in Carry first.'
        }}
      </p>
    </div>
  </div>
</template>

<style scoped>
.ledger {
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
}
.columns,
.row {
  display: grid;
  grid-template-columns: minmax(0, 1.55fr) minmax(0, 1.12fr) 126px 126px 126px minmax(0, 1.2fr);
  column-gap: 8px;
  align-items: center;
  padding: 0 8px;
}
.columns {
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
.row {
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
.row {
  height: 29px;
  border-bottom: 1px solid var(--rule);
  cursor: default;
  font-size: 13.5px;
  white-space: nowrap;
}
.row.selected {
  background: var(--tide-wash);
}
.row > span {
  overflow: hidden;
  text-overflow: ellipsis;
}
.name {
  display: flex;
  gap: 8px;
  align-items: center;
}
.words {
  overflow: hidden;
  text-overflow: ellipsis;
}
b {
  font-weight: 400;
}
[data-slot='due'] b {
  font-weight: 600;
}
i {
  font-style: normal;
  color: var(--ink-soft);
  font-size: 12.5px;
}
[data-outcome='settle'] b,
[data-outcome='moved'] b {
  color: var(--brass-text);
}
[data-outcome='held'] b {
  color: var(--tide-text);
  font-weight: 600;
}
[data-outcome='none'],
[data-outcome='empty'] {
  color: var(--ink-soft);
}
.editing {
  background: var(--paper-raised);
  outline: 1.5px solid var(--tide);
  outline-offset: -1.5px;
  z-index: 2;
}
.row.editing {
  grid-template-columns: minmax(0, 1fr) repeat(3, 190px) 96px;
}
.editing input {
  font: inherit;
  font-size: 13px;
  width: 100%;
  border: 1px solid var(--ink-soft);
  background: var(--paper-raised);
  color: var(--ink);
  padding: 0 4px;
}
.acts {
  display: flex;
  gap: 12px;
}
.empty {
  padding: 24px 8px;
}
</style>
