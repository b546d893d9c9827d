<script setup lang="ts">
import type { PlaceRow } from '~~/core/carry/places/row'
import { settleSum } from '~~/core/plan/to-settle'
import { useVirtualizer } from '@tanstack/vue-virtual'
import { useMediaQuery } from '@vueuse/core'
import { subtree } from '~~/core/course/outline'
import { arrivalWords } from '~~/core/plan/parts/carry'
import FootBar from '../FootBar.vue'
import StageFrame from '../StageFrame.vue'
import { useSelection } from '../date/selection'
import { useStagePlan } from '../plan/store'
import AddOwn from './AddOwn.vue'
import CarryAside from './CarryAside.vue'
import CarryPages from './CarryPages.vue'
import GradesStrip from './GradesStrip.vue'
import PlaceLine from './PlaceLine.vue'
import PlacePanel from './PlacePanel.vue'
import { headingsOfSources, linesWithHeadings, movedAmong, useShownRows, type ShownRow } from './carry'
import { useTypeAhead } from './tree-keys'

/** What comes across: the ledger of places, in the order that the shell will have. */
const { store, plan, document } = useStagePlan()
const mayEdit = computed(() => plan.value.may.edit)
const nodes = computed(() => store.nodes)
const text = ref('')
const uncategorised = computed(() => new Set(store.uncategorised.map(node => node.lineage)))
const isOpen = (row: PlaceRow): boolean =>
  row.settle || (row.source !== null && uncategorised.value.has(row.source.lineage))
const settleOnly = ref(false)
const collapsed = ref<ReadonlySet<string>>(new Set())
const sides = computed(() => [plan.value.source, ...plan.value.more])
/** What a row is marked with that comes from elsewhere than the first source. */
function tagOf(lineage: string): string | null {
  const at = sourceOf(lineage)
  const side = store.sides[at]
  if (!side) return 'new'
  return plan.value.more.length > 0 || at >= sides.value.length ? codeText(side.course) : null
}
const sourceOf = (lineage: string): number => store.carrying?.merged.from.get(lineage) ?? 0
const shown = useShownRows({
  rows: computed(() => store.rows),
  carried: computed(() => store.carried),
  text,
  settleOnly,
  isOpen,
  collapsed,
  from: tagOf,
})
const headings = computed(() =>
  plan.value.more.length > 0
    ? headingsOfSources(
        store.rows,
        store.carried,
        sourceOf,
        sides.value.map(({ course }) => `${courseText(course)}, ${course.term.name}`),
      )
    : [],
)
const lines = computed(() => linesWithHeadings(shown.value, headings.value, sourceOf))
const settling = computed(() => settleSum(store.toSettle, 'carry'))
/** Of what is to settle, that which has a row here; the rest stands in the grade rules. */
const openRows = computed(() => store.toSettle.places + store.toSettle.categories)

