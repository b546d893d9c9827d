<script setup lang="ts">
import { scaleLinear } from 'd3-scale'
import { useElementSize } from '@vueuse/core'
import { dayOf, isoOf, minuteOf } from '~~/core/calendar/day'
import type { Term } from '~~/core/calendar/term'
import type { Outcome } from '~~/core/dates/plan'
import type { SlotName } from '~~/core/dates/rule'
import { usePlan } from '../plan'
import type { LedgerItem } from './ledger'

/** The two terms one above the other, and a thread for every item from where it was to where it lands. */
const props = defineProps<{ items: LedgerItem[]; selected: string | null }>()
const emit = defineEmits<{ select: [lineage: string] }>()
const store = usePlan()
const box = ref<HTMLElement>()
const { width } = useElementSize(box)
const top = 46
const bottom = 150
const left = 108

function axis(term: Term, y: number, below: boolean) {
  const end = (term.exams?.to ?? term.classes.to) + 2
  const x = scaleLinear()
    .domain([term.weeks[0]! - 1, end])
    .range([left, Math.max(left + 100, width.value - 4)])
  // Names of neighbouring closures must not run into each other.
  let free = -Infinity
  const shaded = [
    ...term.closures
      .filter(closure => closure.to >= term.weeks[0]! && closure.from <= end)
      .sort((a, b) => a.from - b.from)
      .map(closure => ({ ...closure, exams: false })),
    ...(term.exams ? [{ from: term.exams.from, to: term.exams.to, name: 'exams', exams: true }] : []),
  ].map(span => {
    const from = x(span.from)
    const to = x(span.to + 1)
    const half = span.name.length * 3.1
    const middle = Math.min((from + to) / 2, width.value - half - 4)
    const named = middle - half > free
    if (named) free = middle + half + 6
    return { ...span, x: from, width: to - from, middle, named }
  })
  return {
    x,
    y,
    below,
    name: term.name,
    from: x(term.classes.from),
    to: x(term.classes.to + 1),
    shaded,
    weeks: term.weeks.map((first, at) => ({ number: at + 1, x: x(first), middle: x(first + 3.5) })),
    title: `${term.name}: classes ${dayText(isoOf(term.classes.from))} to ${dayText(isoOf(term.classes.to))}`,
  }
}
const axes = computed(() =>
  store.terms && width.value > 0
    ? { source: axis(store.terms.source, top, false), target: axis(store.terms.target, bottom, true) }
    : null,
)
const at = (wall: string): number => dayOf(wall) + minuteOf(wall) / 1440
interface Thread {
  lineage: string
  from: number
  to: number | null
  outcome: Outcome
  bent: boolean
  chosen: boolean
  mark: { colour: string; path: string }
  path: string
  slot: SlotName
  items: LedgerItem[]
}
/** Items that would be drawn exactly over one another share a thread; only the selected one always has its own. */
const threads = computed((): Thread[] => {
  if (!axes.value) return []
  const { source, target } = axes.value
  const drawn = new Map<string, Thread>()
  for (const item of props.items) {
    const slot = item.node.due ? 'due' : item.node.opens ? 'opens' : null
    if (!slot) continue
    const from = Math.round(source.x(at(item.node[slot]!)) * 2) / 2
    const landing = item.planned[slot]
    const to = landing === null ? null : Math.round(target.x(at(landing)) * 2) / 2
    const outcome = item.outcomes[slot]
    const chosen = item.node.lineage === props.selected
    const mark = markOf(item.node.kind!, item.node.exam)
    const key = chosen ? 'chosen' : `${from} ${to} ${mark.path} ${outcome}`
    const there = drawn.get(key)
    if (there) {
      there.items.push(item)
      continue
    }
    const bent = outcome === 'settle' || outcome === 'moved'
    const middle = (top + bottom) / 2
    const path =
      to === null
        ? ''
        : bent
          ? `M${from} ${top + 8}C${from} ${middle} ${to} ${middle} ${to} ${bottom - 8}`
          : `M${from} ${top + 8}L${to} ${bottom - 8}`
    drawn.set(key, {
      lineage: item.node.lineage,
      from,
      to,
      outcome,
      bent,
      chosen,
      mark,
      path,
      slot,
      items: [item],
    })
  }
  return [...drawn.values()].sort((a, b) => Number(a.chosen) - Number(b.chosen))
})
const titleOf = ({ items, slot }: Thread): string =>
  [
    ...items
      .slice(0, 6)
      .map(
        ({ node, planned }) =>
          `${node.title}: ${slot} ${momentText(node[slot]!)} → ${planned[slot] === null ? 'no date' : momentText(planned[slot])}`,
      ),
    ...(items.length > 6 ? [`and ${items.length - 6} more`] : []),
  ].join('\n')
