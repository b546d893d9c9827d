<script setup lang="ts">
import type { PlanText } from '~~/shared/api/plans'
import { useStagePlan } from '../plan/store'
import { passageLines, takenAtFirst } from './passages'

/** A text that was changed on both sides, passage by passage: of each that differs one takes the old course's or the shell's. */
const props = defineProps<{ lineage: string; mayEdit: boolean }>()
const { store, plan, document } = useStagePlan()
const { data, problem, loading, refresh } = useLoaded(() =>
  api.get<PlanText>(`/plans/${plan.value.id}/texts/${props.lineage}`),
)
watch(() => props.lineage, refresh, { immediate: true })
const compared = computed(() => data.value?.compared ?? null)
const decided = computed(() => {
  const choice = document.value.places.passages[props.lineage]
  return choice && compared.value?.source === choice.source && compared.value.shell === choice.shell
    ? choice
    : null
})
const lines = computed(() => (compared.value ? passageLines(compared.value.passages) : []))
const chosen = computed(
  (): { takes: number[]; both: number[] } =>
    decided.value ?? { takes: takenAtFirst(compared.value?.passages ?? []), both: [] },
)
type Side = 'source' | 'shell' | 'both'
function sideOf(passage: number): Side {
  if (chosen.value.takes.includes(passage)) return 'source'
  return chosen.value.both.includes(passage) ? 'both' : 'shell'
}
function take(passage: number, side: Side): void {
  const others = (list: readonly number[]): number[] => list.filter(each => each !== passage)
  decide({
    takes: side === 'source' ? [...others(chosen.value.takes), passage] : others(chosen.value.takes),
    both: side === 'both' ? [...others(chosen.value.both), passage] : others(chosen.value.both),
  })
}
function decide({ takes, both }: { takes: number[]; both: number[] }): void {
  if (!compared.value) return
  const { source, shell } = compared.value
  store.changeIn('places', {
    passages: { ...document.value.places.passages, [props.lineage]: { source, shell, takes, both } },
  })
}
function whole(): void {
  const { [props.lineage]: _, ...rest } = document.value.places.passages
  store.changeIn('places', { passages: rest })
}
const where = { source: 'changed in the old course', shell: 'changed here', both: 'changed in both' }
</script>

<template>
  <ProblemNote v-if="problem" :problem="problem" @retry="refresh" />
  <LoadingLines v-else-if="loading && !data" what="Comparing both texts …" />
  <p v-else-if="!compared" class="small soft">One of the two is no page: choose one as it is.</p>
  <div v-else class="passages" role="group" aria-label="The text, passage by passage">
    <p class="small soft">Choose for each passage that differs. The text is then put together from both.</p>
    <ol>
      <li v-for="line in lines" :key="line.key">
        <p v-if="line.alike !== null" class="alike small soft">{{ line.alike }}</p>
        <template v-else>
          <p v-if="line.changed" class="small soft">{{ where[line.changed] }}</p>
          <div class="pair">
            <ElRadio
              v-for="side in ['source', 'shell'] as const"
              :key="side"
              :model-value="sideOf(line.passage)"
              :value="side"
              :disabled="!mayEdit"
              :aria-label="`Passage ${line.passage + 1}: take the ${side === 'source' ? 'old course’s' : 'shell’s'}`"
              @change="take(line.passage, side)"
              ><span :class="side">{{ line[side] || 'nothing here' }}</span></ElRadio
            >
            <ElRadio
              v-if="line.source && line.shell"
              class="both"
              :model-value="sideOf(line.passage)"
              value="both"
              :disabled="!mayEdit"
              :aria-label="`Passage ${line.passage + 1}: keep both`"
              @change="take(line.passage, 'both')"
              >both, the shell’s first</ElRadio
            >
          </div>
        </template>
      </li>
    </ol>
    <p class="small">
      <button v-if="decided" class="link" type="button" :disabled="!mayEdit" @click="whole">
        Choose the text as a whole instead
      </button>
      <button v-else class="link" type="button" :disabled="!mayEdit" @click="decide(chosen)">
        Take it as marked above
      </button>
    </p>
  </div>
</template>

<style scoped>
.passages ol {
  list-style: none;
  max-height: 300px;
  overflow: auto;
  border-block: 1px solid var(--rule);
  margin-bottom: 6px;
}
.passages li {
  padding: 4px 0;
  border-bottom: 1px solid var(--rule);
}
.alike {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 4px 8px;
}
.pair .both {
  grid-column: 1 / -1;
}
.pair :deep(.el-radio) {
  height: auto;
  white-space: normal;
  margin: 0;
  align-items: flex-start;
}
.pair :deep(.el-radio__label) {
  overflow-wrap: anywhere;
  white-space: pre-line;
  font-size: 12.5px;
}
</style>