const list = ref<HTMLElement>()
const isNarrow = useMediaQuery('(max-width: 620px)')
// The same functions each time: what they measured stays while only what rows show changes.
const layout = {
  getScrollElement: () => list.value ?? null,
  getItemKey: (index: number) => lines.value[index]?.key ?? index,
}
const heightOf = computed(() => (isNarrow.value ? () => 84 : () => 31))
const count = computed(() => lines.value.length)
const virtual = useVirtualizer(
  computed(() => ({ ...layout, count: count.value, estimateSize: heightOf.value, overscan: 8 })),
)
const drawn = computed(() =>
  virtual.value.getVirtualItems().flatMap(({ index: at, start }) => {
    const line = lines.value[at]
    return line ? [{ line, at, place: { transform: `translateY(${start}px)` } }] : []
  }),
)
const visible = computed(() =>
  drawn.value.flatMap(({ line, at, place }) => {
    const each = line.heading ? undefined : shown.value[line.index]
    return each && !line.heading ? [{ each, index: line.index, at, place }] : []
  }),
)
const visibleHeadings = computed(() =>
  drawn.value.flatMap(({ line, at, place }) =>
    line.heading ? [{ key: line.key, heading: line.heading, at, place }] : [],
  ),
)
const measure = (row: unknown): void => {
  const element = (row as { $el?: HTMLElement } | null)?.$el
  if (element) virtual.value.measureElement(element)
}
const { selected, select, move, nextWhere } = useSelection(shown, lineage => {
  const index = lines.value.findIndex(each => each.key === lineage)
  if (index >= 0) virtual.value.scrollToIndex(index, { align: 'auto' })
})
/** Rows selected besides the one at hand, while shift extends. */
const extended = ref<ReadonlySet<string>>(new Set())
const at = (): number => shown.value.findIndex(each => each.lineage === selected.value)
const current = computed((): ShownRow | undefined =>
  shown.value.find(each => each.lineage === selected.value),
)
const cursorId = computed(() =>
  visible.value.some(({ each }) => each.lineage === selected.value) ? `place-${at()}` : undefined,
)
const isMarked = (key: string): boolean => key === selected.value || extended.value.has(key)
const marked = computed(() => new Set([...extended.value, ...(selected.value ? [selected.value] : [])]))
const chosenRows = computed(() => shown.value.filter(each => isMarked(each.lineage)))
function go(step: number): void {
  extended.value = new Set()
  move(step)
}
function extend(step: number): void {
  const from = selected.value
  move(step)
  if (from) extended.value = new Set([...extended.value, from])
}
function pick(key: string, event?: MouseEvent): void {
  extended.value =
    event?.shiftKey && selected.value ? new Set([...extended.value, selected.value]) : new Set()
  select(key)
}
/** Brings a row into sight even where it is filtered or folded away. */
function show(lineage: string): void {
  const row = store.rows.find(each => each.key === lineage || each.source?.lineage === lineage)
  if (!row) return
  text.value = ''
  settleOnly.value = false
  collapsed.value = new Set()
  void nextTick(() => pick(row.key))
}

const brought = ref<readonly string[]>([])
const below = (each: ShownRow): string[] =>
  each.row.source ? subtree(nodes.value, each.row.source.lineage) : []
function carryRows(rows: readonly ShownRow[], carries: boolean): void {
  if (mayEdit.value) brought.value = store.carry(rows.flatMap(below), carries)
}
function toggle(): void {
  const [first] = chosenRows.value
  if (!first || !mayEdit.value) return
  if (first.row.source) return carryRows(chosenRows.value, !first.carried)
  if (!first.row.shell || first.row.shell.fixed) return
  const fate = first.row.lineage === null ? 'stay' : 'remove'
  store.changeIn('places', { shell: { ...document.value.places.shell, [first.lineage]: fate } })
}
const all = computed(() => nodes.value.map(node => node.lineage))
function onlyThisUnit(): void {
  const unit = unitOf(current.value)
  if (!unit || !mayEdit.value) return
  const inside = new Set(subtree(nodes.value, unit))
  store.carry(
    all.value.filter(lineage => !inside.has(lineage)),
    false,
  )
  brought.value = store.carry([...inside], true)
}
function unitOf(each: ShownRow | undefined): string | null {
  const node = each?.row.source
  if (!node) return null
  return node.type === 'unit' ? node.lineage : node.unit
}
function fold(key: string, folds = !collapsed.value.has(key)): void {
  const next = new Set(collapsed.value)
  if (folds) next.add(key)
  else next.delete(key)
  collapsed.value = next
}
function foldCurrent(folds: boolean): void {
  const each = current.value
  if (each?.row.type === 'unit') return fold(each.lineage, folds)
  const unit = folds && shown.value.slice(0, at()).findLast(row => row.row.type === 'unit')
  if (unit) select(unit.lineage)
}
const units = computed(() => store.rows.filter(row => row.type === 'unit').map(row => row.key))
const isFolded = computed(() => units.value.length > 0 && units.value.every(key => collapsed.value.has(key)))
const foldAll = (): void => {
  collapsed.value = new Set(isFolded.value ? [] : units.value)
}
const typeAhead = useTypeAhead(shown, at, pick)
const focusFind = (): void => findBox.value?.focus()
const findBox = ref<{ focus: () => void }>()
const panel = ref<HTMLElement>()
const moveKey = (): void =>
  panel.value?.querySelector<HTMLElement>('[aria-label="Into which unit it goes"]')?.focus()

