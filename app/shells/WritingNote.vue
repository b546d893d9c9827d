<script setup lang="ts">
import type { WritingNow } from '~~/shared/api/writing'
import { progressText } from '~/stages/run/progress'

/** Who runs into a course, since when, and how far that is. */
defineProps<{ writing: NonNullable<WritingNow> }>()
</script>

<template>
  <p class="line settle">
    <b>{{ writing.by }}</b> runs into it since {{ instantText(writing.since).slice(-5) }}.
    {{ progressText(writing) }}
    <NuxtLink :to="`/plans/${writing.plan}/run`">Show the run</NuxtLink>
  </p>
</template>
