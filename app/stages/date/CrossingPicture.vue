<script setup lang="ts">
import { useElementSize, useMediaQuery } from '@vueuse/core'
import { dayOf, type Day } from '~~/core/calendar/day'
import type { Load } from '~~/core/dates/crowding'
import { useLedgerSource } from './source'
import CrossingDensity from './CrossingDensity.vue'
import CrossingGhost from './CrossingGhost.vue'
import CrossingOver from './CrossingOver.vue'
import CrossingTerm from './CrossingTerm.vue'
import CrossingThread from './CrossingThread.vue'
import { crossingItems, crossingText, densityOf, threadsAtMost, threadsOf } from './crossing'
import {
  axisOf,
  daysDrawn,
  left,
  panned,
  sourceY,
  targetY,
  wholePicture,
  zoomed,
  type CrossingView,
} from './crossing-axes'
import { dueOnText, useCrossingPointer } from './crossing-pointer'
import type { LedgerItem } from './ledger'

/** The two terms one above the other, and a thread for every item from where it was to where it lands. */
const props = defineProps<{
  items: LedgerItem[]
  selected: string | null
  chosen: ReadonlySet<string>
  mayEdit: boolean
  /** Days that hold more than the limit, to be eased; null where nobody looks for them. */
  crowded: readonly Load[] | null
}>()
const emit = defineEmits<{
  select: [lineage: string]
  choose: [lineages: string[], adds: boolean]
  move: [lineages: string[], days: number]
  ease: []
}>()
const base = useLedgerSource()
/** The ledger is read first: the picture follows it by a frame. */
const items = useAfterPaint(() => props.items)
const box = ref<HTMLElement>()
const picture = ref<SVGSVGElement>()
const { width } = useElementSize(box)
// Where there is no room for a picture it is folded away; the ledger says the same.
const isSmall = useMediaQuery('(max-width: 620px), (max-height: 600px)')
const isOpen = ref(!isSmall.value)
watch(isSmall, small => {
  isOpen.value = !small
})

const view = ref<CrossingView>(wholePicture)
const isWhole = computed(() => view.value.to - view.value.from > 0.999)
const shares = computed(() => {
  if (!base.terms || !view.value.oneScale) return { source: 1, target: 1 }
  const days = { source: daysDrawn(base.terms.source), target: daysDrawn(base.terms.target) }
  const longest = Math.max(days.source, days.target)
  return { source: days.source / longest, target: days.target / longest }
})
const axes = computed(() => {
  if (!base.terms || width.value === 0) return null
  const { source, target } = base.terms
  return {
    source: axisOf(source, { y: sourceY, below: false, share: shares.value.source }, width.value, view.value),
    target: axisOf(target, { y: targetY, below: true, share: shares.value.target }, width.value, view.value),
  }
})
const crossing = computed(() => crossingItems(items.value))
const threads = computed(() =>
  axes.value
    ? threadsOf(items.value, axes.value, {
        width: width.value,
        selected: props.selected,
        crossing: crossing.value,
      })
    : [],
)
const density = computed(() =>
  axes.value && threads.value.length > threadsAtMost
    ? densityOf(items.value, threads.value, axes.value)
    : null,
)
const isMarked = (items: readonly LedgerItem[]): boolean => items.some(item => props.chosen.has(item.lineage))
/** Threads that are drawn one by one: all of them, or among thousands only the one that is looked at. */
const drawn = computed(() => (density.value ? threads.value.filter(thread => thread.chosen) : threads.value))
const showsWindows = computed(() => view.value.to - view.value.from < 0.4 && !density.value)

const dueOn = computed(() => {
  const count = new Map<Day, number>()
  for (const { planned } of items.value)
    if (planned.due) count.set(dayOf(planned.due), (count.get(dayOf(planned.due)) ?? 0) + 1)
  return count
})
const {
  drag,
  box: swept,
  grab,
  press,
} = useCrossingPointer(picture, axes, {
  threads: () => threads.value,
  along: item =>
    props.chosen.has(item.lineage) ? items.value.filter(each => props.chosen.has(each.lineage)) : [item],
  move: (items, days) => {
    if (props.mayEdit)
      emit(
        'move',
        items.map(item => item.lineage),
        days,
      )
  },
  choose: (items, adds) =>
    emit(
      'choose',
      items.map(item => item.lineage),
      adds,
    ),
})
const ghost = computed(() => {
  const [now, term] = [drag.value, base.terms?.target]
  if (!now?.moved || !term || !axes.value) return null
  const day = now.from + now.days
  const one = axes.value.target
  const more = now.items.length > 1 ? ` · ${now.items.length} move` : ''
  return { x: one.x(day + 0.5), words: dueOnText(term, day, dueOn.value.get(day) ?? 0) + more }
})
const piles = computed(() =>
  axes.value
    ? (props.crowded ?? []).flatMap(({ first, ids }) => {
        const x = axes.value?.target.x(first + 0.5) ?? 0
        return x > left && x < width.value ? [{ x, count: ids.length }] : []
      })
    : [],
)

