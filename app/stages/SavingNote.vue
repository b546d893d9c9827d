<script setup lang="ts">
import { usePlan } from './plan'

/** Said when a change could not be saved: what is safe, and the ways on. */
const store = usePlan()
const busy = ref(false)
async function act(work: () => Promise<void>): Promise<void> {
  busy.value = true
  try { await work() }
  finally { busy.value = false }
}
</script>

<template>
  <div class="saving" role="alert">
    <strong>{{ store.savingProblem?.title }}.</strong> {{ store.savingProblem?.detail }}
    <template v-if="store.saving === 'conflict'">
      <button class="link" type="button" :disabled="busy" @click="act(store.takeTheirs)">Show what was saved there</button>
      <button class="link" type="button" :disabled="busy" @click="act(store.keepMine)">Keep mine, over it</button>
    </template>
    <button v-else class="link" type="button" :disabled="busy" @click="act(store.save)">Save again</button>
  </div>
</template>

<style scoped>
.saving { padding: 8px var(--gutter); background: var(--buoy-wash); border-bottom: 1px solid var(--buoy); display: flex; gap: 8px 16px; flex-wrap: wrap; flex: none; }
</style>
