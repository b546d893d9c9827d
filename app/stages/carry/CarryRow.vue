<script setup lang="ts">
import { isPartly, shouldCarry, type CarryRow } from './carry'

/** A unit or item, and whether it comes across. */
const props = defineProps<{ row: CarryRow; mayEdit: boolean }>()
const emit = defineEmits<{ carry: [carried: boolean] }>()
const node = computed(() => props.row.node)
const toggle = (value: unknown): void => emit('carry', shouldCarry(props.row.below, Boolean(value)))
const day = (wall: string | null): string => (wall ? dayText(wall) : '')
</script>

<template>
  <div
    class="carry-row"
    role="treeitem"
    :aria-level="node.depth + 1"
    :class="{ unit: node.type === 'unit', left: !row.carried }"
  >
    <span class="title" :style="{ paddingLeft: `${node.depth * 22}px` }">
      <ElCheckbox
        tabindex="-1"
        :model-value="row.carried"
        :disabled="!mayEdit"
        :aria-label="`Carry ${node.title}`"
        :indeterminate="isPartly(row.below)"
        @change="toggle"
      />
      <template v-if="node.type === 'unit'">
        <strong
          ><bdi>{{ node.title }}</bdi></strong
        >
        <span v-if="row.below" class="soft small">{{ row.below.carried }} of {{ row.below.items }}</span>
      </template>
      <template v-else>
        <KindMark :kind="node.kind" :exam="node.exam" />
        <bdi class="words">{{ node.title }}</bdi>
        <span v-if="row.already" class="soft small">in the shell already</span>
        <span v-if="row.from" class="soft small">from {{ row.from }}</span>
      </template>
    </span>
    <span class="points">{{ node.points === null ? '' : pointsText(node.points) }}</span>
    <span class="soft opens">{{ day(node.opens) }}</span>
    <span class="soft">{{ day(node.due) }}</span>
  </div>
</template>

<style scoped>
.carry-row.unit {
  font-family: var(--serif);
  font-size: 16px;
}
.unit .small {
  font-family: var(--sans);
}
.left .words,
.left strong {
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
@media (max-width: 620px) {
  .words {
    white-space: normal;
  }
}
</style>
