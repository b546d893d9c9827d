<script setup lang="ts">
import { watchDebounced } from '@vueuse/core'
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
  ['roster.', 'rosters'],
  ['share.', 'shares'],
  ['template.', 'templates'],
  ['course.', 'courses'],
  ['request.', 'requests'],
  ['upload.', 'files'],
  ['duty.', 'duties'],
  ['run.', 'who may run'],
  ['codes.', 'codes'],
  ['term.', 'terms'],
] as const
const names: Record<string, string> = {
  'plan.started': 'began a plan',
  'plan.started-for-term': 'began a plan against a term',
  'plan.started-in-place': 'began to roll in place',
  'plan.attached': 'attached the shell to a plan',
  'plan.decisions-given': 'gave a plan’s decisions to others of its set',
  'plan.sections': 'chose sections to share a content',
  'plan.discarded': 'discarded a plan',
  'plan.run': 'ran a plan',
  'plan.run-in-place': 'rolled in place',
  'roster.imported': 'took a roster in',
  'term.imported': 'took a calendar in',
  'course.imported': 'took a course in',
  'course.made': 'made a course',
  'codes.saved': 'saved the rules of codes',
  'upload.received': 'sent a file',
  'upload.taken': 'took a file in',
  'upload.discarded': 'threw a file away',
  'share.code': 'made a share code',
  'share.department': 'shared with a department',
  'share.revoked': 'took a share back',
  'share.used': 'opened a share code',
  'template.made': 'made a template',
  'request.sent': 'asked for a shell',
  'request.close': 'closed a request',
  'request.answer': 'answered a request',
  'request.send-again': 'had a mail sent again',
  'duty.given': 'gave a duty',
  'duty.taken': 'took a duty',
  'run.allowed': 'let an assistant run',
  'run.disallowed': 'let an assistant run no more',
}
/** What is told beyond who and where: short texts and numbers, not keys. */
const details = (detail: Record<string, unknown>): string =>
  Object.entries(detail)
    .flatMap(([key, value]) => {
      if (key === 'added' && typeof value === 'object' && value)
        return [counted(Number((value as { items?: number }).items ?? 0), 'item')]
      if (typeof value === 'number') return [`${key} ${value}`]
      if (typeof value === 'string' && value && !/^[0-9a-f]{8}-[0-9a-f]{4}-/.test(value)) return [value]
      return Array.isArray(value) && value.length ? [`without ${value.join(', ')}`] : []
    })
    .join(' · ')
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
              : 'You see what you did, and what was done in courses you have to do with.'
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
        <tr v-for="line in lines" :key="line.id">
          <td class="soft when">{{ instantText(line.at) }}</td>
          <td class="when">{{ line.by ?? 'Northtide' }}</td>
          <td>{{ names[line.action] ?? line.action }}</td>
          <td>
            <NuxtLink v-if="line.course" :to="`/courses/${line.course.id}`"
              >{{ codeText(line.course) }}, {{ line.course.term }}</NuxtLink
            >
          </td>
          <td class="soft small">
            {{ details(line.detail)
            }}<template v-if="line.runId"
              >{{ details(line.detail) ? ' · ' : ''
              }}<NuxtLink :to="`/runs/${line.runId}`">record</NuxtLink></template
            >
          </td>
        </tr>
      </tbody>
    </table>
    <p v-else class="note empty">
      Nothing of this kind is in the log.
      {{ text || action !== 'all' || from || to ? 'Take a word or a date away.' : '' }}
    </p>
    <p v-if="more"><button class="act plain" type="button" @click="further">Older lines</button></p>
  </main>
</template>

<style scoped>
.by {
  display: grid;
  grid-template-columns: 270px 190px 150px 150px;
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
</style>
