<script setup lang="ts">
import { useVirtualizer } from '@tanstack/vue-virtual'
import { setCarried } from '~~/core/carry/select'
import type { ItemKind } from '~~/core/course/model'
import { subtree } from '~~/core/course/outline'
import FootBar from '../FootBar.vue'
import StageFrame from '../StageFrame.vue'
import { useStagePlan } from '../plan/store'
import CarryRow from './CarryRow.vue'
import { countsByKind, isPartly, useCarryRows } from './carry'

const { store, plan, document } = useStagePlan()
const mayEdit = computed(() => plan.value.may.edit)
const nodes = computed(() => store.nodes)
const text = ref('')
const rows = useCarryRows({
  nodes,
  text,
  carried: computed(() => store.carried),
  already: computed(() => new Set(plan.value.target.nodes.map(node => node.lineage))),
  from: lineage => {
    const further = plan.value.more[(store.merged?.from.get(lineage) ?? 0) - 1]
    return further ? codeText(further.course) : null
  },
})
const kinds = computed(() => countsByKind(nodes.value, store.carried))

const setAll = (lineages: string[], carried: boolean): void =>
  store.leave(setCarried(nodes.value, document.value.carry.leave, lineages, carried))
const setNode = (lineage: string, carried: boolean): void => setAll(subtree(nodes.value, lineage), carried)
function setKind(kind: ItemKind, carried: boolean): void {
  const ofKind = nodes.value.filter(node => node.kind === kind)
  setAll(
    ofKind.map(node => node.lineage),
    carried,
  )
}

const cursor = ref(0)
const list = ref<HTMLElement>()
const virtual = useVirtualizer(
  computed(() => ({
    count: rows.value.length,
    getScrollElement: () => list.value ?? null,
    estimateSize: () => 33,
    overscan: 12,
    getItemKey: (index: number) => rows.value[index]?.node.lineage ?? index,
  })),
)
const visible = computed(() =>
  virtual.value.getVirtualItems().flatMap(({ index, start }) => {
    const row = rows.value[index]
    return row ? [{ row, index, place: { transform: `translateY(${start}px)` } }] : []
  }),
)
const measure = (row: unknown): void => {
  const element = (row as { $el?: HTMLElement } | null)?.$el
  if (element) virtual.value.measureElement(element)
}
const cursorId = computed(() =>
  visible.value.some(each => each.index === cursor.value) ? `carry-${cursor.value}` : undefined,
)
function move(step: number): void {
  cursor.value = Math.max(0, Math.min(rows.value.length - 1, cursor.value + step))
  virtual.value.scrollToIndex(cursor.value)
}
function toggleCursor(): void {
  const row = rows.value[cursor.value]
  if (row && mayEdit.value) setNode(row.node.lineage, !row.carried)
}
const keysFor = (keys: string[], does: string, run: () => void) => keys.map(key => ({ key, does, run }))
useKeys([
  ...keysFor(['j', 'ArrowDown'], 'next row', () => move(1)),
  ...keysFor(['k', 'ArrowUp'], 'row before', () => move(-1)),
  { key: 'x', does: 'carry or leave this row', run: toggleCursor },
  { key: ' ', does: 'carry or leave this row', hidden: true, run: toggleCursor },
])

