<script setup lang="ts" generic="T">
import type { ApiProblem } from '~/composables/api'

/** A page about one run: its head, and what to see while it loads or where it cannot be had. */
defineProps<{ data: T | null; problem: ApiProblem | null; waits: string }>()
defineEmits<{ retry: [] }>()
defineSlots<Record<'above' | 'title' | 'head' | 'default', (given: { data: T }) => unknown>>()
</script>

<template>
  <main class="page">
    <ProblemNote v-if="problem" :problem="problem" @retry="$emit('retry')">
      <NuxtLink v-if="problem.status === 404" to="/rollovers">Back to Rollovers</NuxtLink>
    </ProblemNote>
    <LoadingLines v-else-if="data === null" :what="waits" />
    <template v-else>
      <header>
        <p class="caps"><slot name="above" :data="data" /></p>
        <h1><slot name="title" :data="data" /></h1>
        <slot name="head" :data="data" />
      </header>
      <slot :data="data" />
    </template>
  </main>
</template>