const nameKey = (): void =>
  panel.value?.querySelector<HTMLElement>('[aria-label="What it is called in the shell"]')?.focus()

/** What comes can be dragged onto a unit: it goes in there, with whatever is selected besides. */
const mayDrag = (each: ShownRow): boolean =>
  mayEdit.value && each.row.source !== null && ['adds', 'both'].includes(each.row.happens)
function drop(onto: ShownRow, key: string): void {
  const isAmong = chosenRows.value.some(row => row.lineage === key)
  const rows = isAmong ? chosenRows.value : shown.value.filter(row => row.lineage === key)
  const unit = onto.row.source?.lineage ?? onto.lineage
  const moved = rows.filter(mayDrag).flatMap(row => row.row.source?.lineage ?? [])
  const into = Object.fromEntries(moved.filter(lineage => lineage !== unit).map(lineage => [lineage, unit]))
  store.changeIn('places', { into: { ...document.value.places.into, ...into } })
}

function reorder(step: -1 | 1): void {
  if (!mayEdit.value) return
  // Several that are chosen go together: from the end that is moved towards, so that none gets in another's way.
  const keys = chosenRows.value.map(each => each.lineage)
  for (const key of step === 1 ? keys.reverse() : keys) {
    const row = store.rows.find(each => each.key === key)
    const after = row && movedAmong(store.rows, row, step)
    if (!after) return
    const { [after.key]: _, ...rest } = document.value.places.after
    // Moves are made one after another: the latest comes last.
    store.changeIn('places', { after: { ...rest, [after.key]: after.after } })
  }
}
const keysFor = (keys: string[], does: string, run: () => void) => keys.map(key => ({ key, does, run }))
useKeys([
  ...keysFor(['j', 'ArrowDown'], 'next row', () => go(1)),
  ...keysFor(['k', 'ArrowUp'], 'row before', () => go(-1)),
  ...keysFor(['J', 'shift+ArrowDown'], 'next row as well', () => extend(1)),
  ...keysFor(['ArrowLeft'], 'fold the unit', () => foldCurrent(true)),
  ...keysFor(['ArrowRight'], 'unfold the unit', () => foldCurrent(false)),
  { key: 'x', does: 'carry or leave this row', run: toggle },
  { key: ' ', does: 'carry or leave this row', hidden: true, run: toggle },
  { key: 'o', does: 'carry only this unit', run: onlyThisUnit },
  { key: 'm', does: 'move it into another unit', run: moveKey },
  { key: 'e', does: 'edit its name', run: nameKey },
  { key: 'ctrl+ArrowUp', does: 'move it up within its unit', run: () => reorder(-1) },
  { key: 'ctrl+ArrowDown', does: 'move it down within its unit', run: () => reorder(1) },
  { key: 'f', does: 'find by words', run: focusFind },
  { key: 'n', does: 'next to settle', run: () => nextWhere(each => isOpen(each.row)) },
])

