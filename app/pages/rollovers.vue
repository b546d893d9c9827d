<script setup lang="ts">
import type { PlansReply } from '~~/shared/api/plans'
import type { ApiProblem } from '~/composables/api'

useHead({ title: 'Rollovers · Northtide' })
const { data, problem, refresh } = useLoaded(() => api.get<PlansReply>('/plans'))
onMounted(refresh)
const asking = ref<string | null>(null)
const discardProblem = shallowRef<ApiProblem | null>(null)
async function discard(id: string): Promise<void> {
  try {
    await api.delete(`/plans/${id}`)
  } catch (error) {
    discardProblem.value = asProblem(error)
  }
  asking.value = null
  await refresh()
}
</script>

<template>
  <main class="page">
    <header>
      <h1>Rollovers</h1>
      <p class="soft">Plans under way, and what has been run.</p>
    </header>
    <ProblemNote
      v-if="problem ?? discardProblem"
      :problem="(problem ?? discardProblem)!"
      @retry="
        discardProblem = null
        refresh()
      "
    />
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
            <NuxtLink :to="`/plans/${plan.id}/${plan.state === 'run' ? 'run' : 'date'}`"
              ><b>{{ codeText(plan.target) }}</b> {{ plan.target.title }},
              {{ plan.target.term.name }}</NuxtLink
            >
          </td>
          <td>
            {{ plan.mode === 'in-place' && plan.state === 'draft' ? 'in place, ' : ''
            }}{{ plan.sources.map(source => `${codeText(source)}, ${source.term.name}`).join('; ') }}
          </td>
          <td>
            <span v-if="plan.writing" class="settle"
              >{{ plan.writing.by }} is writing into the shell since
              {{ instantText(plan.writing.since, plan.target.term.timeZone).slice(-5) }}</span
            ><span v-else-if="plan.run" class="kept">{{
              plan.mode === 'in-place' ? 'rolled in place' : `run, ${counted(plan.run.items, 'item')} added`
            }}</span
            ><span v-else
              >a draft;
              {{
                plan.target.origin === 'awaited' && plan.mode === 'roll'
                  ? 'waits for its shell'
                  : 'nothing is written'
              }}</span
            >
          </td>
          <td class="soft">
            {{ instantText(plan.updatedAt, plan.target.term.timeZone) }}, {{ plan.updatedBy }}
          </td>
          <td class="acts">
            <NuxtLink v-if="plan.run" :to="`/runs/${plan.run.id}`">Record</NuxtLink>
            <template v-else-if="asking === plan.id"
              ><button class="link danger" type="button" @click="discard(plan.id)">
                Discard the plan for {{ codeText(plan.target) }}
              </button>
              <button class="link" type="button" @click="asking = null">Keep it</button></template
            >
            <button
              v-else-if="plan.target.role && plan.target.role !== 'coordinator'"
              class="link"
              type="button"
              @click="asking = plan.id"
            >
              Discard …
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <div v-else-if="data" class="note empty">
      <h3>No rollover yet</h3>
      <p>A plan starts from a shell: choose one and take the course that is suggested for it.</p>
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
