<script setup lang="ts">
import type { StaffReply } from '~~/shared/api/people'
import type { ApiProblem } from '~/composables/api'

/** Who works in a course; an instructor lets an assistant run plans into it. */
const props = defineProps<{ id: string; may: boolean }>()
const { data, problem, refresh } = useLoaded(() => api.get<StaffReply>(`/courses/${props.id}/staff`))
watch(
  () => props.id,
  () => void refresh(),
  { immediate: true },
)
const actProblem = shallowRef<ApiProblem | null>(null)
async function let_(person: string, mayRun: boolean): Promise<void> {
  actProblem.value = null
  try {
    await api.put(`/courses/${props.id}/staff`, { person, mayRun })
  } catch (error) {
    actProblem.value = asProblem(error)
  }
  await refresh()
}
</script>

<template>
  <section>
    <h2>People</h2>
    <ProblemNote
      v-if="problem ?? actProblem"
      :problem="(problem ?? actProblem)!"
      @retry="
        actProblem = null
        refresh()
      "
    />
    <ul>
      <li v-for="person in data?.staff" :key="person.personId + person.role">
        {{ person.name }}
        <span class="soft small"
          >{{ person.role }}{{ person.primary ? ', main' : ''
          }}{{ person.dropped ? ', taken off by the registrar' : '' }}</span
        >
        <template v-if="person.role === 'assistant' && !person.dropped">
          <ElCheckbox
            v-if="may"
            :model-value="person.mayRun"
            @change="value => let_(person.personId, Boolean(value))"
            >may run plans into this shell</ElCheckbox
          >
          <span v-else class="small soft"
            ><br />{{ person.mayRun ? 'may run plans' : 'prepares plans' }}</span
          >
        </template>
      </li>
    </ul>
    <p v-if="data && !data.staff.length" class="soft small">Nobody yet.</p>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
}
li {
  padding: 4px 0;
  border-bottom: 1px solid var(--rule);
}
li :deep(.el-checkbox) {
  display: flex;
  height: auto;
}
</style>
