<script setup lang="ts">
import { dateFields, type DateField, type ItemDates } from '~~/core/course/dates'
import type { CourseReply } from '~~/shared/api/courses'
import FootBar from '~/stages/FootBar.vue'
import ChosenPanel from '~/stages/date/ChosenPanel.vue'
import CrossingPicture from '~/stages/date/CrossingPicture.vue'
import FollowChoice from '~/stages/date/FollowChoice.vue'
import LedgerTable from '~/stages/date/LedgerTable.vue'
import LedgerTools from '~/stages/date/LedgerTools.vue'
import { useHand } from '~/stages/date/hand'
import type { LedgerItem } from '~/stages/date/ledger'
import { useSelection } from '~/stages/date/selection'
import { ledgerSource } from '~/stages/date/source'
import { useLedger, useLedgerView, wantsLooking } from '~/stages/date/view'
import EditsList from './EditsList.vue'
import LookedAt from './LookedAt.vue'
import RemovedThings from './RemovedThings.vue'
import ThingPanel from './ThingPanel.vue'
import { useShellLedger } from './shell-source'

/** A shell as it stands, to go on in: the ledger of the Date stage, and everything else that can be said of a unit or item. */
const props = defineProps<{ refresh: () => Promise<void> }>()
const course = defineModel<CourseReply>({ required: true })
const shell = useShellLedger(course, () => props.refresh())
const { source, known, edits, problem, saving, overtaken } = shell
provide(ledgerSource, source)

const isSection = computed(() => course.value.course.sharesWith !== null)
const withUndated = ref(true)
const { find, kind, unit, onlySettle, order, view, isNarrowed, showAll } = useLedgerView()
const { items, inView, rows, units } = useLedger(withUndated, view, order, source)
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
const chosenItems = computed(() => items.value.filter(item => chosen.value.has(item.lineage)))
const inSight = computed(() => new Set(shownItems.value.map(item => item.lineage)))
const outOfSight = computed(
  () => chosenItems.value.filter(({ lineage }) => !inSight.value.has(lineage)).length,
)
const meant = computed(() =>
  chosenItems.value.length > 0 || !current.value ? chosenItems.value : [current.value],
)
/** What is said of beside dates: the items as they are now, not as a run left them. */
const standing = computed(() => {
  const now = new Map(course.value.nodes.map(node => [node.lineage, node]))
  return meant.value.flatMap(item => {
    const node = now.get(item.lineage)
    return node ? [{ ...item, node }] : []
  })
})
const hand = useHand(items, meant, source)

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
  if (current.value) editing.value = current.value.lineage
}
function editRow(lineage: string): void {
  select(lineage)
  edit()
}
function toggleCurrent(): void {
  if (current.value) toggle(current.value.lineage)
}
const chooseAll = (): void => choose(shownItems.value.map(item => item.lineage))
useKeys([
  ...keysFor(['j', 'ArrowDown'], 'next row', () => move(1)),
  ...keysFor(['k', 'ArrowUp'], 'row before', () => move(-1)),
  ...keysFor(['ArrowRight'], 'one date of the row alone', () => turn(1)),
  ...keysFor(['ArrowLeft'], 'the date before it', () => turn(-1)),
  { key: 'x', does: 'choose this row, or not', run: toggleCurrent },
  { key: ' ', does: 'choose this row, or not', hidden: true, run: toggleCurrent },
  ...keysFor(['J', 'shift+ArrowDown'], 'choose the next row as well', () => extend(1)),
  ...keysFor(['K', 'shift+ArrowUp'], 'choose the row before as well', () => extend(-1)),
  { key: 'ctrl+a', does: 'choose all that is shown', run: chooseAll },
  { key: 'Escape', does: 'choose none', run: () => chosen.value.size > 0 && choose([]) },
  { key: 'f', does: 'find items by words', run: () => tools.value?.focus() },
  { key: 'n', does: 'next to look at', run: () => nextWhere(wantsLooking) },
  { key: 'e', does: 'edit its dates', run: edit },
  { key: 'Enter', does: 'edit its dates', hidden: true, run: edit },
  { key: 'u', does: 'put its dates back as the run wrote them', run: hand.letGo },
  { key: '[', does: 'a day earlier', run: () => nudge(-1) },
  { key: ']', does: 'a day later', run: () => nudge(1) },
  { key: '{', does: 'a week earlier', run: () => nudge(-7) },
  { key: '}', does: 'a week later', run: () => nudge(7) },
  { key: 'ctrl+z', does: 'undo', run: () => void shell.undo() },
  { key: 'ctrl+shift+z', does: 'redo', run: () => void shell.redo() },
])
const toLookAt = computed(() => items.value.filter(wantsLooking).length)
const totals = computed(() => {
  const { summary } = source.ledger ?? {}
  if (!summary) return []
  return [
    { count: summary.dates, words: summary.dates === 1 ? 'date' : 'dates' },
    { count: summary.held, words: 'of them changed since the run' },
    ...(toLookAt.value > 0 ? [{ count: toLookAt.value, words: 'to look at', settle: true }] : []),
  ]
})
const savedText = computed(() => (saving.value ? 'Saving …' : 'What you change counts at once'))
</script>

