<script setup lang="ts">
import MissingShell from '~/shells/MissingShell.vue'
import NewCourse from '~/shells/NewCourse.vue'
import WithoutShell from '~/shells/WithoutShell.vue'

useHead({ title: 'No shell yet · Northtide' })
const route = useRoute()
const ways = [
  { key: 'missing', name: 'Find out why, and ask' },
  { key: 'term', name: 'Plan for the term' },
  { key: 'place', name: 'Roll a course in place' },
  { key: 'new', name: 'Make a new course' },
] as const
const way = computed(() => ways.find(entry => entry.key === route.query.way)?.key ?? 'missing')
</script>

<template>
  <main class="page">
    <header>
      <h1>No shell yet</h1>
      <p class="soft">Ask for it, plan while it is on its way, or do without one.</p>
    </header>
    <nav aria-label="What to do" class="choice-line">
      <NuxtLink
        v-for="entry in ways"
        :key="entry.key"
        :to="{ query: { ...route.query, way: entry.key } }"
        replace
        :class="{ on: way === entry.key }"
        :aria-current="way === entry.key ? 'true' : undefined"
        >{{ entry.name }}</NuxtLink
      >
    </nav>
    <MissingShell v-if="way === 'missing'" />
    <NewCourse v-else-if="way === 'new'" />
    <WithoutShell v-else :key="way" :mode="way === 'place' ? 'in-place' : 'roll'" />
  </main>
</template>
