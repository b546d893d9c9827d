<script setup lang="ts">
import {
  arrowOf,
  happeningText,
  isPartly,
  shellPlaceText,
  shouldCarry,
  titleOf,
  type ShownRow,
} from './carry'
import { useDragging } from './dragging'

/** One row of the ledger of places: what comes at the left, what happens, what the shell will hold at the right. */
const props = defineProps<{ shown: ShownRow; mayEdit: boolean; mayDrag: boolean; arrives: string }>()
const emit = defineEmits<{ carry: [carried: boolean]; fold: []; dropped: [key: string] }>()
const row = computed(() => props.shown.row)
const element = ref<HTMLElement>()
const over = useDragging({
  element,
  key: () => row.value.key,
  mayDrag: () => props.mayDrag,
  takes: () => props.mayEdit && row.value.type === 'unit' && row.value.lineage !== null,
  dropped: key => emit('dropped', key),
})
const isUnit = computed(() => row.value.type === 'unit')
const source = computed(() => row.value.source)
const indent = computed(() => ({ paddingLeft: `${Math.max(0, row.value.depth) * 18}px` }))
const isStruck = computed(() => ['left', 'away'].includes(row.value.happens) && !row.value.shell)
const isLeft = computed(() => source.value !== null && !props.shown.carried)
const goesAway = computed(() => row.value.lineage === null && row.value.shell !== null)
const arrow = computed(() => arrowOf(row.value))
const toggle = (value: unknown): void => emit('carry', shouldCarry(props.shown.below, Boolean(value)))
/** What the shell will call it: its own name, or the one that comes. */
const heldTitle = computed(() => {
  const { shell, happens } = row.value
  const takesTitle = row.value.parts.some(({ part, takes }) => part === 'title' && takes)
  if (shell && happens !== 'replaces' && happens !== 'fills' && !takesTitle) return shell.title
  return row.value.carries?.title ?? titleOf(row.value)
})
const facts = computed(() => {
  const points = source.value?.points ?? null
  return points === null ? '' : pointsCounted(points)
})
/** How much of it comes, where not all does. */
const partWords = computed(() => {
  const { text } = row.value
  if (text?.isFrame) return 'a frame, no content'
  return text?.questions ? counted(text.questions.takes.length, 'question') : ''
})
const words = computed(() =>
  [
    row.value.happens === 'fills' && row.value.shell?.title !== heldTitle.value
      ? `in the place “${row.value.shell?.title}”`
      : shellPlaceText(row.value),
    partWords.value,
    props.arrives,
  ]
    .filter(Boolean)
    .join(' · '),
)
</script>

<template>
  <div
    ref="element"
    class="place-line"
    role="treeitem"
    :aria-level="row.depth + 1"
    :aria-expanded="isUnit ? !shown.collapsed : undefined"
    :class="{ unit: isUnit, open: row.settle, over }"
  >
    <span class="from" :style="indent">
      <button
        v-if="isUnit"
        type="button"
        class="fold"
        tabindex="-1"
        :aria-label="shown.collapsed ? 'Unfold the unit' : 'Fold the unit'"
        @click.stop="emit('fold')"
      >
        {{ shown.collapsed ? '▸' : '▾' }}
      </button>
      <template v-if="source">
        <ElCheckbox
          tabindex="-1"
          :model-value="shown.carried"
          :disabled="!mayEdit"
          :aria-label="`Carry ${source.title}`"
          :indeterminate="isPartly(shown.below)"
          @change="toggle"
        />
        <KindMark v-if="!isUnit" :kind="source.kind" :exam="source.exam" />
        <bdi class="words" :class="{ struck: isLeft }">{{ source.title }}</bdi>
        <span v-if="facts" class="soft small">{{ facts }}</span>
        <span v-if="shown.below" class="soft small"
          >{{ shown.below.carried }} of {{ shown.below.items }}</span
        >
        <span v-if="shown.from" :class="shown.isHeaded ? 'visually-hidden' : 'tag'">{{ shown.from }}</span>
      </template>
      <span v-else class="soft none" :class="{ 'of-item': !isUnit }">nothing for it</span>
    </span>
    <span class="happens" :class="arrow ?? 'none'">
      <i v-if="arrow" aria-hidden="true" />
      <b>{{ happeningText(row) }}{{ row.settle ? '?' : '' }}</b>
      <i v-if="arrow" class="head" aria-hidden="true" />
    </span>
    <span class="holds" :style="isUnit ? undefined : indent">
      <template v-if="!isStruck && (row.lineage !== null || row.shell)">
        <KindMark v-if="!isUnit && !row.shell?.holds" :kind="source?.kind ?? row.shell?.kind ?? null" />
        <i v-else-if="!isUnit" class="place" aria-hidden="true" />
        <bdi class="words" :class="{ struck: goesAway }">{{ heldTitle }}</bdi>
        <span v-if="words" class="soft small">{{ words }}</span>
      </template>
      <span v-else-if="row.into" class="soft small">its text alone, below the one it joins</span>
    </span>
  </div>
</template>

<style scoped>
.place-line {
  display: grid;
  grid-template-columns: var(--places);
  align-items: center;
  column-gap: 8px;
  padding: 0 8px 0 2px;
}
.from,
.holds {
  display: flex;
  align-items: center;
  gap: 8px;
  min-width: 0;
}
.unit .words {
  font: 600 16px/1.2 var(--serif);
}
.words {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.small {
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.struck {
  text-decoration: line-through;
  text-decoration-color: var(--buoy);
  color: var(--ink-soft);
}
.tag {
  font-size: 11.5px;
  border: 1px solid var(--rule);
  padding: 0 5px;
  white-space: nowrap;
}
.fold {
  border: 0;
  background: none;
  padding: 0;
  width: 14px;
  flex: none;
  color: var(--ink-soft);
  cursor: pointer;
}
.none {
  padding-left: 22px;
}
.none.of-item {
  padding-left: 0;
}
.happens {
  display: flex;
  align-items: center;
  justify-content: center;
  gap: 6px;
  font-size: 12.5px;
  color: var(--ink-soft);
  white-space: nowrap;
}
.happens b {
  font-weight: 600;
}
.happens i {
  flex: 1;
  height: 0;
  border-top: 1.5px solid currentcolor;
  position: relative;
  min-width: 10px;
}
.happens i.head::after {
  content: '';
  position: absolute;
  right: 0;
  top: -4.5px;
  width: 7px;
  height: 7px;
  border-top: 1.5px solid currentcolor;
  border-right: 1.5px solid currentcolor;
  transform: rotate(45deg);
}
.happens.tide {
  color: var(--tide-text);
}
.happens.brass,
.open .happens {
  color: var(--brass-text);
}
.place {
  width: 10px;
  height: 10px;
  flex: none;
  border: 1.5px solid var(--ink-soft);
  border-radius: 50%;
}
@media (max-width: 620px) {
  .place-line {
    grid-template-columns: minmax(0, 1fr);
    row-gap: 2px;
    padding-block: 6px;
  }
  .words,
  .small {
    white-space: normal;
  }
  .happens,
  .holds {
    justify-content: flex-start;
    padding-left: 22px !important;
  }
  .happens i {
    flex: none;
    width: 18px;
  }
}
</style>
