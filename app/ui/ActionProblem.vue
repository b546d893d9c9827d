<script setup lang="ts">
import type { ApiProblem } from '~/composables/api'

/** What went wrong with something that was asked for; nothing where all went well. `line`: within a row or panel. */
const props = defineProps<{ problem: ApiProblem | null; line?: boolean }>()
const detail = computed(() => props.problem?.errors[0]?.message ?? props.problem?.detail)
</script>

<template>
  <template v-if="problem">
    <p v-if="line" class="small settle" role="alert">{{ problem.title }}. {{ detail }}</p>
    <div v-else class="note buoy" role="alert">
      <h3>{{ problem.title }}</h3>
      <p>{{ detail }}</p>
    </div>
  </template>
</template>
