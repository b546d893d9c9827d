<script setup lang="ts">
import type { TriedCode } from './reading'

/** What the patterns make of a code, and whether it names another term. */
defineProps<{ tried: TriedCode; hasPatterns: boolean }>()
</script>

<template>
  <span>
    <span v-if="tried.says === null" class="soft">
      {{ hasPatterns ? 'no pattern fits: ' : '' }}{{ tried.key }}, by its letters and digits
    </span>
    <template v-else>
      {{ tried.says }}
      <span v-if="tried.wrong" class="settle">
        · the code says {{ tried.wrong.code }}, the course is in {{ tried.wrong.term }}
      </span>
    </template>
  </span>
</template>
