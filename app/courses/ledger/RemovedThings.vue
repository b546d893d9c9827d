<script setup lang="ts">
import type { CourseLedger } from '~~/shared/api/ledger'

/** What was removed from the shell and is kept aside: it can be brought back. */
defineProps<{ removed: CourseLedger['removed'] }>()
defineEmits<{ bringBack: [lineage: string] }>()
</script>

<template>
  <details v-if="removed.length" class="small">
    <summary>{{ counted(removed.length, 'thing') }} removed, kept aside</summary>
    <ul>
      <li v-for="thing in removed" :key="thing.lineage">
        <KindMark v-if="thing.kind" :kind="thing.kind" /> <bdi>{{ thing.title }}</bdi>
        <button
          class="link"
          type="button"
          :aria-label="`Bring “${thing.title}” back`"
          @click="$emit('bringBack', thing.lineage)"
        >
          Bring it back
        </button>
      </li>
    </ul>
  </details>
</template>

<style scoped>
summary {
  cursor: pointer;
  color: var(--tide-text);
}
ul {
  list-style: none;
  max-height: 220px;
  overflow: auto;
}
li {
  padding: 2px 0;
}
</style>
