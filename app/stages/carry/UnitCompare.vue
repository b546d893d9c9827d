<script setup lang="ts">
import { happeningText } from './carry'
import { usePlan } from '../plan/store'

/** Old and new of two units side by side: what the old one holds, what the shell's holds, each beside what it meets. */
const props = defineProps<{ source: string; shell: string }>()
const store = usePlan()
const lines = computed(() =>
  store.rows.filter(
    row => row.type === 'item' && (row.source?.unit === props.source || row.shell?.unit === props.shell),
  ),
)
</script>

<template>
  <p v-if="!lines.length" class="small soft">Neither unit holds an item.</p>
  <div v-else class="compare" tabindex="0" role="region" aria-label="Both units side by side">
    <table class="ruled">
      <thead>
        <tr>
          <th scope="col">Old course</th>
          <th scope="col">Shell now</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in lines" :key="row.key">
          <td>
            <template v-if="row.source?.unit === source"
              ><KindMark :kind="row.source.kind" /> <bdi>{{ row.source.title }}</bdi></template
            >
          </td>
          <td>
            <template v-if="row.shell?.unit === shell">
              <KindMark v-if="!row.shell.holds" :kind="row.shell.kind" /> <bdi>{{ row.shell.title }}</bdi>
            </template>
            <span v-else class="soft">{{ happeningText(row) }}</span>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.compare {
  max-height: 240px;
  overflow: auto;
  margin-bottom: 10px;
}
table {
  table-layout: fixed;
}
td {
  overflow-wrap: anywhere;
  font-size: 12.5px;
}
</style>
