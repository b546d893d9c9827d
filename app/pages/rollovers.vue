<script setup lang="ts">
import { progressText } from '~/stages/run/progress'
import type { PlansReply } from '~~/shared/api/plans'

type PlanLine = PlansReply['plans'][number]

useHead({ title: 'Rollovers · Northtide' })
const { data, problem, refresh } = useLoaded(() => api.get<PlansReply>('/plans'))
onMounted(refresh)
/** The plan that is about to be discarded: asked once more before it is. */
const asking = ref<string | null>(null)
const { run: discard, problem: discardProblem } = useAction((id: string) => api.delete(`/plans/${id}`))
async function discardAsked(id: string): Promise<void> {
  await discard(id)
  asking.value = null
  await refresh()
}
const shownProblem = computed(() => problem.value ?? discardProblem.value)
async function again(): Promise<void> {
  discardProblem.value = null
  await refresh()
}
useRefreshWhile(
  computed(() => data.value?.plans.some(plan => plan.writing) ?? false),
  refresh,
  1500,
)
const sourcesText = (plan: PlanLine): string => {
  const sources = plan.sources
    .map(source => `${codeText(source)} ${source.title}, ${source.term.name}`)
    .join('; ')
  return plan.mode === 'in-place' && plan.state === 'draft' ? `in place, ${sources}` : sources
}
const mayDiscard = (plan: PlanLine): boolean =>
  plan.state === 'draft' && plan.target.role !== null && plan.target.role !== 'coordinator'

/** What stands with a plan, and the colour it is said in. */
function stateOf(plan: PlanLine): { text: string; colour: string } {
  if (plan.writing) {
    const since = instantText(plan.writing.since).slice(-5)
    return {
      text: `${plan.writing.by} runs into the shell since ${since}. ${progressText(plan.writing)}`,
      colour: 'settle',
    }
  }
  if (plan.run) {
    const rolled = `run, ${counted(plan.run.items, 'item')} added`
    return { text: plan.mode === 'in-place' ? 'rolled in place' : rolled, colour: 'kept' }
  }
  if (plan.undone) return { text: 'a draft again; its run was undone', colour: '' }
  const waits = plan.target.origin === 'awaited' && plan.mode === 'roll'
  return { text: waits ? 'a draft; waits for its shell' : 'a draft; nothing is written', colour: '' }
}
</script>

<template>
  <main class="page">
    <header>
      <h1>Rollovers</h1>
      <p class="soft">
        Plans under way, and what has been run. <NuxtLink to="/habits">Your habits</NuxtLink> are what plans
        begin with.
      </p>
    </header>
    <ProblemNote v-if="shownProblem" :problem="shownProblem" @retry="again" />
    <LoadingLines v-if="!data && !problem" what="Fetching your plans …" />
    <table v-if="data?.plans.length" class="ruled">
      <thead>
        <tr>
          <th scope="col">Into</th>
          <th scope="col">From</th>
          <th scope="col">State</th>
          <th scope="col">Last touched</th>
          <th scope="col"><span class="visually-hidden">What can be done</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="plan in data.plans" :key="plan.id">
          <td>
            <NuxtLink :to="plan.state === 'run' ? `/plans/${plan.id}/run` : `/plans/${plan.id}`">
              <b>{{ codeOf(plan.target) }}</b> <bdi>{{ plan.target.title }}</bdi>,
              {{ plan.target.term.name }}
            </NuxtLink>
          </td>
          <td>{{ sourcesText(plan) }}</td>
          <td>
            <span :class="stateOf(plan).colour">{{ stateOf(plan).text }}</span>
          </td>
          <td class="soft">{{ instantBeside(plan.target, plan.updatedAt) }}, {{ plan.updatedBy }}</td>
          <td class="acts">
            <NuxtLink v-if="plan.run" :to="`/runs/${plan.run.id}`">Record</NuxtLink>
            <template v-else-if="asking === plan.id">
              <button class="link danger" type="button" @click="discardAsked(plan.id)">
                Discard the plan for {{ codeText(plan.target) }}
              </button>
              <button class="link" type="button" @click="asking = null">Keep it</button>
            </template>
            <button v-else-if="mayDiscard(plan)" class="link" type="button" @click="asking = plan.id">
              Discard …
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <div v-else-if="data" class="note empty">
      <h2>No rollover yet</h2>
      <p>To begin, choose a shell and roll from the course suggested for it.</p>
      <NuxtLink class="act" to="/">To the shells</NuxtLink>
    </div>
  </main>
</template>

<style scoped>
.empty {
  max-width: 520px;
}
.acts {
  text-align: right;
  white-space: nowrap;
}
.danger {
  color: var(--buoy);
  font-weight: 600;
  margin-right: 12px;
}
b {
  font-weight: 600;
}
</style>
