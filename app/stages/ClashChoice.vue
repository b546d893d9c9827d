<script setup lang="ts">
import type { Whose } from '~~/core/plan/join'
import { clashName } from './clashes'
import { usePlan } from './plan/store'

/** What two people, or one in two windows, both changed: both values of each thing, of which one is chosen. */
const store = usePlan()
const session = useSession()
const chosen = ref<Record<string, Whose>>({})
const clashes = computed(() => store.elsewhere?.clashes ?? [])
watch(clashes, () => {
  chosen.value = {}
})
const other = computed(() => {
  const by = store.elsewhere?.by ?? ''
  return by === session.person?.name ? 'The other window' : by
})
const rows = computed(() =>
  clashes.value.map(({ path, mine, theirs }) => ({
    path,
    name: clashName(path, store.nodes),
    values: [
      { whose: 'mine' as const, text: `Here: ${mine}` },
      { whose: 'theirs' as const, text: `${other.value}: ${theirs}` },
    ],
  })),
)
const missing = computed(() => clashes.value.filter(({ path }) => !chosen.value[path]).length)
const missingText = computed(() => `${counted(missing.value, 'choice')} left`)
function chooseAll(whose: Whose): void {
  chosen.value = Object.fromEntries(clashes.value.map(({ path }) => [path, whose]))
}
useFocusAfterwards()
const { run: choose, busy, problem } = useAction(() => store.choose(chosen.value))
</script>

<template>
  <form @submit.prevent="choose()">
    <p>
      <strong>{{ other }} changed the same thing meanwhile.</strong> Choose which value to keep. All other
      changes, here and there, are kept.
    </p>
    <div class="clashes">
      <fieldset v-for="row in rows" :key="row.path">
        <legend>
          <bdi>{{ row.name }}</bdi>
        </legend>
        <ElRadio
          v-for="value in row.values"
          :key="value.whose"
          v-model="chosen[row.path]"
          :value="value.whose"
          :disabled="busy"
          >{{ value.text }}</ElRadio
        >
      </fieldset>
    </div>
    <ActionProblem :problem="problem" />
    <p class="acts">
      <button class="act" type="submit" :disabled="busy || missing > 0">Save what I chose</button>
      <template v-if="clashes.length > 1">
        <button class="link" type="button" @click="chooseAll('mine')">Choose all from here</button>
        <button class="link" type="button" @click="chooseAll('theirs')">Choose all from there</button>
        <span class="small soft">{{ missingText }}</span>
      </template>
    </p>
  </form>
</template>

<style scoped>
p {
  margin: 0;
}
.clashes {
  max-height: 30vh;
  overflow: auto;
  margin: 4px 0 8px;
}
fieldset {
  border: 0;
  border-bottom: 1px solid var(--rule);
  margin: 0;
  padding: 4px 0;
  display: flex;
  flex-wrap: wrap;
  gap: 2px 24px;
}
legend {
  padding: 0;
  font-weight: 600;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 16px;
  align-items: center;
}
</style>
