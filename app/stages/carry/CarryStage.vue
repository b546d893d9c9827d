<script setup lang="ts">
import { useVirtualizer } from '@tanstack/vue-virtual'
import { setCarried } from '~~/core/carry/select'
import { itemKinds } from '~~/core/course/model'
import { subtree } from '~~/core/course/outline'
import FootBar from '../FootBar.vue'
import StageFrame from '../StageFrame.vue'
import { usePlan } from '../plan'

const store = usePlan()
const plan = computed(() => store.plan!)
const nodes = computed(() => store.nodes)
/** Of several sources: which one a thing comes from, where it is not the first. */
const fromOf = (lineage: string): string | null => {
  const at = store.merged?.from.get(lineage) ?? 0
  return at > 0 ? codeText(plan.value.more[at - 1]!.course) : null
}
const text = ref('')
const shown = computed(() => {
  const words = text.value.toLowerCase().split(/\s+/).filter(Boolean)
  if (!words.length) return nodes.value
  const hits = new Set<string>()
  for (const node of nodes.value) {
    if (!words.every(word => `${node.title} ${node.kind ?? ''}`.toLowerCase().includes(word))) continue
    hits.add(node.lineage)
    if (node.unit) hits.add(node.unit)
  }
  return nodes.value.filter(node => hits.has(node.lineage))
})
const below = computed(
  () =>
    new Map(
      nodes.value
        .filter(node => node.type === 'unit')
        .map(unit => {
          const all = new Set(subtree(nodes.value, unit.lineage))
          const items = nodes.value.filter(node => node.type === 'item' && all.has(node.lineage))
          return [
            unit.lineage,
            { items: items.length, carried: items.filter(node => store.carried.has(node.lineage)).length },
          ] as const
        }),
    ),
)
const already = computed(() => new Set(plan.value.target.nodes.map(node => node.lineage)))
const kinds = computed(() =>
  itemKinds
    .map(kind => {
      const items = nodes.value.filter(node => node.kind === kind)
      return {
        kind,
        items: items.length,
        carried: items.filter(node => store.carried.has(node.lineage)).length,
      }
    })
    .filter(entry => entry.items > 0),
)

const cursor = ref(0)
const list = ref<HTMLElement>()
const virtual = useVirtualizer(
  computed(() => ({
    count: shown.value.length,
    getScrollElement: () => list.value ?? null,
    estimateSize: () => 33,
    overscan: 12,
    getItemKey: (index: number) => shown.value[index]!.lineage,
  })),
)
function toggle(lineage: string, take: boolean): void {
  store.leave(setCarried(nodes.value, store.document!.carry.leave, subtree(nodes.value, lineage), take))
}
const takeKind = (kind: string, take: boolean): void =>
  store.leave(
    setCarried(
      nodes.value,
      store.document!.carry.leave,
      nodes.value.filter(node => node.kind === kind).map(node => node.lineage),
      take,
    ),
  )
