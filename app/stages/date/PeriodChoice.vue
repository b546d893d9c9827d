<script setup lang="ts">
import type { Filed } from '~~/core/grading/periods'
import { useLedgerSource } from './source'
import type { LedgerItem } from './ledger'

/** Under which grading period some items are filed, and why; a person may choose another. */
const props = defineProps<{ items: readonly LedgerItem[]; mayEdit: boolean }>()
const base = useLedgerSource()
const counting = computed(() => props.items.filter(item => item.filed !== null))
const names = computed(() => (base.terms?.target.gradingPeriods ?? []).map(({ name }) => name))
/** The one that all of them are in; empty: they differ, or have none. */
const shared = computed(() => {
  const all = new Set(counting.value.map(({ filed }) => filed?.period ?? null))
  const [one] = all
  return all.size === 1 ? (one ?? '') : ''
})
const isChosen = computed(() => counting.value.some(({ filed }) => filed?.by === 'chosen'))
const whys: Readonly<Record<Filed['by'], string>> = {
  chosen: 'You or a colleague chose it.',
  due: 'It is due within it.',
  opens: 'It has no due date, and opens within it.',
  unit: 'It has no date. Its unit lies within it.',
  outside: 'Its date lies in no grading period. Choose one.',
  nothing: 'No date tells which it belongs to. Choose one.',
}
const why = computed(() => {
  const [only] = counting.value
  return counting.value.length === 1 && only?.filed ? whys[only.filed.by] : ''
})
const file = (period: string | null): void =>
  base.fileUnder(
    counting.value.map(item => item.lineage),
    period,
  )
</script>

<template>
  <div v-if="counting.length" class="period">
    <label class="small" for="period-choice">Grading period</label>
    <ElSelect
      id="period-choice"
      :model-value="shared"
      size="small"
      :disabled="!mayEdit"
      aria-label="Grading period"
      placeholder="choose one"
      @change="file"
    >
      <ElOption v-for="name in names" :key="name" :value="name" :label="name" />
    </ElSelect>
    <p class="small soft">
      {{ why }}
      <button v-if="isChosen && mayEdit" class="link" type="button" @click="file(null)">
        Let the dates decide
      </button>
    </p>
  </div>
</template>

<style scoped>
.period {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: 2px 10px;
  align-items: center;
  margin: 6px 0;
}
p {
  grid-column: 1 / -1;
  margin: 0;
}
</style>
