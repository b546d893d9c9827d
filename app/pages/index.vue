<script setup lang="ts">
import type { ShellLine, ShellsReply } from '~~/shared/api/courses'
import type { ApiProblem } from '~/composables/api'
import ShellRow from '~/stages/pair/ShellRow.vue'

useHead({ title: 'Shells · Northtide' })
const { data, problem, refresh } = useLoaded(() => api.get<ShellsReply>('/shells'))
onMounted(refresh)
const groups = computed(() => {
  const terms = new Map<string, ShellLine[]>()
  for (const shell of data.value?.shells ?? []) terms.set(shell.course.term.name, [...terms.get(shell.course.term.name) ?? [], shell])
  return [...terms].map(([name, shells]) => ({ name, shells, days: shells[0]!.daysToClasses, from: shells[0]!.course.term.classesFrom }))
})
const until = (days: number): string => days > 1 ? `classes begin in ${days} days` : days === 1 ? 'classes begin tomorrow' : days === 0 ? 'classes begin today' : `classes began ${counted(-days, 'day')} ago`
const cursor = ref(0)
const flat = computed(() => groups.value.flatMap(group => group.shells))
const starting = ref<string | null>(null)
const startProblem = shallowRef<ApiProblem | null>(null)
async function start(shell: ShellLine, source: string): Promise<void> {
  starting.value = shell.course.id
  startProblem.value = null
  try { await navigateTo(`/plans/${(await api.post<{ id: string }>('/plans', { source, target: shell.course.id })).id}/pair`) }
  catch (error) { startProblem.value = asProblem(error) }
  finally { starting.value = null }
}
useKeys([
  ...['j', 'ArrowDown'].map(key => ({ key, does: 'next shell', run: () => { cursor.value = Math.min(flat.value.length - 1, cursor.value + 1) } })),
  ...['k', 'ArrowUp'].map(key => ({ key, does: 'shell before', run: () => { cursor.value = Math.max(0, cursor.value - 1) } })),
  { key: 'Enter', does: 'plan this shell, or take its plan up again', run: () => {
    const shell = flat.value[cursor.value]
    if (shell?.plan) void navigateTo(`/plans/${shell.plan.id}/pair`)
    else if (shell?.suggestion && shell.mayPlan) void start(shell, shell.suggestion.course.id)
  } },
])
</script>

<template>
  <main class="page">
    <header><h1>Shells</h1><p class="soft">Courses that the registrar has made ready, and what could fill them. The old course is in a file? <NuxtLink to="/files">Bring it in</NuxtLink>.</p></header>
    <ProblemNote v-if="problem" :problem="problem" @retry="refresh" />
    <ProblemNote v-if="startProblem" :problem="startProblem" @retry="startProblem = null" />
    <LoadingLines v-if="!data && !problem" what="Fetching your shells …" />
    <section v-for="group in groups" :key="group.name">
      <h2>{{ group.name }} <span class="soft small">{{ until(group.days) }}, {{ dayText(group.from) }}</span></h2>
      <ShellRow v-for="shell in group.shells" :key="shell.course.id" :shell="shell" :current="flat[cursor]?.course.id === shell.course.id" :starting="starting === shell.course.id" @start="source => start(shell, source)" @point="cursor = flat.indexOf(shell)" />
    </section>
    <div v-if="data && !data.shells.length" class="note empty">
      <h3>No shell is waiting for you</h3>
      <p>The registrar has not listed you on a course of a coming term. If there should be one, it is not made yet, or somebody else is listed on it: ask the registrar’s office.</p>
      <p><NuxtLink to="/rollovers">Look at earlier rollovers</NuxtLink></p>
    </div>
  </main>
</template>

<style scoped>
section { margin-bottom: 30px; }
section h2 { border-bottom: 1.5px solid var(--rule-strong); padding-bottom: 6px; }
section h2 .small { font-family: var(--sans); font-weight: 400; margin-left: 10px; }
.empty { max-width: 560px; }
</style>
