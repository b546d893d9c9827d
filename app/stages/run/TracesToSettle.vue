<script setup lang="ts">
import { there } from '~~/core/there'
import { useStagePlan } from '../plan/store'

/** Traces of which nobody has said anything: they bar the way, and can all be settled here at once. */
const props = defineProps<{ count: number }>()
const emit = defineEmits<{ settled: [] }>()
const { store, plan } = useStagePlan()
const session = useSession()
const canChange = computed(() => plan.value.may.edit && store.tracesToSettle.length > 0)
/** All that can be said otherwise; what can only be kept or left behind needs a look. */
const open = computed(() => store.tracesToSettle.filter(trace => trace.can.includes('role')))
const by = computed(() => there(session.person).name)
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
    </p>
    <p class="acts small">
      <NuxtLink :to="`/plans/${plan.id}/clear`"
        >Settle {{ props.count === 1 ? 'it' : 'them' }} in Clear</NuxtLink
      >
      <template v-if="canChange && open.length">
        <button class="link" type="button" @click="settle('role')">
          Say “a student” {{ open.length === 1 ? 'there' : `in all ${open.length}` }}
        </button>
        <button class="link" type="button" @click="settle('keep', 'no student of ours')">
          Keep {{ open.length === 1 ? 'it: it is' : `all ${open.length}: they are` }} no student of ours
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