const effect = computed(() => {
  const many = (...happens: string[]): number =>
    store.rows.filter(row => row.type === 'item' && happens.includes(row.happens)).length
  return {
    added: many('adds', 'both'),
    replaced: many('replaces'),
    updated: many('again'),
    filled: many('fills'),
    removed: many('removes', 'unfilled'),
    there: many('there'),
    left: store.counts.items - store.counts.carried,
  }
})
const totals = computed(() => [
  { count: effect.value.added, words: 'added' },
  ...(effect.value.replaced ? [{ count: effect.value.replaced, words: 'replaced' }] : []),
  ...(effect.value.updated ? [{ count: effect.value.updated, words: 'brought up to date' }] : []),
  ...(effect.value.filled ? [{ count: effect.value.filled, words: 'filled' }] : []),
  ...(effect.value.removed ? [{ count: effect.value.removed, words: 'removed' }] : []),
  ...(effect.value.there ? [{ count: effect.value.there, words: 'in the shell already' }] : []),
  { count: effect.value.left, words: 'stay behind' },
  ...(settling.value ? [{ count: settling.value, words: 'to settle', settle: true }] : []),
])
const arrivesText = ({ row }: ShownRow): string => {
  const lineage = row.source?.lineage ?? ''
  if (!row.source || row.type === 'unit' || !['adds', 'both', 'fills', 'replaces'].includes(row.happens))
    return ''
  const state = document.value.carry.states[lineage] ?? document.value.carry.arrive
  const asWas = row.source.state === 'visible' ? '' : row.source.state
  const words = state === 'as-was' ? asWas : arrivalWords[state]
  return [words, uncategorised.value.has(lineage) && 'no category'].filter(Boolean).join(', ')
}
/** What a row shows: while none of it changes, it is not drawn anew. */
const memoOf = (each: ShownRow) => {
  const { row, carried, collapsed: isFoldedIn, below: count } = each
  return [
    row.key,
    row.happens,
    row.settle,
    row.lineage,
    row.depth,
    carried,
    isFoldedIn,
    count?.carried,
    row.source,
    row.shell,
    row.parts.map(part => part.takes).join(),
    row.carries?.title,
    arrivesText(each),
    row.text?.isFrame,
    row.text?.questions?.takes.length,
  ]
}
const broughtText = computed(() => {
  const titles = new Map(nodes.value.map(node => [node.lineage, node.title]))
  const named = brought.value.flatMap(lineage => titles.get(lineage) ?? [])
  if (named.length === 0) return ''
  const more = named.length > 3 ? ` and ${named.length - 3} more` : ''
  return `Brought along, since it is needed: ${named.slice(0, 3).join(', ')}${more}.`
})
/** What the list is for whoever hears it; with nothing in it it is no tree, and nowhere to go. */
const asTree = {
  role: 'tree',
  'aria-label': 'Units and items of the course',
  'aria-multiselectable': true,
  tabindex: 0,
} as const
</script>

