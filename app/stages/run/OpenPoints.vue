<script setup lang="ts">
import { titleOf } from '../carry/carry'
import { usePlan } from '../plan/store'

/** What is still to say of places, grade rules and people; of dates, traces and files their own lists tell. Each leads to where it is said. */
const props = defineProps<{ planId: string }>()
const store = usePlan()
const grades = computed(() => store.carrying?.grades ?? null)
const lines = computed(() => [
  ...store.rows
    .filter(row => row.settle)
    .map(row => ({
      key: `place ${row.key}`,
      to: `/plans/${props.planId}/carry?item=${row.key}`,
      title: titleOf(row),
      text: row.happens === 'again' ? 'was changed there and here' : 'meets something of the shell',
    })),
  ...(grades.value?.categories ?? [])
    .filter(line => line.settle)
    .map(line => ({
      key: `category ${line.lineage}`,
      to: `/plans/${props.planId}/grades`,
      title: line.title,
      text: 'has other rules in the shell',
    })),
  ...(grades.value?.rulesSettle
    ? [
        {
          key: 'rules',
          to: `/plans/${props.planId}/grades`,
          title: 'Grade rules',
          text: 'the shell reckons grades otherwise',
        },
      ]
    : []),
  ...(store.toSettle.clearing > 0
    ? [
        {
          key: 'people',
          to: `/plans/${props.planId}/clear`,
          title: 'People',
          text: `${counted(store.toSettle.clearing, 'person was', 'people were')} added by hand: say whether they stay`,
        },
      ]
    : []),
])
</script>

<template>
  <section v-if="lines.length" class="open">
    <h3>
      {{ counted(lines.length, 'thing waits', 'things wait') }} for your word in Carry, the grade rules or
      Clear
    </h3>
    <p class="small soft">You can run all the same. What is proposed is then done.</p>
    <ul>
      <li v-for="{ key, to, title, text } in lines" :key="key">
        <NuxtLink :to="to"
          ><bdi>{{ title }}</bdi></NuxtLink
        >
        <span class="soft">{{ text }}</span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.open {
  margin-top: 22px;
}
ul {
  list-style: none;
}
li {
  padding: 5px 0;
  border-bottom: 1px solid var(--rule);
  max-width: 760px;
  display: flex;
  gap: 8px;
  align-items: baseline;
}
</style>