const below = computed(() => {
  const held = plan.value.target.nodes.length > 0
  return held ? `, below the ${counted(plan.value.target.course.items, 'item')} that the shell holds` : ''
})
const categoriesText = computed(() => {
  const categories = store.merged?.categories.length ?? 0
  const weights = categories === 1 ? 'comes with its weight' : 'come with their weights'
  return categories > 0 ? `${counted(categories, 'grade category', 'grade categories')} ${weights}.` : ''
})
const totals = computed(() => [
  { count: store.counts.carried - store.counts.already, words: 'items come across' },
  ...(store.counts.already ? [{ count: store.counts.already, words: 'in the shell already' }] : []),
  { count: store.counts.items - store.counts.carried, words: 'stay behind' },
])
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
    <div class="head">
      <h2>What comes across</h2>
      <ElInput
        v-model="text"
        class="filter"
        placeholder="find by words"
        clearable
        aria-label="Find an item by its words"
        @input="cursor = 0"
      />
      <span class="spring" />
      <button class="link" type="button" :disabled="!mayEdit" @click="store.leave([])">
        Carry everything
      </button>
    </div>
    <div class="columns caps" aria-hidden="true">
      <span>Unit or item</span><span>Points</span><span>Opens</span><span>Due</span>
    </div>
    <div ref="list" class="list" v-bind="rows.length ? asTree : {}" :aria-activedescendant="cursorId">
      <div :style="{ height: `${virtual.getTotalSize()}px`, position: 'relative' }">
        <CarryRow
          v-for="{ row, index, place } in visible"
          :id="`carry-${index}`"
          :key="row.node.lineage"
          :ref="measure"
          :data-index="index"
          :row="row"
          :may-edit="mayEdit"
          :aria-selected="index === cursor"
          :class="{ cursor: index === cursor }"
          :style="place"
          @click="cursor = index"
          @carry="carried => setNode(row.node.lineage, carried)"
        />
      </div>
      <p v-if="!nodes.length" class="empty soft">
        This course holds nothing to carry. Choose another source in
        <NuxtLink :to="`/plans/${plan.id}/pair`">Pair</NuxtLink>.
      </p>
      <p v-else-if="!rows.length" class="empty soft">Nothing in this course has the words “{{ text }}”.</p>
    </div>
    <template #side>
      <h2>By kind</h2>
      <ul class="kinds" aria-label="By kind">
        <li v-for="entry in kinds" :key="entry.kind">
          <ElCheckbox
            :model-value="entry.carried === entry.items"
            :indeterminate="isPartly(entry)"
            :disabled="!mayEdit"
            @change="setKind(entry.kind, entry.carried < entry.items)"
            ><KindMark :kind="entry.kind" /> {{ kindWords(entry.kind)[1] }}</ElCheckbox
          >
          <span class="soft">{{ entry.carried }} of {{ entry.items }}</span>
        </li>
      </ul>
      <div>
        <h2>Structure stays</h2>
        <p class="small">
          Units, order and nesting come as they are{{ below }}.
          {{ categoriesText }}
        </p>
      </div>
    </template>
    <template #foot>
      <FootBar :totals="totals">
        <template #keys>
          <span><kbd>j</kbd> <kbd>k</kbd> rows</span><span><kbd>x</kbd> carry or leave</span>
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
  gap: 16px;
  margin-bottom: 8px;
}
.filter {
  width: 220px;
}
.spring {
  flex: 1;
}
.columns,
.carry-row {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 64px 104px 104px;
  align-items: center;
  column-gap: 10px;
  padding: 0 8px;
}
.columns {
  padding-bottom: 5px;
  border-bottom: 1.5px solid var(--rule-strong);
}
.list {
  flex: 1;
  min-height: 0;
  overflow: auto;
  outline-offset: -2px;
}
.carry-row {
  position: absolute;
  left: 0;
  right: 0;
  min-height: 33px;
  border-bottom: 1px solid var(--rule);
}
.carry-row.cursor {
  background: var(--tide-wash);
}
.empty {
  padding: 24px 8px;
}
.kinds {
  list-style: none;
  margin-bottom: 18px;
}
.kinds li {
  display: flex;
  justify-content: space-between;
  align-items: center;
  padding: 5px 0;
  border-bottom: 1px solid var(--rule);
}
@media (max-width: 900px) {
  .list {
    flex: none;
    height: max(280px, calc(100vh - 190px));
  }
}
@media (max-width: 620px) {
  .head {
    flex-wrap: wrap;
  }
  .columns,
  .carry-row {
    grid-template-columns: minmax(0, 1fr) 92px;
  }
  .columns span:nth-child(2),
  .columns span:nth-child(3),
  .carry-row :deep(.points),
  .carry-row :deep(.opens) {
    display: none;
  }
}
</style>
