<script setup lang="ts">
import type { SheetReply } from '~~/shared/api/plans'
import { useStagePlan } from '../plan/store'

/** Dates as files: out, and a sheet that was changed elsewhere back in. */
const emit = defineEmits<{ compared: [reply: SheetReply, file: string] }>()
const { store, plan } = useStagePlan()
const files = computed(() =>
  Object.entries({ CSV: 'dates.csv', XLSX: 'dates.xlsx', iCalendar: 'deadlines.ics' }).map(
    ([name, file]) => ({ name, href: `/api/v1/plans/${plan.value.id}/${file}` }),
  ),
)
/** The file is made from what the server has, so what is waiting is saved first. */
async function download(href: string): Promise<void> {
  await store.save()
  window.location.assign(href)
}
const {
  run: bring,
  busy,
  problem,
} = useAction(async (file: File) => {
  await store.save()
  const address = `/plans/${plan.value.id}/sheet?name=${encodeURIComponent(file.name)}`
  emit('compared', await api.post<SheetReply>(address, file), file.name)
})
function chosen(event: Event): void {
  const input = event.target as HTMLInputElement
  const [file] = input.files ?? []
  // The same file can be chosen again, once it was changed once more.
  input.value = ''
  if (file) void bring(file)
}
</script>

<template>
  <p class="out small">
    Download these dates:
    <a v-for="{ name, href } in files" :key="href" :href="href" @click.prevent="download(href)">{{ name }}</a>
  </p>
  <p v-if="plan.may.edit" class="small">
    <label class="link bring" :class="{ busy }">
      <input
        class="visually-hidden"
        type="file"
        accept=".csv,.xlsx,text/csv"
        :disabled="busy"
        @change="chosen"
      />{{ busy ? 'Comparing the sheet …' : 'Bring a changed sheet back' }}
    </label>
    <span class="soft"> Nothing counts before you accept it.</span>
  </p>
  <ActionProblem :problem="problem" />
</template>

<style scoped>
.out {
  margin: 8px 0 4px;
  display: flex;
  gap: 10px;
}
.bring:focus-within {
  outline: 2px solid var(--tide);
  outline-offset: 2px;
}
.busy {
  color: var(--ink-soft);
}
</style>
