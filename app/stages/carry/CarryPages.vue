<script setup lang="ts">
import { useStagePlan } from '../plan/store'

/** The pages of this stage: the ledger, and what is decided beside it. */
const { plan } = useStagePlan()
const route = useRoute()
const pages = [
  { key: 'carry', name: 'Units and items' },
  { key: 'around', name: 'Around the units' },
  { key: 'settings', name: 'Settings' },
  { key: 'worth', name: 'Worth a look' },
  { key: 'find', name: 'Find elsewhere' },
]
const isHere = (key: string): boolean => route.path.endsWith(`/${key}`)
</script>

<template>
  <nav class="choice-line" aria-label="Pages of Carry">
    <NuxtLink
      v-for="page in pages"
      :key="page.key"
      :to="`/plans/${plan.id}/${page.key}`"
      :class="{ on: isHere(page.key) }"
      :aria-current="isHere(page.key) ? 'page' : undefined"
      >{{ page.name }}</NuxtLink
    >
  </nav>
</template>

<style scoped>
nav {
  margin-bottom: 8px;
}
</style>
