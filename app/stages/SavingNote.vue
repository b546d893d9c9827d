<script setup lang="ts">
import ClashChoice from './ClashChoice.vue'
import { usePlan } from './plan/store'

/** Said when a change could not be saved: what is safe, and the ways on. */
const store = usePlan()
const { run: save, busy: saving } = useAction(() => store.save())
const { run: compare, busy: comparing } = useAction(() => store.choose({}))
const isClash = computed(() => (store.elsewhere?.clashes.length ?? 0) > 0)
</script>

<template>
  <section class="saving" role="alert" aria-label="Not saved yet">
    <ClashChoice v-if="isClash" />
    <p v-else>
      <strong>{{ store.savingProblem?.title }}.</strong> {{ store.savingProblem?.detail }}
      <button
        v-if="store.saving === 'conflict'"
        class="link"
        type="button"
        :disabled="comparing"
        @click="compare()"
      >
        Compare both
      </button>
      <button v-else class="link" type="button" :disabled="saving" @click="save()">Save again</button>
    </p>
  </section>
</template>

<style scoped>
.saving {
  padding: 8px var(--gutter);
  background: var(--buoy-wash);
  border-bottom: 1px solid var(--buoy);
  flex: none;
}
p {
  margin: 0;
}
</style>
