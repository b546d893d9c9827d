<script setup lang="ts">
import BetterWay from './BetterWay.vue'
import { dateFields, type DateField, type ItemDates } from '~~/core/course/dates'
import type { SheetReply } from '~~/shared/api/plans'
import FootBar from '../FootBar.vue'
import StageFrame from '../StageFrame.vue'
import { useStagePlan } from '../plan/store'
import ChosenPanel from './ChosenPanel.vue'
import ClassStart from './ClassStart.vue'
import CrossingPicture from './CrossingPicture.vue'
import EaseLimits from './EaseLimits.vue'
import EaseView from './EaseView.vue'
import FollowChoice from './FollowChoice.vue'
import GraceAllowances from './GraceAllowances.vue'
import GradingPeriods from './GradingPeriods.vue'
import PeriodChoice from './PeriodChoice.vue'
import LedgerTable from './LedgerTable.vue'
import LedgerTools from './LedgerTools.vue'
import RulePanel from './RulePanel.vue'
import SectionsNote from './SectionsNote.vue'
import SheetBack from './SheetBack.vue'
import SheetChanges from './SheetChanges.vue'
import SourceSpan from './SourceSpan.vue'
import UndatedWork from './UndatedWork.vue'
import WhyNote from './WhyNote.vue'
import { useCrowding } from './crowding'
import { useHand } from './hand'
import type { LedgerItem } from './ledger'
import { useSelection } from './selection'
import { useLedger, useLedgerView, wantsLooking } from './view'

