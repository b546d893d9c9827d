<script setup lang="ts">
import { dayOf, minuteOf, wallOf, type WallTime } from '~~/core/calendar/day'
import { dateFields, datesOf, type DateField, type ItemDates } from '~~/core/course/dates'
import FootBar from '../FootBar.vue'
import StageFrame from '../StageFrame.vue'
import { useStagePlan } from '../plan/store'
import CrossingPicture from './CrossingPicture.vue'
import LedgerTable from './LedgerTable.vue'
import RulePanel from './RulePanel.vue'
import UndatedWork from './UndatedWork.vue'
import WhyNote from './WhyNote.vue'
import { useLedger, type LedgerItem } from './ledger'
import { useSelection } from './selection'

const { store, plan } = useStagePlan()
const mayEdit = computed(() => plan.value.may.edit)
const withUndated = ref(false)
const { items, rows } = useLedger(withUndated)
const table = ref<InstanceType<typeof LedgerTable>>()
const editing = ref<string | null>(null)
const shownItems = computed(() => rows.value.filter((row): row is LedgerItem => row.type === 'item'))
const { selected, select, move, nextWhere } = useSelection(shownItems, lineage => {
  if (editing.value !== lineage) editing.value = null
  void nextTick(() => table.value?.show(lineage))
})
const current = computed(() => items.value.find(item => item.lineage === selected.value) ?? null)
const currentToEdit = (): LedgerItem | null => (mayEdit.value ? current.value : null)

function hold(): void {
  const item = currentToEdit()
  if (item) store.hold(item.lineage, datesOf(item.planned))
}
function letGo(): void {
  const item = currentToEdit()
  if (item?.held) store.hold(item.lineage, null)
}
/** The one date of the row that keys move alone; null: they move all of them, so that the item stays open as long. */
const field = ref<DateField | null>(null)
watch(selected, () => {
  field.value = null
})
function turn(by: 1 | -1): void {
  const all = [null, ...dateFields]
  field.value = all[(all.indexOf(field.value) + by + all.length) % all.length] ?? null
}
const later = (at: WallTime | null, days: number): WallTime | null =>
  at && wallOf(dayOf(at) + days, minuteOf(at))
/** Moves the dates of the row by days, their times kept, and holds them there. */
function nudge(days: number): void {
  const item = currentToEdit()
  if (!item) return
  const dates = datesOf(item.planned)
  const fields = field.value ? [field.value] : dateFields
  for (const each of fields) dates[each] = later(dates[each], days)
  store.hold(item.lineage, dates)
}
function commit(lineage: string, dates: ItemDates): void {
  store.hold(lineage, dates)
  editing.value = null
}
function edit(): void {
  const item = currentToEdit()
  if (item) editing.value = item.lineage
}
function editRow(lineage: string): void {
  select(lineage)
  edit()
}
useKeys([
  ...keysFor(['j', 'ArrowDown'], 'next row', () => move(1)),
  ...keysFor(['k', 'ArrowUp'], 'row before', () => move(-1)),
  ...keysFor(['ArrowRight'], 'one date of the row alone', () => turn(1)),
  ...keysFor(['ArrowLeft'], 'the date before it', () => turn(-1)),
  { key: 'n', does: 'next to settle', run: () => nextWhere(item => item.settle) },
  { key: 'e', does: 'edit its dates', run: edit },
  { key: 'Enter', does: 'edit its dates', hidden: true, run: edit },
  { key: 'p', does: 'hold it where it is', run: hold },
  { key: 'u', does: 'let it go', run: letGo },
  { key: '[', does: 'a day earlier', run: () => nudge(-1) },
  { key: ']', does: 'a day later', run: () => nudge(1) },
  { key: '{', does: 'a week earlier', run: () => nudge(-7) },
  { key: '}', does: 'a week later', run: () => nudge(7) },
])

const totals = computed(() => {
  const summary = store.ledger?.summary
  if (!summary) return null
  const notes = store.ledger?.notes.size ?? 0
  const { dates, straight, moved, held, none, settle } = summary
  return [
    { count: dates, words: 'dates' },
    { count: straight, words: 'straight across' },
    { count: moved, words: 'moved' },
    { count: held, words: 'held' },
    ...(none ? [{ count: none, words: 'taken away' }] : []),
    { count: settle, words: 'to settle', settle: true },
    ...(notes > 0 ? [{ count: notes, words: 'to look at', settle: true }] : []),
  ]
})
</script>

<template>
  <StageFrame flush>
    <CrossingPicture :items="items" :selected="selected" @select="select" />
    <LedgerTable
      ref="table"
      :rows="rows"
      :selected="selected"
      :editing="editing"
      :field="field"
      @select="select"
      @field="chosen => (field = chosen)"
      @edit="editRow"
      @commit="commit"
      @cancel="editing = null"
    />
    <template #side>
      <RulePanel v-model:with-undated="withUndated" :item="current" :items="items">
        <WhyNote :item="current" :may-edit="mayEdit" @hold="hold" @let-go="letGo" @edit="edit" />
      </RulePanel>
      <UndatedWork :items="items" :may-edit="mayEdit" />
    </template>
    <template #foot>
      <FootBar v-if="totals" :totals="totals">
        <template #keys>
          <span><kbd>[</kbd> <kbd>]</kbd> a day</span>
          <span><kbd>p</kbd> hold</span>
          <span v-if="store.ledger?.summary.settle"><kbd>n</kbd> next to settle</span>
        </template>
        <NuxtLink class="act on-deep" :to="`/plans/${plan.id}/run`">On to Run ⟶</NuxtLink>
      </FootBar>
    </template>
  </StageFrame>
</template>
