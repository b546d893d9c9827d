<script setup lang="ts">
import type { NuxtError } from '#app'

const props = defineProps<{ error: NuxtError }>()
const missing = computed(() => props.error.statusCode === 404)
</script>

<template>
  <main class="page">
    <h1>{{ missing ? 'There is no such page' : 'This page met an error' }}</h1>
    <p class="soft">
      {{
        missing
          ? 'The address may be mistyped, or what it led to was discarded.'
          : `${error.message}. What you had saved is kept.`
      }}
    </p>
    <button class="act" type="button" @click="clearError({ redirect: '/' })">Back to the shells</button>
  </main>
</template>