</script>

<template>
  <section class="crossing" aria-label="Crossing">
    <header>
      <h2>Crossing</h2>
      <span class="soft small">press a mark to see why · shaded: no classes</span>
    </header>
    <div ref="box">
      <svg
        v-if="axes"
        :width="width"
        height="192"
        role="img"
        aria-label="Each item’s date in the old term, and a thread to where it lands in the new one. The table below says the same."
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
        </defs>
        <g v-for="line in [axes.source, axes.target]" :key="line.y">
          <title>{{ line.title }}</title>
          <rect
            v-for="span in line.shaded"
            :key="`${span.from} ${span.name}`"
            :x="span.x"
            :y="line.y - 13"
            :width="span.width"
            height="26"
            :fill="span.exams ? 'var(--exams)' : 'url(#hatch)'"
          >
            <title>{{ span.name }}: {{ dayText(isoOf(span.from)) }} to {{ dayText(isoOf(span.to)) }}</title>
          </rect>
          <text
            v-for="span in line.shaded.filter(each => each.named)"
            :key="span.from"
            class="closure"
            :x="span.middle"
            :y="line.below ? line.y + 36 : line.y - 29"
          >
            {{ span.name }}
          </text>
          <path class="axis" :d="`M${line.from} ${line.y}H${line.to}`" />
          <g v-for="week in line.weeks" :key="week.number">
            <path class="tick" :d="`M${week.x} ${line.y - 5}V${line.y + 5}`" />
            <text class="week" :x="week.middle" :y="line.below ? line.y + 21 : line.y - 15">
              {{ week.number }}
            </text>
          </g>
          <text class="term" x="0" :y="line.y + 5">{{ line.name }}</text>
        </g>
        <g
          v-for="thread in threads"
          :key="thread.lineage"
          class="thread"
          :class="[thread.outcome, { chosen: thread.chosen }]"
          @click="emit('select', thread.lineage)"
        >
          <title>{{ titleOf(thread) }}</title>
          <path v-if="thread.to !== null" class="string" :d="thread.path" />
          <path
            :d="thread.mark.path"
            :fill="thread.mark.colour"
            :transform="`translate(${thread.from} ${top})`"
          />
          <circle
            v-if="thread.to !== null && thread.bent"
            :cx="thread.to"
            :cy="bottom"
            r="7.5"
            class="ring"
          />
          <path
            v-if="thread.to !== null"
            :d="thread.mark.path"
            :fill="thread.mark.colour"
            :transform="`translate(${thread.to} ${bottom})${thread.chosen ? ' scale(1.5)' : ''}`"
          />
        </g>
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
header {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
}
svg {
  display: block;
  overflow: visible;
}
.axis {
  stroke: var(--ink);
  stroke-width: 2;
}
.tick {
  stroke: var(--ink);
  stroke-width: 1;
}
.week {
  font-size: 12px;
  fill: var(--ink-soft);
  text-anchor: middle;
}
.closure {
  font: italic 12.5px var(--serif);
  fill: var(--sand-text);
  text-anchor: middle;
}
.term {
  font: italic 500 15px var(--serif);
  fill: var(--ink);
}
.thread {
  cursor: pointer;
}
.string {
  fill: none;
  stroke: #a9b4ba;
  stroke-width: 1;
}
.thread:hover .string {
  stroke: var(--ink);
  stroke-width: 2;
}
.moved .string,
.settle .string {
  stroke: var(--brass);
  stroke-width: 1.5;
}
.held .string {
  stroke: var(--tide);
  stroke-width: 1.5;
}
.chosen .string {
  stroke: var(--tide);
  stroke-width: 3;
}
.ring {
  fill: none;
  stroke: var(--brass);
  stroke-width: 1.5;
}
</style>
