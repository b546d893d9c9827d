<script setup lang="ts">
import BetterWay from './BetterWay.vue'
import type { ItemDates } from '~~/core/course/dates'
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
import { wantsLooking } from './view'
import { useLedgerWork } from './work'

const { store, plan } = useStagePlan()
const mayEdit = computed(() => plan.value.may.edit)
const withUndated = ref(false)
const show = useAddressed('show')
const isEasing = computed(() => show.value === 'crowded')
/** A sheet that came back, until it is taken or left. */
const sheet = shallowRef<{ reply: SheetReply; file: string } | null>(null)
const isLedger = computed(() => !isEasing.value && !sheet.value)
const table = useTemplateRef('table')
const tools = useTemplateRef('tools')
const isOpen = computed(() => mayEdit.value && isLedger.value)
const {
  find,
  kind,
  unit,
  onlySettle,
  order,
  isNarrowed,
  showAll,
  items,
  inView,
  rows,
  units,
  selected,
  chosen,
  select,
  nextWhere,
  choose,
  toggle,
  chooseTo,
  shownItems,
  current,
  chosenItems,
  outOfSight,
  chooseAllOf,
  dropOutOfSight,
  hand,
  editing,
  field,
  commit,
  edit,
  editRow,
  narrowed,
  toLookAt,
  keys,
} = useLedgerWork({ table, tools }, { withUndated, isOpen })
/** What stands beside the ledger follows it by a frame. */
const later = useAfterPaint(() => items.value)
const laterChosen = useAfterPaint(() => chosenItems.value)
const ease = useCrowding(later)
function takeSheet(dates: ReadonlyMap<string, ItemDates | null>): void {
  store.holdAll(dates)
  sheet.value = null
}

/** Settles items with a choice; who was on the one goes on to the next. */
function settle(dates: ReadonlyMap<string, ItemDates>): void {
  hand.put(dates)
  nextWhere(item => wantsLooking(item) && !dates.has(item.lineage))
}
function turnSettle(): void {
  onlySettle.value = !onlySettle.value
}
function turnEase(): void {
  show.value = isEasing.value ? '' : 'crowded'
}
useKeys([
  ...keys,
  { key: 's', does: 'only what is to settle', run: turnSettle },
  { key: 'c', does: 'crowded days', run: turnEase },
  { key: 'p', does: 'hold it where it is', run: hand.hold },
  { key: 'u', does: 'let it go', run: hand.letGo },
])

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
