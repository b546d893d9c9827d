<script setup lang="ts">
import { looksAtMeetings } from '~~/core/plan/sections'
import { useStagePlan } from '../plan/store'

/** Which sections show this content, and what dates they get. */
const { plan, document } = useStagePlan()
const shown = computed(() => plan.value.sections.filter(entry => entry.joined || entry.chosen))
const named = computed(() =>
  listText(
    shown.value.map(({ course }) => {
      const meets = meetingText(course.meetings)
      return meets ? `${codeText(course)} (${meets})` : codeText(course)
    }),
  ),
)
const isOne = computed(() => shown.value.length === 1)
const datesText = computed(() =>
  looksAtMeetings(document.value.dates)
    ? `${isOne.value ? 'Its' : 'Their'} dates follow ${isOne.value ? 'its' : 'their'} own meetings`
    : `${isOne.value ? 'It gets' : 'They get'} these same dates: the rule counts days and weeks, not meetings`,
)
</script>

<template>
  <p v-if="shown.length" class="small note">
    {{ named }} {{ isOne ? 'shows' : 'show' }} this content too. {{ datesText }}.
    <NuxtLink :to="`/plans/${plan.id}/run`">See them in Run</NuxtLink>
  </p>
</template>