function move(step: number): void {
  cursor.value = Math.max(0, Math.min(shown.value.length - 1, cursor.value + step))
  virtual.value.scrollToIndex(cursor.value)
}
const cursorNode = computed(() => shown.value[cursor.value])
useKeys([
  ...['j', 'ArrowDown'].map(key => ({ key, does: 'next row', run: () => move(1) })),
  ...['k', 'ArrowUp'].map(key => ({ key, does: 'row before', run: () => move(-1) })),
  {
    key: 'x',
    does: 'take or leave this row',
    run: () => {
      if (cursorNode.value && plan.value.may.edit)
        toggle(cursorNode.value.lineage, !store.carried.has(cursorNode.value.lineage))
    },
  },
])
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
      <button class="link" type="button" :disabled="!plan.may.edit" @click="store.leave([])">
        Take everything
      </button>
    </div>
    <div class="columns caps" aria-hidden="true">
      <span>Unit or item</span><span>Points</span><span>Opens</span><span>Due</span>
    </div>
    <div ref="list" class="list" role="tree" aria-label="Units and items of the course" tabindex="0">
      <div :style="{ height: `${virtual.getTotalSize()}px`, position: 'relative' }">
        <div
          v-for="row in virtual.getVirtualItems()"
          :key="String(row.key)"
          class="row"
          role="treeitem"
          :aria-level="shown[row.index]!.depth + 1"
          :aria-selected="row.index === cursor"
          :class="{
            unit: shown[row.index]!.type === 'unit',
            cursor: row.index === cursor,
            left: !store.carried.has(shown[row.index]!.lineage),
          }"
          :style="{ transform: `translateY(${row.start}px)` }"
          @click="cursor = row.index"
        >
          <span class="title" :style="{ paddingLeft: `${shown[row.index]!.depth * 22}px` }">
            <ElCheckbox
              :model-value="store.carried.has(shown[row.index]!.lineage)"
              :disabled="!plan.may.edit"
              :aria-label="`Take ${shown[row.index]!.title}`"
              :indeterminate="
                Boolean(below.get(shown[row.index]!.lineage)?.carried) &&
                below.get(shown[row.index]!.lineage)!.carried < below.get(shown[row.index]!.lineage)!.items
              "
              @change="
                value =>
                  toggle(
                    shown[row.index]!.lineage,
                    below.get(shown[row.index]!.lineage) &&
                      below.get(shown[row.index]!.lineage)!.carried <
                        below.get(shown[row.index]!.lineage)!.items
                      ? true
                      : Boolean(value),
                  )
              "
            />
            <template v-if="shown[row.index]!.type === 'unit'"
              ><strong>{{ shown[row.index]!.title }}</strong>
              <span class="soft small"
                >{{ below.get(shown[row.index]!.lineage)!.carried }} of
                {{ below.get(shown[row.index]!.lineage)!.items }}</span
              ></template
            >
            <template v-else
              ><KindMark :kind="shown[row.index]!.kind!" :exam="shown[row.index]!.exam" />
              <span class="words">{{ shown[row.index]!.title }}</span><span
                v-if="already.has(shown[row.index]!.lineage)"
                class="soft small"
                >in the shell already</span
              ><span v-if="fromOf(shown[row.index]!.lineage)" class="soft small"
                >from {{ fromOf(shown[row.index]!.lineage) }}</span
              ></template
            >
          </span>
          <span>{{ shown[row.index]!.points === null ? '' : pointsText(shown[row.index]!.points!) }}</span>
          <span class="soft">{{ shown[row.index]!.opens ? dayText(shown[row.index]!.opens!) : '' }}</span>
          <span class="soft">{{ shown[row.index]!.due ? dayText(shown[row.index]!.due!) : '' }}</span>
        </div>
      </div>
      <p v-if="!nodes.length" class="empty soft">
        This course holds nothing to carry. Choose another source in
        <NuxtLink :to="`/plans/${plan.id}/pair`">Pair</NuxtLink>.
      </p>
      <p v-else-if="!shown.length" class="empty soft">Nothing in this course has the words “{{ text }}”.</p>
    </div>
    <template #side>
      <h2>By kind</h2>
      <ul class="kinds">
        <li v-for="entry in kinds" :key="entry.kind">
          <ElCheckbox
            :model-value="entry.carried === entry.items"
            :indeterminate="entry.carried > 0 && entry.carried < entry.items"
            :disabled="!plan.may.edit"
            @change="takeKind(entry.kind, entry.carried < entry.items)"
            ><KindMark :kind="entry.kind" /> {{ kindWords[entry.kind]![1] }}</ElCheckbox
          >
          <span class="soft">{{ entry.carried }} of {{ entry.items }}</span>
        </li>
      </ul>
      <div class="note">
        <h3>Structure stays</h3>
        <p class="small">
          Units, order and nesting come as they are{{
            plan.target.nodes.length
              ? `, below the ${counted(plan.target.course.items, 'item')} that the shell holds`
              : ''
          }}. Grade categories come with their weights: {{ store.merged?.categories.length }}.
        </p>
      </div>
    </template>
    <template #foot>
      <FootBar
        :totals="[
          { count: store.counts.carried, words: 'items come across' },
          { count: store.counts.items - store.counts.carried, words: 'stay behind' },
        ]"
      >
        <template #keys
          ><span><kbd>j</kbd> <kbd>k</kbd> rows</span><span><kbd>x</kbd> take or leave</span></template
        >
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
.row {
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
.row {
  position: absolute;
  left: 0;
  right: 0;
  height: 33px;
  border-bottom: 1px solid var(--rule);
}
.row.unit {
  font-family: var(--serif);
  font-size: 16px;
}
.row.unit .small {
  font-family: var(--sans);
}
.row.cursor {
  background: var(--tide-wash);
}
.row.left .words,
.row.left strong {
  text-decoration: line-through;
  text-decoration-color: var(--buoy);
  color: var(--ink-soft);
}
.title {
  display: flex;
  align-items: center;
  gap: 9px;
  min-width: 0;
}
.words {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
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
</style>