<template>
  <StageFrame flush>
    <CarryPages />
    <div class="head">
      <ElInput
        ref="findBox"
        v-model="text"
        class="filter"
        placeholder="find by words"
        clearable
        aria-label="Find an item by its words"
      />
      <label v-if="openRows || settleOnly" class="small settle-only">
        <ElCheckbox v-model="settleOnly">only the {{ openRows }} to settle</ElCheckbox>
      </label>
      <span class="spring" />
      <button class="link" type="button" @click="foldAll">
        {{ isFolded ? 'Unfold all units' : 'Fold all units' }}
      </button>
      <button class="link" type="button" :disabled="!mayEdit" @click="brought = store.carry(all, true)">
        Carry everything
      </button>
      <button class="link" type="button" :disabled="!mayEdit" @click="store.carry(all, false)">
        Carry nothing
      </button>
    </div>
    <GradesStrip :plan-id="plan.id" />
    <p v-if="broughtText" class="brought small" role="status">
      {{ broughtText }} <button class="link" type="button" @click="store.undo()">Take that back</button>
    </p>
    <div class="columns caps" aria-hidden="true">
      <span>From</span><span class="middle">What happens</span><span>The shell will hold</span>
    </div>
    <div
      ref="list"
      class="list"
      v-bind="shown.length ? asTree : {}"
      :aria-activedescendant="cursorId"
      @keydown="typeAhead"
    >
      <div :style="{ height: `${virtual.getTotalSize()}px`, position: 'relative' }">
        <!-- What it says stands in the rows too. -->
        <div
          v-for="{ key, heading, at: line, place } in visibleHeadings"
          :key="key"
          class="source"
          :style="place"
          :data-index="line"
          aria-hidden="true"
        >
          <b>{{ heading.title }}</b>
          <span class="soft small">
            {{ heading.carried }} of {{ counted(heading.items, 'item') }} · {{ sizeText(heading.size) }}
          </span>
        </div>
        <PlaceLine
          v-for="{ each, index, at: line, place } in visible"
          :id="`place-${index}`"
          :key="each.lineage"
          :ref="isNarrow ? measure : undefined"
          v-memo="[...memoOf(each), isMarked(each.lineage), index, line, place.transform, mayEdit]"
          :data-index="line"
          :shown="each"
          :may-edit="mayEdit"
          :arrives="arrivesText(each)"
          :aria-selected="isMarked(each.lineage)"
          :class="{ cursor: isMarked(each.lineage) }"
          :style="place"
          :may-drag="mayDrag(each)"
          @click="pick(each.lineage, $event)"
          @carry="carried => carryRows([each], carried)"
          @fold="fold(each.lineage)"
          @dropped="key => drop(each, key)"
        />
      </div>
    </div>
    <p v-if="!nodes.length" class="empty soft">
      This course holds nothing to carry. Choose another source in
      <NuxtLink :to="`/plans/${plan.id}/pair`">Pair</NuxtLink>.
    </p>
    <p v-else-if="!shown.length && text" class="empty soft">Nothing here has the words “{{ text }}”.</p>
    <p v-else-if="!shown.length" class="empty soft">Nothing is left to settle.</p>
    <template #side>
      <div ref="panel">
        <PlacePanel
          v-if="current"
          :shown="current"
          :may-edit="mayEdit"
          :together="chosenRows.filter(mayDrag)"
          @reorder="reorder"
        />
      </div>
      <AddOwn :may-edit="mayEdit" :current="current" @show="show" />
      <CarryAside :may-edit="mayEdit" :selected="marked" @show="show" />
    </template>
    <template #foot>
      <FootBar :totals="totals">
        <template #keys>
          <span><kbd>x</kbd> carry or leave</span><span><kbd>m</kbd> move</span>
          <span v-if="openRows"><kbd>n</kbd> next to settle</span>
        </template>
        <NuxtLink class="act on-deep" :to="`/plans/${plan.id}/clear`">On to Clear ⟶</NuxtLink>
      </FootBar>
    </template>
  </StageFrame>
</template>

<style scoped>
.head {
  display: flex;
  align-items: center;
  gap: 8px 16px;
  margin-bottom: 8px;
  flex-wrap: wrap;
}
.filter {
  width: 170px;
}
.spring {
  flex: 1;
}
.brought {
  margin: 0 0 6px;
}
.columns,
.list {
  --places: minmax(0, 1fr) 176px minmax(0, 1fr);
}
.columns {
  display: grid;
  grid-template-columns: var(--places);
  column-gap: 8px;
  padding: 0 8px 5px 22px;
  border-bottom: 1.5px solid var(--rule-strong);
}
.columns .middle {
  text-align: center;
}
.list {
  flex: 1;
  min-height: 0;
  overflow: auto;
  outline-offset: -2px;
}
.source {
  position: absolute;
  left: 0;
  right: 0;
  height: 31px;
  display: flex;
  align-items: flex-end;
  gap: 10px;
  padding: 0 8px 4px 2px;
  border-bottom: 1.5px solid var(--rule-strong);
}
.place-line {
  position: absolute;
  left: 0;
  right: 0;
  min-height: 31px;
  border-bottom: 1px solid var(--rule);
}
.place-line.cursor {
  background: var(--tide-wash);
}
.place-line.over {
  outline: 2px solid var(--tide);
  outline-offset: -2px;
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
@media (max-width: 620px) {
  .columns {
    display: none;
  }
}
</style>
