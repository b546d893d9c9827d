<script setup lang="ts">
import type { StaffReply } from '~~/shared/api/people'

/** Who works in a course; an instructor lets an assistant run plans into it. */
const props = defineProps<{ id: string; may: boolean }>()
const emit = defineEmits<{ ready: [] }>()
const { data, problem, refresh } = useLoaded(() => api.get<StaffReply>(`/courses/${props.id}/staff`))
watch(
  () => props.id,
  () => void refresh(),
  { immediate: true },
)
// What stands below comes once this is there: nothing may move away from under a press.
watch([data, problem], () => emit('ready'))
const { run, problem: actProblem } = useAction((person: string, mayRun: boolean) =>
  api.put(`/courses/${props.id}/staff`, { person, mayRun }),
)
async function letRun(person: string, mayRun: boolean): Promise<void> {
  await run(person, mayRun)
  await refresh()
}
const shownProblem = computed(() => problem.value ?? actProblem.value)
async function again(): Promise<void> {
  actProblem.value = null
  await refresh()
}
/** `instructor, main` */
const roleText = (person: StaffReply['staff'][number]): string =>
  [person.role, person.primary && 'main', person.dropped && 'taken off by the registrar']
    .filter(Boolean)
    .join(', ')
</script>

<template>
  <section>
    <h2>People</h2>
    <ProblemNote v-if="shownProblem" :problem="shownProblem" @retry="again" />
    <ul>
      <li v-for="person in data?.staff" :key="person.personId + person.role">
        {{ person.name }}
        <span class="soft small">{{ roleText(person) }}</span>
        <template v-if="person.role === 'assistant' && !person.dropped">
          <ElCheckbox
            v-if="may"
            :model-value="person.mayRun"
            @change="value => letRun(person.personId, Boolean(value))"
          >
            may run plans into this shell
          </ElCheckbox>
          <span v-else class="small soft line">{{ person.mayRun ? 'may run plans' : 'prepares plans' }}</span>
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
.line {
  display: block;
}
</style>
