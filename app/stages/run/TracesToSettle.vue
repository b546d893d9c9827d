<script setup lang="ts">
import { present } from '~~/core/present'
import { isNameAlone, namesText } from '../clear/trace-words'
import { useStagePlan } from '../plan/store'

/** Traces of which nobody has said anything: they bar the way, and can all be settled here at once. */
const props = defineProps<{ count: number }>()
const emit = defineEmits<{ settled: [] }>()
const { store, plan } = useStagePlan()
const session = useSession()
const canChange = computed(() => plan.value.may.edit && store.tracesToSettle.length > 0)
/** Names alone that can be said otherwise; what can only be kept or left behind, or does not read right, needs a look. */
const open = computed(() =>
  store.tracesToSettle.filter(trace => trace.can.includes('role') && isNameAlone(trace)),
)
const rest = computed(() => store.tracesToSettle.length - open.value.length)
const placesText = computed(() =>
  open.value.length === 1 ? 'that place' : `these ${open.value.length} places`,
)
const by = computed(() => present(session.person).name)
const ids = computed(() => open.value.map(trace => trace.id))
function settle(does: 'role' | 'keep', because = ''): void {
  store.settle(ids.value, { does, because, by: by.value })
  emit('settled')
}
</script>

<template>
  <div class="note brass" role="status">
    <h3>
      {{ counted(props.count, 'possible trace') }} of students {{ props.count === 1 ? 'is' : 'are' }} not
      settled
    </h3>
    <p class="small">
      Each is a name that may be a student’s, or a file with students in it. Say what becomes of
      {{ props.count === 1 ? 'it' : 'each' }}, then run.
      <template v-if="canChange && open.length && rest">
        {{ open.length }} of them {{ open.length === 1 ? 'is a name' : 'are names' }} alone:
        {{ namesText(open) }}. The other {{ rest }} {{ rest === 1 ? 'needs' : 'need' }} a look in Clear.
      </template>
      <template v-else-if="canChange && open.length">
        {{ open.length === 1 ? 'It is' : 'All are names' }}
        {{ open.length === 1 ? 'one name alone' : 'alone' }}: {{ namesText(open) }}.
      </template>
    </p>
    <p class="acts small">
      <NuxtLink :to="`/plans/${plan.id}/clear`"
        >Settle {{ props.count === 1 ? 'it' : 'them' }} in Clear</NuxtLink
      >
      <template v-if="canChange && open.length">
        <button class="link" type="button" @click="settle('role')">
          Say “a student” in {{ placesText }}
        </button>
        <button class="link" type="button" @click="settle('keep', 'no student of ours')">
          Keep the {{ open.length === 1 ? 'name' : 'names' }} in {{ placesText }}: no student of ours
        </button>
      </template>
    </p>
  </div>
</template>

<style scoped>
.note {
  margin-bottom: 10px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  margin-top: 4px;
}
</style>
