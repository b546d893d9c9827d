<script setup lang="ts">
import type { ApiProblem } from '~/composables/api'
import { differenceLines } from '../differences'
import { usePlan } from '../plan/store'
import { arriving, lostCount } from '~~/core/plan/effect-text'
import type { FurtherEffect } from './further'

/** What the same plan would do to its further shells, and what is decided otherwise for them. */
const store = usePlan()
const props = defineProps<{ effects: FurtherEffect[] | null; problem: ApiProblem | null }>()
defineEmits<{ retry: [] }>()
const lines = computed(() =>
  (props.effects ?? []).map(({ entry, effect }) => ({
    id: entry.id,
    code: codeText(entry.course),
    differences: differenceLines(entry, store.nodes),
    text: [
      `${meetingText(entry.course.meetings) || 'no meeting times'} · adds ${counted(arriving(effect), 'item')}`,
      lostCount(effect) === 0
        ? 'overwrites nothing'
        : `overwrites or removes ${counted(lostCount(effect), 'thing')}`,
      counted(effect.dates.dates, 'date'),
      `${effect.dates.settle} to settle`,
    ].join(', '),
  })),
)
</script>

<template>
  <section class="further">
    <h3>The same plan for {{ counted(lines.length, 'more shell', 'more shells') }}</h3>
    <ProblemNote v-if="problem" :problem="problem" @retry="$emit('retry')" />
    <ul v-else>
      <li v-for="{ id, code, text, differences } in lines" :key="id">
        <NuxtLink :to="`/plans/${id}/run`">{{ code }}</NuxtLink> <span class="soft">{{ text }}</span>
        <p v-for="line in differences" :key="line" class="small settle">{{ line }}</p>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.further {
  margin-top: 22px;
}
ul {
  list-style: none;
}
p {
  margin: 0;
}
li {
  padding: 5px 0;
  border-bottom: 1px solid var(--rule);
  max-width: 760px;
}
</style>
