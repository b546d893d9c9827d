<script setup lang="ts">
import { watchDebounced } from '@vueuse/core'
import { logMore, logWords } from '~~/shared/api/log-actions'
import type { LogReply } from '~~/shared/api/people'

useHead({ title: 'Log · Northtide' })
const route = useRoute()
const [text, action, from, to] = [
  ref(String(route.query.q ?? '')),
  ref('all'),
  ref<string | null>(null),
  ref<string | null>(null),
]
const context = useDayContext()
const older = shallowRef<LogReply['lines']>([])
const address = (before?: string): string =>
  `/log?${new URLSearchParams({ q: text.value, ...(action.value !== 'all' && { action: action.value }), ...(from.value && { from: from.value }), ...(to.value && { to: to.value }), ...(before && { before }) })}`
const { data, problem, loading, refresh } = useLoaded(async () => {
  const reply = await api.get<LogReply>(address())
  older.value = []
  return reply
})
onMounted(refresh)
watchDebounced([text, action, from, to], () => void refresh(), { debounce: 150 })
const lines = computed(() => [...(data.value?.lines ?? []), ...older.value])
const more = ref(false)
watch(data, found => {
  more.value = found?.more ?? false
})
async function further(): Promise<void> {
  const reply = await api.get<LogReply>(address(lines.value.at(-1)!.id))
  older.value = [...older.value, ...reply.lines]
  more.value = reply.more
}
const kinds = [
  ['all', 'everything'],
  ['plan.', 'plans and runs'],
  ['batch.', 'batches'],
  ['habit.', 'habits'],
  ['roster.', 'rosters'],
  ['share.', 'shares'],
  ['template.', 'templates'],
  ['course.', 'courses'],
  ['request.', 'requests'],
  ['upload.', 'files'],
  ['duty.', 'duties'],
  ['run.', 'who may run'],
  ['codes.', 'codes'],
  ['term.', 'calendars'],
] as const
const rows = computed(() => lines.value.map(line => ({ ...line, more: logMore(line.action, line.detail) })))
</script>

<template>
  <main class="page">
    <header>
      <h1>Log</h1>
      <p class="soft">
        What was done, by whom and when.
        {{
          data
            ? data.everything
              ? 'You can see every entry.'
              : 'You can see what you did and what was done in your courses.'
            : ''
        }}
      </p>
    </header>
    <div class="by">
      <ElInput
        v-model="text"
        clearable
        placeholder="person, course, code or word"
        aria-label="Search the log"
      />
      <ElSelect v-model="action" aria-label="What was done"
        ><ElOption v-for="[key, name] in kinds" :key="key" :value="key" :label="name"
      /></ElSelect>
      <DateField v-model="from" :context="context" placeholder="from any day" label="From" />
      <DateField v-model="to" :context="context" placeholder="to today" label="To" />
    </div>
    <ProblemNote v-if="problem" :problem="problem" @retry="refresh" />
    <LoadingLines v-else-if="!data" what="Fetching the log …" />
    <table v-else-if="lines.length" class="ruled" :aria-busy="loading">
      <thead>
        <tr>
          <th scope="col">When</th>
          <th scope="col">Who</th>
          <th scope="col">What</th>
          <th scope="col">Course</th>
          <th scope="col">More</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="line in rows" :key="line.id">
          <td class="soft when">{{ instantText(line.at) }}</td>
          <td class="when">{{ line.by ?? 'Northtide' }}</td>
          <td>{{ logWords(line.action) }}</td>
          <td>
            <NuxtLink v-if="line.course" :to="`/courses/${line.course.id}`"
              >{{ codeText(line.course) }}, {{ line.course.term }}</NuxtLink
            >
          </td>
          <td class="soft small">
            {{ line.more }}
            <template v-if="line.runId">
              {{ line.more ? '·' : '' }} <NuxtLink :to="`/runs/${line.runId}`">Record of the run</NuxtLink>
            </template>
          </td>
        </tr>
      </tbody>
    </table>
    <p v-else class="note empty">
      The log has no such entry.
      {{ text || action !== 'all' || from || to ? 'Remove a word or a date to see more.' : '' }}
    </p>
    <p v-if="more"><button class="act plain" type="button" @click="further">Show older entries</button></p>
  </main>
</template>

<style scoped>
.by {
  display: grid;
  grid-template-columns: minmax(0, 270px) minmax(0, 190px) 150px 150px;
  gap: 14px;
  margin-bottom: 14px;
}
.when {
  white-space: nowrap;
}
.empty {
  max-width: 520px;
}
.page > p:last-child {
  margin-top: 16px;
}
@media (max-width: 760px) {
  .by {
    grid-template-columns: repeat(auto-fit, minmax(130px, 1fr));
  }
}
</style>
