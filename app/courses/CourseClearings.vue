<script setup lang="ts">
import type { ClearingsReply } from '~~/shared/api/clearing'

/** What was cleared of student data in a course, and what of it can still be put back. */
const props = defineProps<{ id: string }>()
const emit = defineEmits<{ restored: [] }>()
const { data, problem, refresh } = useLoaded(() => api.get<ClearingsReply>(`/courses/${props.id}/clearings`))
watch(
  () => props.id,
  () => void refresh(),
  { immediate: true },
)
/** The clearing of which somebody is asked once more. */
const asked = ref<string | null>(null)
const {
  run,
  busy,
  problem: restoreProblem,
} = useAction(async (clearing: string) => {
  await api.post(`/courses/${props.id}/clearings/${clearing}/restore`, {})
  asked.value = null
  emit('restored')
})
async function putBack(clearing: string): Promise<void> {
  await run(clearing)
  await refresh()
}
type Line = ClearingsReply['clearings'][number]
const whatText = ({ rows, people }: Line): string =>
  [counted(rows, 'record'), people > 0 && `${counted(people, 'person', 'people')} taken off`]
    .filter(Boolean)
    .join(', ')
const stateText = ({ state, keepUntil, endedAt }: Line): string => {
  if (state === 'kept') return `Kept aside until ${instantText(keepUntil)}.`
  const when = endedAt === null ? '' : ` ${instantText(endedAt)}`
  return state === 'restored' ? `Put back${when}.` : `Destroyed${when}.`
}
</script>

<template>
  <section v-if="problem || data?.clearings.length">
    <h2>Cleared here</h2>
    <ProblemNote v-if="problem" :problem="problem" @retry="refresh" />
    <ProblemNote v-if="restoreProblem" :problem="restoreProblem" @retry="refresh" />
    <ul>
      <li v-for="line in data?.clearings" :key="line.id" class="small">
        {{ whatText(line) }}, by {{ line.by }}, {{ instantText(line.clearedAt) }}. {{ stateText(line) }}
        <template v-if="line.state === 'kept'">
          <button v-if="asked !== line.id" class="link" type="button" @click="asked = line.id">
            Put it back …
          </button>
          <span v-else class="ask">
            Students of last term and what they did stand in this course again then.
            <button class="link" type="button" :disabled="busy" @click="putBack(line.id)">
              Put {{ counted(line.rows, 'record') }} back
            </button>
            <button class="link" type="button" :disabled="busy" @click="asked = null">Leave it aside</button>
          </span>
        </template>
      </li>
    </ul>
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
.ask {
  display: block;
  margin-top: 2px;
}
.ask .link {
  margin-right: 12px;
}
</style>
