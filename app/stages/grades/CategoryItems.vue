<script setup lang="ts">
import type { OutlineNode } from '~~/core/course/outline'
import type { GradesDecisions, PlannedCategory } from '~~/core/grading/plan'

/** The items under a category: each can be moved to another, left out of the grade, or stand beside the points. */
const props = defineProps<{
  items: readonly { node: OutlineNode; category: string | null; exempt: boolean; extra: boolean }[]
  categories: readonly PlannedCategory[]
  mayEdit: boolean
  open?: boolean
}>()
const emit = defineEmits<{ change: [lineage: string, changed: GradesDecisions['items'][string]] }>()
const points = computed(() => props.items.reduce((sum, { node }) => sum + (node.points ?? 0), 0))
const shows = ref(props.open ?? false)
const countText = computed(() =>
  props.items.length === 0
    ? 'no item comes under it'
    : `${counted(props.items.length, 'item')}, ${pointsCounted(points.value)}`,
)
</script>

<template>
  <p v-if="!items.length" class="small soft none">{{ countText }}</p>
  <template v-else>
    <button class="link small" type="button" :aria-expanded="shows" @click="shows = !shows">
      {{ shows ? 'Hide' : 'Show' }} {{ countText }}
    </button>
    <ul v-if="shows">
      <li v-for="{ node, category, exempt, extra } in items" :key="node.lineage">
        <KindMark :kind="node.kind" :exam="node.exam" />
        <bdi>{{ node.title }}</bdi>
        <span class="soft small">{{ pointsCounted(node.points ?? 0) }}</span>
        <span class="spring" />
        <ElSelect
          :model-value="category ?? 'none'"
          size="small"
          :disabled="!mayEdit"
          :aria-label="`Category of ${node.title}`"
          @change="value => emit('change', node.lineage, { category: value === 'none' ? null : value })"
        >
          <ElOption value="none" label="in no category" />
          <ElOption
            v-for="each in categories"
            :key="each.lineage"
            :value="each.lineage"
            :label="each.title"
          />
        </ElSelect>
        <ElCheckbox
          :model-value="exempt"
          :disabled="!mayEdit"
          @change="value => emit('change', node.lineage, { exempt: Boolean(value) })"
          >exempt</ElCheckbox
        >
        <ElCheckbox
          :model-value="extra"
          :disabled="!mayEdit"
          @change="value => emit('change', node.lineage, { extra: Boolean(value) })"
          >extra</ElCheckbox
        >
      </li>
    </ul>
  </template>
</template>

<style scoped>
.none {
  margin: 0;
}
ul {
  list-style: none;
  margin-top: 4px;
}
li {
  display: flex;
  gap: 8px;
  align-items: center;
  padding: 2px 0;
}
.spring {
  flex: 1;
}
li :deep(.el-select) {
  width: 160px;
}
li :deep(.el-checkbox) {
  margin-right: 0;
}
@media (max-width: 620px) {
  li {
    flex-wrap: wrap;
  }
}
</style>