<template>
  <div class="shell">
    <section class="head" aria-label="The course"><slot name="head" /></section>
    <div class="frame">
      <main class="middle">
        <CrossingPicture
          :items="inView"
          :selected="selected"
          :chosen="chosen"
          may-edit
          :crowded="[]"
          :may-ease="false"
          @select="select"
          @choose="(found, adds) => choose(adds ? [...chosen, ...found] : found)"
          @move="hand.moveItems"
        />
        <LedgerTools
          ref="tools"
          v-model:find="find"
          v-model:kind="kind"
          v-model:unit="unit"
          v-model:only-settle="onlySettle"
          :items="items"
          :units="units"
          :shown="shownItems.length"
          :chosen="chosen.size"
          :settle="toLookAt"
          :is-narrowed="isNarrowed"
          only="only to look at"
          @choose-shown="chooseAll"
          @choose-none="choose([])"
          @show-all="showAll"
        />
        <LedgerTable
          ref="table"
          :rows="rows"
          :selected="selected"
          :chosen="chosen"
          :editing="editing"
          :field="field"
          :order="order"
          :narrowed="isNarrowed ? 'some' : 'no'"
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
      </main>
      <aside class="side">
        <ProblemNote v-if="problem" :problem="problem">
          <button class="act plain" type="button" @click="problem = null">Close this note</button>
        </ProblemNote>
        <p v-if="hand.refused.value" class="note fault" role="alert">{{ hand.refused.value }}</p>
        <template v-if="meant.length">
          <ChosenPanel
            v-if="chosenItems.length"
            :chosen="chosenItems"
            :out-of-sight="outOfSight"
            :current="current"
            :hand="hand"
            @none="choose([])"
            @drop-out-of-sight="
              choose(chosenItems.filter(({ lineage }) => inSight.has(lineage)).map(({ lineage }) => lineage))
            "
          />
          <LookedAt
            v-else-if="current"
            :item="current"
            @let-go="hand.letGo"
            @edit="edit"
            @order="dates => current && hand.put(new Map([[current.lineage, dates]]))"
          >
            <FollowChoice v-model="hand.following.value" label="It moves" />
          </LookedAt>
          <ThingPanel
            v-if="!isSection && standing.length"
            :items="standing"
            :course="course"
            :known="known"
            @change="shell.change"
          />
          <p v-else class="small soft">
            All but its dates is changed in the course whose content this section shows.
          </p>
        </template>
        <p v-else class="small soft">
          Choose a row to change it. <kbd>j</kbd> and <kbd>k</kbd> go from row to row, <kbd>[</kbd> and
          <kbd>]</kbd> move it by a day, <kbd>e</kbd> edits its dates.
        </p>
        <EditsList
          :edits="edits"
          :course="course.course"
          :since="course.lastRun?.id ?? null"
          :overtaken="overtaken"
          @take-back="shell.takeBack"
        />
        <RemovedThings
          :removed="known?.removed ?? []"
          @bring-back="lineage => shell.change({ [lineage]: { state: 'visible' } })"
        />
        <slot name="side" />
      </aside>
    </div>
    <FootBar :totals="totals">
      <template #keys>
        <span><kbd>[</kbd> <kbd>]</kbd> a day</span>
        <span><kbd>e</kbd> edit</span>
        <span><kbd>x</kbd> choose</span>
        <span><kbd>ctrl z</kbd> undo</span>
      </template>
      <span role="status" class="small">{{ savedText }}</span>
    </FootBar>
  </div>
</template>

<style scoped>
.shell {
  height: 100%;
  display: flex;
  flex-direction: column;
}
.head {
  padding: 8px var(--gutter) 0;
}
.head :deep(.choice-line) {
  width: 100%;
  margin: 2px 0 0;
}
.frame {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr) var(--side);
}
.middle {
  min-height: 0;
  overflow: hidden;
  padding: 10px var(--gutter) 0;
  display: flex;
  flex-direction: column;
}
.side {
  border-left: 1px solid var(--rule);
  padding: 14px 18px;
  overflow: auto;
  display: grid;
  gap: 12px;
  align-content: start;
}
@media (max-width: 900px) {
  .shell {
    height: auto;
    min-height: 100%;
  }
  .frame {
    grid-template-columns: minmax(0, 1fr);
  }
  .middle {
    height: 80vh;
  }
  .side {
    border-left: 0;
    border-top: 1px solid var(--rule);
    overflow: visible;
  }
}
</style>