function zoom(factor: number, focus?: number): void {
  view.value = zoomed(view.value, factor, focus)
}
const pan = (share: number): void => {
  view.value = panned(view.value, share)
}
const showWhole = (): void => {
  view.value = { ...wholePicture, oneScale: view.value.oneScale }
}
const turnScale = (): void => {
  view.value = { ...view.value, oneScale: !view.value.oneScale }
}
function wheel(event: WheelEvent): void {
  const isSideways = event.shiftKey || Math.abs(event.deltaX) > Math.abs(event.deltaY)
  if (isSideways) return pan((event.deltaX || event.deltaY) / 800)
  const length = width.value - left
  const place = event.clientX - (picture.value?.getBoundingClientRect().left ?? 0)
  zoom(event.deltaY > 0 ? 1.25 : 0.8, Math.min(1, Math.max(0, (place - left) / length)))
}
useKeys([
  { key: '+', does: 'look closer at the crossing', run: () => zoom(0.6) },
  { key: '-', does: 'see more of the crossing', run: () => zoom(1 / 0.6) },
  { key: '0', does: 'the whole crossing', run: showWhole },
  { key: ',', does: 'the crossing further left', run: () => pan(-0.3) },
  { key: '.', does: 'the crossing further right', run: () => pan(0.3) },
  { key: '=', does: 'both terms at one scale, or at one length', run: turnScale },
])
const told = computed(() => crossingText(crossing.value.size, props.crowded))
</script>

<template>
  <section class="crossing" :class="{ folded: !isOpen }" aria-label="Crossing">
    <header>
      <h2>Crossing</h2>
      <p v-if="isOpen" id="crossing-told" class="soft small" aria-live="polite">{{ told }}</p>
      <span v-if="isOpen" class="acts small">
        <button v-if="crowded" class="link" type="button" title="(c)" @click="emit('ease')">
          Ease crowded days
        </button>
        <button class="link" type="button" title="Look closer (+)" @click="zoom(0.6)">Closer</button>
        <template v-if="!isWhole">
          <button class="link" type="button" title="Further left (,)" @click="pan(-0.3)">Left</button>
          <button class="link" type="button" title="Further right (.)" @click="pan(0.3)">Right</button>
          <button class="link" type="button" title="The whole crossing (0)" @click="showWhole">Whole</button>
        </template>
        <button class="link" type="button" title="(=)" @click="turnScale">
          {{ view.oneScale ? 'At one length' : 'At one scale' }}
        </button>
      </span>
      <button
        v-if="isSmall"
        class="link small"
        type="button"
        :aria-expanded="isOpen"
        @click="isOpen = !isOpen"
      >
        {{ isOpen ? 'Fold the crossing away' : 'Show the crossing' }}
      </button>
    </header>
    <div v-if="isOpen" ref="box">
      <svg
        v-if="axes"
        ref="picture"
        :width="width"
        height="192"
        role="img"
        aria-label="Each item’s date in the old term, and a thread to where it lands in the new one. The table below says the same."
        aria-describedby="crossing-told"
        @pointerdown="press"
        @wheel.prevent="wheel"
      >
        <defs>
          <pattern
            id="hatch"
            width="5"
            height="5"
            patternUnits="userSpaceOnUse"
            patternTransform="rotate(45)"
          >
            <rect width="5" height="5" fill="var(--sand)" />
            <path d="M0 0V5" stroke="var(--sand-line)" stroke-width="2" />
          </pattern>
          <clipPath id="crossing-clip">
            <rect :x="left - 8" y="0" :width="Math.max(0, width - left + 12)" height="192" />
          </clipPath>
        </defs>
        <rect class="ground" x="0" y="0" :width="width" height="192" />
        <CrossingTerm :axis="axes.source" />
        <CrossingTerm :axis="axes.target" />
        <g clip-path="url(#crossing-clip)">
          <CrossingDensity v-if="density" :density="density" />
          <CrossingOver :items="items" :axes="axes" />
          <CrossingThread
            v-for="thread in drawn"
            :key="thread.lineage"
            :thread="thread"
            :among="chosen.size > 0 && isMarked(thread.items)"
            :shows-window="showsWindows"
            :may-drag="mayEdit"
            @click="emit('select', thread.lineage)"
            @grab="event => grab(event, thread)"
          />
        </g>
        <text v-for="pile in piles" :key="pile.x" class="pile" :x="pile.x" :y="targetY - 13">
          {{ pile.count }}
        </text>
        <rect v-if="swept" class="swept" v-bind="swept" />
        <CrossingGhost v-if="ghost" :x="ghost.x" :words="ghost.words" :width="width" />
      </svg>
    </div>
  </section>
</template>

<style scoped>
.crossing {
  flex: none;
  margin-bottom: 6px;
  min-height: 222px;
}
.folded {
  min-height: 0;
}
header {
  display: flex;
  gap: 16px;
  align-items: baseline;
}
header p {
  margin: 0;
  flex: 1;
}
.acts {
  display: flex;
  gap: 12px;
}
svg {
  display: block;
  overflow: visible;
  user-select: none;
  touch-action: pan-y;
}
.ground {
  fill: transparent;
}
.pile {
  font-size: 11.5px;
  font-weight: 650;
  fill: var(--brass-text);
  text-anchor: middle;
  pointer-events: none;
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 3px;
}
.swept {
  fill: var(--tide);
  fill-opacity: 0.12;
  stroke: var(--tide);
  pointer-events: none;
}
@media (max-width: 900px) {
  header {
    flex-wrap: wrap;
    gap: 2px 14px;
  }
}
</style>
