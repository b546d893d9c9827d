<script setup lang="ts">
import { dayOf, isDateTime, isoOf } from '~~/core/calendar/day'
import type { SlotValues } from '~~/core/dates/plan'
import FootBar from '../FootBar.vue'
import StageFrame from '../StageFrame.vue'
import { usePlan } from '../plan'
import CrossingPicture from './CrossingPicture.vue'
import LedgerTable from './LedgerTable.vue'
import RulePanel from './RulePanel.vue'
import WhyNote from './WhyNote.vue'
import { useLedger, type LedgerItem } from './ledger'

const store = usePlan()
const route = useRoute()
const router = useRouter()
const plan = computed(() => store.plan!)
const withUndated = ref(false)
const { items, rows } = useLedger(withUndated)
const table = ref<InstanceType<typeof LedgerTable>>()
const editing = ref<string | null>(null)

// The selected item is in the address too, so that it survives a refresh and can be sent to a colleague. What is pressed
// next must not wait for the address to change.
const inAddress = (): string | null => (route.query.item ? String(route.query.item) : null)
const selected = ref(inAddress())
watch(selected, value => void router.replace({ query: { ...route.query, item: value ?? undefined } }))
watch(
  () => route.query.item,
  () => {
    selected.value = inAddress()
  },
)
const selectable = computed(() => rows.value.filter((row): row is LedgerItem => row.type === 'item'))
const current = computed(() => items.value.find(item => item.node.lineage === selected.value) ?? null)
function select(lineage: string | null): void {
  if (editing.value && editing.value !== lineage) editing.value = null
  selected.value = lineage
  if (lineage) void nextTick(() => table.value?.show(lineage))
}
function move(step: number): void {
  const at = selectable.value.findIndex(item => item.node.lineage === selected.value)
  const next = selectable.value[at < 0 ? 0 : Math.max(0, Math.min(selectable.value.length - 1, at + step))]
  if (next) select(next.node.lineage)
}
function nextToSettle(): void {
  const at = selectable.value.findIndex(item => item.node.lineage === selected.value)
  const next = [...selectable.value.slice(at + 1), ...selectable.value.slice(0, at + 1)].find(
    item => item.settle,
  )
  if (next) select(next.node.lineage)
}
const asItStands = ({ planned }: LedgerItem): SlotValues => ({
  opens: planned.opens,
  due: planned.due,
  closes: planned.closes,
})
function hold(): void {
  if (current.value && plan.value.may.edit) store.hold(current.value.node.lineage, asItStands(current.value))
}
function letGo(): void {
  if (current.value?.held && plan.value.may.edit) store.hold(current.value.node.lineage, null)
}
/** Moves the due date (or else the opening) by days, its time kept, and holds it there. */
function nudge(days: number): void {
  if (!current.value || !plan.value.may.edit) return
  const dates = asItStands(current.value)
  const slot = dates.due ? 'due' : dates.opens ? 'opens' : 'closes'
  const at = dates[slot]
  if (at)
    store.hold(current.value.node.lineage, { ...dates, [slot]: `${isoOf(dayOf(at) + days)}${at.slice(10)}` })
}
function commit(lineage: string, dates: SlotValues): void {
  if (Object.values(dates).every(value => value === null || isDateTime(value))) store.hold(lineage, dates)
  editing.value = null
}
function edit(): void {
  if (current.value && plan.value.may.edit) editing.value = current.value.node.lineage
}
useKeys([
  ...['j', 'ArrowDown'].map(key => ({ key, does: 'next row', run: () => move(1) })),
  ...['k', 'ArrowUp'].map(key => ({ key, does: 'row before', run: () => move(-1) })),
  { key: 'n', does: 'next to settle', run: nextToSettle },
  { key: 'e', does: 'edit its dates', run: edit },
  { key: 'Enter', does: 'edit its dates', hidden: true, run: edit },
  { key: 'p', does: 'hold it where it is', run: hold },
  { key: 'u', does: 'let it go', run: letGo },
  { key: '[', does: 'a day earlier', run: () => nudge(-1) },
  { key: ']', does: 'a day later', run: () => nudge(1) },
  { key: '{', does: 'a week earlier', run: () => nudge(-7) },
  { key: '}', does: 'a week later', run: () => nudge(7) },
])
onMounted(() => {
  if (selected.value) select(selected.value)
})
const summary = computed(() => store.ledger?.summary)
</script>

<template>
  <StageFrame flush>
    <CrossingPicture :items="items" :selected="selected" @select="select" />
    <LedgerTable
      ref="table"
      :rows="rows"
      :selected="selected"
      :editing="editing"
      :may-edit="plan.may.edit"
      @select="select"
      @edit="
        (lineage: string) => {
          select(lineage)
          edit()
        }
      "
      @commit="commit"
      @cancel="editing = null"
    />
    <template #side>
      <RulePanel v-model:with-undated="withUndated"
        ><WhyNote :item="current" :may-edit="plan.may.edit" @hold="hold" @let-go="letGo" @edit="edit"
      /></RulePanel>
    </template>
    <template #foot>
      <FootBar
        v-if="summary"
        :totals="[
          { count: summary.dates, words: 'dates' },
          { count: summary.straight, words: 'straight across' },
          { count: summary.moved, words: 'moved' },
          { count: summary.held, words: 'held' },
          ...(summary.none ? [{ count: summary.none, words: 'taken away' }] : []),
          { count: summary.settle, words: 'to settle', settle: true },
        ]"
      >
        <template #keys
          ><span><kbd>[</kbd> <kbd>]</kbd> a day</span><span><kbd>p</kbd> hold</span
          ><span v-if="summary.settle"><kbd>n</kbd> next to settle</span></template
        >
        <NuxtLink class="act on-deep" :to="`/plans/${plan.id}/run`">On to Run ⟶</NuxtLink>
      </FootBar>
    </template>
  </StageFrame>
</template>
