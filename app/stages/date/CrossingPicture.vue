<script setup lang="ts">
import { useElementSize, useMediaQuery } from '@vueuse/core'
import { usePlan } from '../plan/store'
import CrossingTerm from './CrossingTerm.vue'
import CrossingThread from './CrossingThread.vue'
import { axisOf, sourceY, targetY, threadsOf } from './crossing'
import type { LedgerItem } from './ledger'

/** The two terms one above the other, and a thread for every item from where it was to where it lands. */
const props = defineProps<{ items: LedgerItem[]; selected: string | null }>()
const emit = defineEmits<{ select: [lineage: string] }>()
const store = usePlan()
const box = ref<HTMLElement>()
const { width } = useElementSize(box)
// Where there is no room for a picture it is folded away; the ledger says the same.
const isSmall = useMediaQuery('(max-width: 620px), (max-height: 600px)')
const isOpen = ref(!isSmall.value)
watch(isSmall, small => {
  isOpen.value = !small
})

const axes = computed(() => {
  if (!store.terms || width.value === 0) return null
  const { source, target } = store.terms
  return {
    source: axisOf(source, { y: sourceY, below: false }, width.value),
    target: axisOf(target, { y: targetY, below: true }, width.value),
  }
})
const threads = computed(() =>
  axes.value ? threadsOf(props.items, axes.value.source, axes.value.target, props.selected) : [],
)
</script>

<template>
  <section class="crossing" :class="{ folded: !isOpen }" aria-label="Crossing">
    <header>
      <h2>Crossing</h2>
      <span v-if="isOpen" class="soft small">press a mark to see why · shaded: no classes</span>
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
        <CrossingTerm :axis="axes.source" />
        <CrossingTerm :axis="axes.target" />
        <CrossingThread
          v-for="thread in threads"
          :key="thread.lineage"
          :thread="thread"
          @click="emit('select', thread.lineage)"
        />
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
  justify-content: space-between;
  align-items: baseline;
}
svg {
  display: block;
  overflow: visible;
}
</style>
