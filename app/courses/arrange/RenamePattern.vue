<script setup lang="ts">
import { nameBy } from '~~/core/carry/titles'
import type { OutlineNode } from '~~/core/course/outline'

/** All units named by a pattern, with what they will be. */
const props = defineProps<{ nodes: readonly OutlineNode[]; busy: boolean }>()
const emit = defineEmits<{ rename: [titles: Record<string, string>] }>()
const pattern = ref('Week {n}: {title}')
const isOpen = ref(false)
const found = computed(() =>
  props.nodes
    .filter(node => node.type === 'unit' && node.depth === 0)
    .map((node, at) => ({ node, to: nameBy(pattern.value, node.title, at + 1).slice(0, 500) }))
    .filter(({ node, to }) => !node.fixed && to !== '' && to !== node.title),
)
const rename = (): void =>
  emit('rename', Object.fromEntries(found.value.map(({ node, to }) => [node.lineage, to])))
</script>

<template>
  <h2>Names of the units</h2>
  <p v-if="!isOpen" class="small">
    <button class="link" type="button" @click="isOpen = true">Rename them by a pattern</button>
  </p>
  <template v-else>
    <dl class="settings">
      <dt>Pattern</dt>
      <dd>
        <ElInput v-model="pattern" size="small" maxlength="200" aria-label="Pattern of the names" />
      </dd>
    </dl>
    <ul class="small" aria-label="New names">
      <li v-for="each in found.slice(0, 4)" :key="each.node.lineage">
        <bdi class="soft">{{ each.node.title }}</bdi> becomes <bdi>{{ each.to }}</bdi>
      </li>
      <li v-if="found.length > 4" class="soft">and {{ found.length - 4 }} more</li>
      <li v-if="!found.length" class="soft">No name changes by this.</li>
    </ul>
    <p v-if="found.length" class="small">
      <button class="link" type="button" :disabled="busy" @click="rename">
        Rename {{ counted(found.length, 'unit') }}
      </button>
    </p>
  </template>
</template>

<style scoped>
ul {
  list-style: none;
  margin-bottom: 6px;
}
</style>
