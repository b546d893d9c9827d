<script setup lang="ts">
import type { CourseReply } from '~~/shared/api/courses'
import FootBar from '~/stages/FootBar.vue'
import ChosenPanel from '~/stages/date/ChosenPanel.vue'
import CrossingPicture from '~/stages/date/CrossingPicture.vue'
import FollowChoice from '~/stages/date/FollowChoice.vue'
import LedgerTable from '~/stages/date/LedgerTable.vue'
import LedgerTools from '~/stages/date/LedgerTools.vue'
import { ledgerSource } from '~/stages/date/source'
import { useLedgerWork } from '~/stages/date/work'
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
const table = useTemplateRef('table')
const tools = useTemplateRef('tools')
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
  meant,
  editing,
  field,
  commit,
  edit,
  editRow,
  narrowed,
  toLookAt,
  keys,
} = useLedgerWork({ table, tools }, { withUndated, isOpen: ref(true), base: source })
/** What is said of beside dates: the items as they are now, not as a run left them. */
const standing = computed(() => {
  const now = new Map(course.value.nodes.map(node => [node.lineage, node]))
  return meant.value.flatMap(item => {
    const node = now.get(item.lineage)
    return node ? [{ ...item, node }] : []
  })
})
useKeys([
  ...keys,
  { key: 'u', does: 'put its dates back as the run wrote them', run: hand.letGo },
  { key: 'ctrl+z', does: 'undo', run: () => void shell.undo() },
  { key: 'ctrl+shift+z', does: 'redo', run: () => void shell.redo() },
])
const totals = computed(() => {
  const { summary } = source.ledger ?? {}
  if (!summary) return []
  return [
    { count: summary.dates, words: summary.dates === 1 ? 'date' : 'dates' },
    ...(shell.isSinceRun.value ? [{ count: summary.held, words: 'of them changed since the run' }] : []),
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
          :crowded="null"
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
          @choose-shown="chooseAllOf(() => true)"
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
      </main>
      <aside class="side">
        <ProblemNote v-if="problem" :problem="problem">
          <button v-if="known" class="act plain" type="button" @click="problem = null">
            Close this note
          </button>
          <button v-else class="act plain" type="button" @click="shell.fetchKnown">Try again</button>
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
            @drop-out-of-sight="dropOutOfSight"
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
          <p v-if="isSection" class="small soft">
            All but its dates is changed in the course whose content this section shows.
          </p>
        </template>
        <p v-else class="small soft">
          Choose a row to change it.
          <template v-if="letterKeys">
            <kbd>j</kbd> and <kbd>k</kbd> go from row to row, <kbd>[</kbd> and <kbd>]</kbd> move it by a day,
            <kbd>e</kbd> edits its dates.
          </template>
        </p>
        <EditsList
          :edits="edits"
          :course="course.course"
          :since="course.lastRun?.id ?? null"
          :overtaken="overtaken"
          @take-back="shell.takeBack"
        />
        <RemovedThings
          v-if="!isSection"
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
