<script setup lang="ts">
import type { ApiProblem } from '~/composables/api'

/** What went wrong, what is safe, and a way on. */
defineProps<{ problem: ApiProblem }>()
defineEmits<{ retry: [] }>()
</script>

<template>
  <div class="note buoy" role="alert">
    <h3>{{ problem.title }}</h3>
    <p>{{ problem.detail }}</p>
    <ul v-if="problem.errors.length" class="errors">
      <li v-for="error in problem.errors" :key="error.field">{{ error.field }}: {{ error.message }}</li>
    </ul>
    <!-- A wrong address stays wrong, however often it is asked for. -->
    <slot
      ><NuxtLink v-if="problem.status === 400" to="/">Back to the shells</NuxtLink
      ><button v-else class="act plain" type="button" @click="$emit('retry')">Try again</button></slot
    >
  </div>
</template>

<style scoped>
.note {
  max-width: 560px;
}
.errors {
  padding-left: 18px;
  margin-bottom: 8px;
}
</style>
