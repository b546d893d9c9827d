<script setup lang="ts">
import type { MoreReply } from '~~/shared/api/more'

/** Units that the course has from which this shell was filled, and the shell has not: each is two presses from the summary. */
const props = defineProps<{ id: string; mayPlan: boolean }>()
const { data, refresh } = useLoaded(() => api.get<MoreReply>(`/courses/${props.id}/more`))
onMounted(refresh)
const begin = useAction(async (unit: string) => {
  const { id } = await api.post<{ id: string }>(`/courses/${props.id}/more`, { unit })
  await navigateTo(`/plans/${id}/run`)
})
</script>

<template>
  <section v-if="data?.source && data.units.length && mayPlan" id="bring-more">
    <h2>Bring more</h2>
    <p class="small soft">
      From {{ codeText(data.source) }}, {{ data.source.term.name }}, with the decisions of the last run. The
      summary comes first.
    </p>
    <ul>
      <li v-for="unit in data.units" :key="unit.lineage" class="small">
        <button class="link" type="button" :disabled="begin.busy.value" @click="begin.run(unit.lineage)">
          Bring “<bdi>{{ unit.title }}</bdi
          >”
        </button>
        <span class="soft"> {{ counted(unit.items, 'item') }}</span>
      </li>
    </ul>
    <ActionProblem :problem="begin.problem.value" line />
  </section>
</template>

<style scoped>
ul {
  list-style: none;
}
li {
  padding: 3px 0;
}
p {
  margin: 0 0 4px;
}
</style>
