<script setup lang="ts">
import { clashesText } from './clashes'
import { usePlan } from './plan/store'

/** Said when a change could not be saved: what is safe, and the ways on. */
const store = usePlan()
const clashes = computed(() => clashesText(store.elsewhere?.clashes ?? [], store.nodes))
const { run: showTheirs, busy: showing } = useAction(() => store.showTheirs())
const { run: keepMine, busy: keeping } = useAction(() => store.keepMine())
const { run: save, busy: saving } = useAction(() => store.save())
const busy = computed(() => showing.value || keeping.value || saving.value)
</script>

<template>
  <div class="saving" role="alert">
    <strong>{{ store.savingProblem?.title }}.</strong> {{ store.savingProblem?.detail }}
    <template v-if="clashes">Both of you changed {{ clashes }}.</template>
    <template v-if="store.saving === 'conflict'">
      <button class="link" type="button" :disabled="busy" @click="showTheirs()">
        Show what was saved there
      </button>
      <button class="link" type="button" :disabled="busy" @click="keepMine()">Keep mine, over it</button>
    </template>
    <button v-else class="link" type="button" :disabled="busy" @click="save()">Save again</button>
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
