<script setup lang="ts">
import { usePlan } from './plan'

/** Said when a change could not be saved: what is safe, and the ways on. */
const store = usePlan()
/** What both changed, in words. */
const clashes = computed(() => {
  const titles = new Map(store.nodes.map(node => [node.lineage, node.title]))
  const words = (store.elsewhere?.clashes ?? []).map(path => {
    const [part, kind, key] = path.split('.')
    return kind === 'itemRules' || kind === 'unitRules'
      ? `the dates of “${titles.get(key!) ?? 'an item'}”`
      : kind === 'kindRules'
        ? `the rule for ${kindWords[key!]?.[1] ?? key}`
        : part === 'dates'
          ? 'the rule for dates'
          : part === 'names'
            ? 'the names'
            : 'the windows'
  })
  return words.slice(0, 3).join(', ') + (words.length > 3 ? ` and ${words.length - 3} more` : '')
})
const busy = ref(false)
async function act(work: () => Promise<void>): Promise<void> {
  busy.value = true
  try {
    await work()
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <div class="saving" role="alert">
    <strong>{{ store.savingProblem?.title }}.</strong> {{ store.savingProblem?.detail
    }}<template v-if="store.elsewhere?.clashes.length"> Both of you changed {{ clashes }}.</template>
    <template v-if="store.saving === 'conflict'">
      <button class="link" type="button" :disabled="busy" @click="act(store.takeTheirs)">
        Show what was saved there
      </button>
      <button class="link" type="button" :disabled="busy" @click="act(store.keepMine)">
        Keep mine, over it
      </button>
    </template>
    <button v-else class="link" type="button" :disabled="busy" @click="act(store.save)">Save again</button>
  </div>
</template>

<style scoped>
.saving {
  padding: 8px var(--gutter);
  background: var(--buoy-wash);
  border-bottom: 1px solid var(--buoy);
  display: flex;
  gap: 8px 16px;
  flex-wrap: wrap;
  flex: none;
}
</style>