const { store, plan } = useStagePlan()
const mayEdit = computed(() => plan.value.may.edit)
const withUndated = ref(false)
const { find, kind, unit, onlySettle, order, view, isNarrowed, showAll } = useLedgerView()
const { items, inView, rows, units } = useLedger(withUndated, view, order)
const table = ref<InstanceType<typeof LedgerTable>>()
const tools = ref<InstanceType<typeof LedgerTools>>()
const editing = ref<string | null>(null)
const shownItems = computed(() => rows.value.filter((row): row is LedgerItem => row.type === 'item'))
const { selected, chosen, select, move, nextWhere, choose, toggle, chooseTo, extend } = useSelection(
  shownItems,
  lineage => {
    if (editing.value !== lineage) editing.value = null
    void nextTick(() => table.value?.show(lineage))
  },
)
const current = computed(() => items.value.find(item => item.lineage === selected.value) ?? null)
/** In the order in which they are shown; what is not shown at the moment stays chosen and comes last. */
const chosenItems = computed(() => {
  if (chosen.value.size === 0) return []
  const shown = shownItems.value.filter(item => chosen.value.has(item.lineage))
  const isShown = new Set(shown.map(item => item.lineage))
  return [
    ...shown,
    ...items.value.filter(item => chosen.value.has(item.lineage) && !isShown.has(item.lineage)),
  ]
})
/** Chosen under an earlier filter, and out of sight now: they change with the others. */
const outOfSight = computed(() => {
  if (chosen.value.size === 0) return 0
  const inSight = shownItems.value.filter(item => chosen.value.has(item.lineage)).length
  return chosenItems.value.length - inSight
})
const dropOutOfSight = (): void => chooseAllOf(item => chosen.value.has(item.lineage))
const show = useAddressed('show')
const isEasing = computed(() => show.value === 'crowded')
/** A sheet that came back, until it is taken or left. */
const sheet = shallowRef<{ reply: SheetReply; file: string } | null>(null)
const isLedger = computed(() => !isEasing.value && !sheet.value)
/** What a change is for: the chosen items, else the one that is looked at; nothing where the ledger is out of sight. */
const meant = computed(() => {
  if (!mayEdit.value || !isLedger.value) return []
  return chosenItems.value.length > 0 || !current.value ? chosenItems.value : [current.value]
})
const hand = useHand(items, meant)
/** What stands beside the ledger follows it by a frame. */
const later = useAfterPaint(() => items.value)
const laterChosen = useAfterPaint(() => chosenItems.value)
const ease = useCrowding(later)
function takeSheet(dates: ReadonlyMap<string, ItemDates | null>): void {
  store.holdAll(dates)
  sheet.value = null
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
const nudge = (days: number): void => hand.move(days, chosen.value.size > 0 ? null : field.value)
function commit(lineage: string, dates: ItemDates): void {
  hand.holdAt(lineage, dates)
  editing.value = null
}
function edit(): void {
  if (mayEdit.value && isLedger.value && current.value) editing.value = current.value.lineage
}
function editRow(lineage: string): void {
  select(lineage)
  edit()
}
/** Settles items with a choice; who was on the one goes on to the next. */
function settle(dates: ReadonlyMap<string, ItemDates>): void {
  hand.put(dates)
  nextWhere(item => wantsLooking(item) && !dates.has(item.lineage))
}
const chooseAllOf = (is: (item: LedgerItem) => boolean): void =>
  choose(shownItems.value.filter(is).map(item => item.lineage))
function turnSettle(): void {
  onlySettle.value = !onlySettle.value
}
function turnEase(): void {
  show.value = isEasing.value ? '' : 'crowded'
}
function toggleCurrent(): void {
  if (current.value) toggle(current.value.lineage)
}
useKeys([
  ...keysFor(['j', 'ArrowDown'], 'next row', () => move(1)),
  ...keysFor(['k', 'ArrowUp'], 'row before', () => move(-1)),
  ...keysFor(['ArrowRight'], 'one date of the row alone', () => turn(1)),
  ...keysFor(['ArrowLeft'], 'the date before it', () => turn(-1)),
  { key: 'x', does: 'choose this row, or not', run: toggleCurrent },
  { key: ' ', does: 'choose this row, or not', hidden: true, run: toggleCurrent },
  ...keysFor(['J', 'shift+ArrowDown'], 'choose the next row as well', () => extend(1)),
  ...keysFor(['K', 'shift+ArrowUp'], 'choose the row before as well', () => extend(-1)),
  { key: 'ctrl+a', does: 'choose all that is shown', run: () => chooseAllOf(() => true) },
  {
    key: 'X',
    does: 'choose all of its kind',
    run: () => chooseAllOf(item => item.node.kind === current.value?.node.kind),
  },
  { key: 'Escape', does: 'choose none', run: () => chosen.value.size > 0 && choose([]) },
  { key: 's', does: 'only what is to settle', run: turnSettle },
  { key: 'c', does: 'crowded days', run: turnEase },
  { key: 'f', does: 'find items by words', run: () => tools.value?.focus() },
  { key: 'n', does: 'next to settle', run: () => nextWhere(wantsLooking) },
  { key: 'e', does: 'edit its dates', run: edit },
  { key: 'Enter', does: 'edit its dates', hidden: true, run: edit },
  { key: 'p', does: 'hold it where it is', run: hand.hold },
  { key: 'u', does: 'let it go', run: hand.letGo },
  { key: '[', does: 'a day earlier', run: () => nudge(-1) },
  { key: ']', does: 'a day later', run: () => nudge(1) },
  { key: '{', does: 'a week earlier', run: () => nudge(-7) },
  { key: '}', does: 'a week later', run: () => nudge(7) },
])

const narrowed = computed(() => {
  if (!isNarrowed.value) return 'no'
  return onlySettle.value && !(find.value || kind.value || unit.value) ? 'settle' : 'some'
})
const toLookAt = computed(() => items.value.filter(wantsLooking).length)
const totals = computed(() => {
  const { summary, toSettle } = store
  if (!summary) return null
  const notes = store.ledger?.findings.size ?? 0
  const { dates, straight, moved, held, none } = summary
  return [
    { count: dates, words: 'dates' },
    { count: straight, words: 'straight across' },
    { count: moved, words: 'moved' },
    { count: held, words: 'held' },
    ...(none ? [{ count: none, words: 'taken away' }] : []),
    { count: toSettle.dates, words: 'to settle', settle: true },
    ...(notes > 0 ? [{ count: notes, words: 'to look at', settle: true }] : []),
    ...(toSettle.periods > 0
      ? [{ count: toSettle.periods, words: 'without a grading period', settle: true }]
      : []),
  ]
})
</script>

<template>
  <StageFrame flush>
    <SheetChanges
      v-if="sheet"
      :reply="sheet.reply"
      :file="sheet.file"
      @take="takeSheet"
      @leave="sheet = null"
    />
    <EaseView
      v-else-if="isEasing"
      :items="items"
      :ease="ease"
      :may-edit="mayEdit"
      @hold="dates => hand.put(dates)"
      @close="show = ''"
    />
    <CrossingPicture
      v-if="isLedger"
      :items="inView"
      :selected="selected"
      :chosen="chosen"
      :may-edit="mayEdit"
      may-ease
      :crowded="ease.crowded.value.days"
      @select="select"
      @choose="(found, adds) => choose(adds ? [...chosen, ...found] : found)"
      @move="hand.moveItems"
      @ease="show = 'crowded'"
    />
    <LedgerTools
      v-if="isLedger"
      ref="tools"
      v-model:find="find"
      v-model:kind="kind"
      v-model:unit="unit"
      v-model:only-settle="onlySettle"
      :items="later"
      :units="units"
      :shown="shownItems.length"
      :chosen="chosen.size"
      :settle="toLookAt"
      :is-narrowed="isNarrowed"
      @choose-shown="chooseAllOf(() => true)"
      @choose-none="choose([])"
      @show-all="showAll"
    />
    <LedgerTable
      v-if="isLedger"
      ref="table"
      :rows="rows"
      :selected="selected"
      :chosen="chosen"
      :editing="editing"
      :field="field"
      :order="order"
      :narrowed="narrowed"
      @select="select"
      @choose="toggle"
      @choose-to="chooseTo"
      @order="by => (order = by)"
      @show-all="showAll"
      @field="one => (field = one)"
      @edit="editRow"
      @commit="commit"
      @cancel="editing = null"
    />
    <template #side>
      <div class="halves">
        <EaseLimits v-if="isEasing" :items="items" :ease="ease" :may-edit="mayEdit" />
        <div v-if="!isEasing" class="rules">
          <BetterWay />
          <ClassStart />
          <SectionsNote />
          <RulePanel v-model:with-undated="withUndated" :item="current" :items="later" :chosen="laterChosen">
            <SheetBack @compared="(reply, file) => (sheet = { reply, file })" />
          </RulePanel>
          <SourceSpan :items="later" :may-edit="mayEdit" />
          <UndatedWork :items="later" :may-edit="mayEdit" />
          <GradingPeriods :items="later" :may-edit="mayEdit" @select="select" />
          <GraceAllowances :may-edit="mayEdit" />
        </div>
        <div v-if="!isEasing" class="looked-at">
          <p v-if="hand.refused.value" class="note fault" role="alert">{{ hand.refused.value }}</p>
          <ChosenPanel
            v-if="chosenItems.length && mayEdit"
            :chosen="chosenItems"
            :out-of-sight="outOfSight"
            :current="current"
            :hand="hand"
            @none="choose([])"
            @drop-out-of-sight="dropOutOfSight"
          >
            <PeriodChoice :items="chosenItems" :may-edit="mayEdit" />
          </ChosenPanel>
          <WhyNote
            v-else
            :item="current"
            :may-edit="mayEdit"
            @hold="hand.hold"
            @let-go="hand.letGo"
            @edit="edit"
            @settle="settle"
          >
            <FollowChoice v-if="mayEdit" v-model="hand.following.value" label="It moves" />
            <PeriodChoice v-if="current" :items="[current]" :may-edit="mayEdit" />
          </WhyNote>
        </div>
      </div>
    </template>
    <template #foot>
      <FootBar v-if="totals" :totals="totals">
        <template #keys>
          <span><kbd>[</kbd> <kbd>]</kbd> a day</span>
          <span><kbd>x</kbd> choose</span>
          <span><kbd>p</kbd> hold</span>
          <span v-if="store.toSettle.dates"><kbd>n</kbd> next to settle</span>
        </template>
        <NuxtLink class="act on-deep" :to="`/plans/${plan.id}/run`">On to Run ⟶</NuxtLink>
      </FootBar>
    </template>
  </StageFrame>
</template>

<style scoped>
/* What one looks at stands at the foot of the column, wherever the rules above it are scrolled to. */
.halves {
  height: 100%;
  display: flex;
  flex-direction: column;
  gap: 10px;
}
.rules {
  flex: 1 1 45%;
  min-height: 0;
  overflow: auto;
  margin-right: -18px;
  padding-right: 18px;
}
.looked-at {
  flex: 0 1 auto;
  max-height: 62%;
  overflow: auto;
}
@media (max-width: 900px) {
  .halves {
    height: auto;
  }
  .rules,
  .looked-at {
    overflow: visible;
    max-height: none;
  }
  .looked-at {
    order: -1;
  }
}
</style>
