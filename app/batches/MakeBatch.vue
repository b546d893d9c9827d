<script setup lang="ts">
import { useDropZone } from '@vueuse/core'
import type { HabitsReply } from '~~/shared/api/habits'
import type { ShellsReply } from '~~/shared/api/shells'

/** Makes a batch: which pairs, and what their plans begin with. */
const { data: shells, problem, refresh } = useLoaded(() => api.get<ShellsReply>('/shells'))
const { data: habits, refresh: fetchHabits } = useLoaded(() => api.get<HabitsReply>('/habits'))
onMounted(() => {
  void refresh()
  void fetchHabits()
})
const terms = computed(
  () => shells.value?.terms.filter(({ when }) => when !== 'past' && when !== 'archived') ?? [],
)
const term = ref('')
const name = ref('')
const isNamed = ref(false)
watch(terms, all => {
  term.value ||= all.find(({ when }) => when === 'upcoming')?.code ?? all[0]?.code ?? ''
})
watch(term, code => {
  const termName = terms.value.find(each => each.code === code)?.name
  if (termName && !isNamed.value) name.value = `Shells of ${termName}`
})
const by = ref<'term' | 'table'>('term')
const table = ref<{ name: string; text: string } | null>(null)
const decisions = ref('recommended')
const beginnings = computed(() => [
  { value: 'recommended', label: 'the recommended decisions' },
  { value: 'as-before', label: 'the decisions of the last time' },
  ...(habits.value?.habits ?? []).map(({ id, name: own, department }) => ({
    value: id,
    label: `the habit ${own}${department ? `, ${department}` : ''}`,
  })),
])
/** Larger is no table of pairs: it is not read. */
const tableAtMost = 1_000_000
const isTooLarge = ref(false)
async function take(files: readonly File[] | null): Promise<void> {
  const [file] = files ?? []
  if (!file) return
  by.value = 'table'
  isTooLarge.value = file.size > tableAtMost
  if (isTooLarge.value) return
  table.value = { name: file.name, text: await file.text() }
}
function choose(event: Event): void {
  const input = event.target
  if (!(input instanceof HTMLInputElement)) return
  void take([...(input.files ?? [])])
  input.value = ''
}
useDropZone(document.body, { onDrop: files => void take(files), multiple: false })
const {
  run: make,
  busy,
  problem: makeProblem,
} = useAction(async () => {
  const { id } = await api.post<{ id: string }>('/batches', {
    name: name.value,
    term: term.value,
    table: by.value === 'table' ? (table.value?.text ?? '') : null,
    decisions: ['recommended', 'as-before'].includes(decisions.value)
      ? { how: decisions.value }
      : { how: 'habit', habit: decisions.value },
  })
  await navigateTo(`/batches/${id}`)
})
const faultOf = (field: string): string | undefined =>
  makeProblem.value?.errors.find(error => error.field === field)?.message
const otherProblem = computed(() =>
  ['name', 'term', 'table'].some(field => faultOf(field)) ? null : makeProblem.value,
)
const may = computed(
  () =>
    !busy.value &&
    name.value.trim() !== '' &&
    term.value !== '' &&
    (by.value === 'term' || table.value !== null),
)
</script>

<template>
  <h2>A new batch</h2>
  <ProblemNote v-if="problem" :problem="problem" @retry="refresh" />
  <form @submit.prevent="make">
    <FormField label="Term of the shells" :fault="faultOf('term')"
      ><TermSelect v-model="term" :terms="terms" label="Term of the shells"
    /></FormField>
    <fieldset>
      <legend>Which pairs</legend>
      <ElRadioGroup v-model="by">
        <ElRadio value="term">Every shell of the term, with its suggested source</ElRadio>
        <ElRadio value="table">Those of a table</ElRadio>
      </ElRadioGroup>
      <div v-if="by === 'table'" class="table">
        <p class="small soft">
          A CSV file with the columns <b>source</b> and <b>shell</b>, and <b>source term</b> where it is not
          the latest: <code>BKG 115-01,BKG 115-02,Autumn 2026</code>.
        </p>
        <p class="small">
          <label class="link">
            {{ table ? 'Choose another file' : 'Choose a file' }}
            <input
              class="visually-hidden"
              type="file"
              accept=".csv,.txt,text/csv"
              aria-label="Choose a file"
              @change="choose"
            />
          </label>
          <template v-if="table"> · {{ table.name }}</template>
          <template v-else> or drop it anywhere on this page.</template>
        </p>
        <p v-if="isTooLarge" class="fault small" role="alert">
          The file is larger than {{ sizeText(tableAtMost) }}. Choose a table of pairs.
        </p>
        <p v-else-if="faultOf('table')" class="fault small" role="alert">{{ faultOf('table') }}</p>
      </div>
    </fieldset>
    <FormField label="Their plans begin with"
      ><ElSelect v-model="decisions" aria-label="Their plans begin with">
        <ElOption
          v-for="each in beginnings"
          :key="each.value"
          :value="each.value"
          :label="each.label"
        /> </ElSelect
    ></FormField>
    <FormField label="Name of the batch" :fault="faultOf('name')"
      ><ElInput
        v-model="name"
        size="small"
        maxlength="120"
        aria-label="Name of the batch"
        @input="isNamed = true"
    /></FormField>
    <ActionProblem :problem="otherProblem" />
    <button class="act" type="submit" :disabled="!may">
      {{ busy ? 'Finding the pairs …' : 'Try every pair' }}
    </button>
    <p class="small soft">This writes nothing into a course. It begins a plan for each shell.</p>
  </form>
</template>

<style scoped>
form {
  display: grid;
  gap: 12px;
  justify-items: start;
}
form > * {
  width: 100%;
}
form > button {
  width: auto;
}
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
}
legend {
  padding: 0;
  font-size: 12.5px;
  color: var(--ink-soft);
}
.table p {
  margin: 2px 0 4px;
}
</style>
