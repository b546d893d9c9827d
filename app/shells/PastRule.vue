<script setup lang="ts">
import type { ShellsReply } from '~~/shared/api/shells'

/** When a course counts as past or archived, said where such courses are listed; the academic office changes it here. */
const props = defineProps<{ rule: ShellsReply['pastRule'] }>()
const emit = defineEmits<{ saved: [] }>()
const editing = ref(false)
const draft = reactive({ pastAfter: 0, archivedAfter: 0 })
const text = computed(() => {
  const { pastAfter, archivedAfter } = props.rule
  const past =
    pastAfter === 0 ? 'once its classes have ended' : `${counted(pastAfter, 'day')} after its classes end`
  return `A course is past ${past}. It is archived after ${counted(archivedAfter, 'day')}.`
})
function edit(): void {
  Object.assign(draft, { pastAfter: props.rule.pastAfter, archivedAfter: props.rule.archivedAfter })
  editing.value = true
}
const {
  run: save,
  busy,
  problem,
} = useAction(async () => {
  await api.put('/shells/past', { ...draft }, props.rule.revision)
  editing.value = false
  emit('saved')
})
const faultOf = (field: string): string =>
  problem.value?.errors.find(error => error.field === field)?.message ?? ''
</script>

<template>
  <p v-if="!editing" class="small soft">
    {{ text }}
    <button v-if="rule.may.edit" class="link" type="button" @click="edit">Change this rule</button>
  </p>
  <form v-else class="small" aria-label="When a course is past or archived" @submit.prevent="save()">
    <label
      >Past
      <input v-model.number="draft.pastAfter" class="number" type="number" min="0" max="400" required /> days
      after classes end</label
    >
    <label
      >Archived after
      <input v-model.number="draft.archivedAfter" class="number" type="number" min="1" max="7300" required />
      days</label
    >
    <button class="link" type="submit" :disabled="busy">Save the rule</button>
    <button class="link" type="button" @click="editing = false">Cancel</button>
    <p v-if="problem" class="fault" role="alert">
      {{ faultOf('archivedAfter') || faultOf('pastAfter') || problem.title }}
    </p>
  </form>
</template>

<style scoped>
p {
  margin: 0;
}
form {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  align-items: baseline;
}
.fault {
  color: var(--buoy);
}
</style>
