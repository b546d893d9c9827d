<script setup lang="ts">
import { studentDataNames, studentDataWords } from '~~/core/student-data/student-data'
import type { StudentDataCounts } from '~~/core/student-data/student-data'

/** Rows about students, kind by kind: those that are there, in the order shown. */
const props = defineProps<{
  held: StudentDataCounts
  columns: { head: string; counts: StudentDataCounts | null }[]
}>()
const kinds = computed(() =>
  studentDataNames.filter(
    kind => props.held[kind] > 0 || props.columns.some(({ counts }) => (counts?.[kind] ?? 0) > 0),
  ),
)
</script>

<template>
  <table class="rows small">
    <thead>
      <tr>
        <th scope="col">Kind</th>
        <th v-for="{ head } in columns" :key="head" scope="col" class="number">{{ head }}</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="kind in kinds" :key="kind">
        <td class="kind">{{ studentDataWords(kind)[1] }}</td>
        <td v-for="({ counts }, at) in columns" :key="at" class="number" :class="{ none: !counts?.[kind] }">
          {{ numberText(counts?.[kind] ?? 0) }}
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.rows {
  width: 100%;
  border-collapse: collapse;
  margin-bottom: 16px;
}
th {
  text-align: left;
  font-weight: 400;
  color: var(--ink-soft);
  padding-bottom: 3px;
}
td,
th {
  padding: 2px 0;
  vertical-align: top;
}
.number {
  text-align: right;
  padding-left: 12px;
  font-variant-numeric: tabular-nums;
}
.none {
  color: var(--tide-text);
  font-weight: 600;
}
.kind::first-letter {
  text-transform: uppercase;
}
</style>
