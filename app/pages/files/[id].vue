<script setup lang="ts">
import { tableEvents, type ColumnRoles } from '~~/core/formats/sheet/calendar'
import type { UploadReply } from '~~/shared/api/uploads'
import ColumnChoice from '~/files/ColumnChoice.vue'
import FoundDates from '~/files/FoundDates.vue'
import FoundFindings from '~/files/FoundFindings.vue'
import FoundOutline from '~/files/FoundOutline.vue'
import BringIn from '~/files/BringIn.vue'
import GatherFiles from '~/files/GatherFiles.vue'
import { noGatherChoices, useGathered, type Taught } from '~/files/gathering'
import { countsText, formatText, stateWords } from '~/files/words'
import { watchDebounced } from '@vueuse/core'
import { gather } from '~~/core/gather/gather'
import { courseItself } from '~~/core/gather/saying'
import type { GatherReply } from '~~/shared/api/gathering'

const route = useRoute()
const id = String(route.params.id)
const { data, problem, refresh } = useLoaded(() => api.get<UploadReply>(`/uploads/${id}`))
useHead({ title: () => (data.value ? `${data.value.name} · Northtide` : 'File · Northtide') })
const moving = computed(
  () => data.value !== null && ['waiting', 'reading', 'importing'].includes(data.value.state),
)
onMounted(refresh)
useRefreshWhile(moving, refresh, 500)
const report = computed(() => data.value?.report ?? null)
const part = computed(() =>
  data.value && data.value.progress.total > 0
    ? Math.min(100, Math.floor((100 * data.value.progress.done) / data.value.progress.total))
    : null,
)

// A table of dates: what its columns mean is for the person to say, and what follows is worked out here at once.
const roles = ref<ColumnRoles | null>(null)
watch(report, found => {
  if (found?.table && !roles.value) roles.value = found.table.roles
})
const fromTable = computed(() =>
  report.value?.table && roles.value
    ? tableEvents(data.value!.name, report.value.table, roles.value, { findings: 50 })
    : null,
)
const events = computed(() => fromTable.value?.events ?? report.value?.events ?? [])
// What the columns were taken to mean is shown as choices; what was noticed row by row follows them.
const findings = computed(() =>
  fromTable.value
    ? [
        ...present(report.value).findings.filter(finding => finding.about !== 'columns'),
        ...fromTable.value.findings,
      ]
    : (report.value?.findings ?? []),
)
const confirmed = ref(false)
watch(roles, () => {
  confirmed.value = false
})
const isDates = computed(
  () => ['icalendar', 'term-calendar'].includes(report.value?.format ?? '') || Boolean(report.value?.table),
)
const chosen = ref<Set<number>>(new Set())
watch(events, () => {
  chosen.value = new Set()
})
const chosenEvents = computed(() => events.value.filter((_, at) => chosen.value.has(at)))

// What files say of the items of a package, or of a course that is there, and what is decided of them.
const term = ref('')
const taught = ref<Taught>({ term: '', calendar: null, span: null })
const into = ref('')
const course = ref<{ id: string; name: string; term: string } | null>(null)
const decided = ref(noGatherChoices())
const isPackage = computed(() => Boolean(data.value?.may.keepAsCourse))
const saysOfCourse = computed(
  () => Boolean(data.value?.may.giveToCourse) || Boolean(data.value?.may.spreadLineItems),
)
const gathers = computed(() => (isPackage.value || saysOfCourse.value) && !data.value?.outcome)
const asked = computed(() => {
  const { term: code, span } = isPackage.value ? taught.value : { term: term.value, span: null }
  const id = course.value?.id ?? into.value
  return new URLSearchParams({
    ...(code && { term: code }),
    ...(span && { from: span.from, to: span.to }),
    ...(id && { course: id }),
  }).toString()
})
const {
  data: gathering,
  problem: gatherProblem,
  refresh: gatherAgain,
} = useLoaded(() => api.get<GatherReply>(`/uploads/${id}/gathering?${asked.value}`))
watch(data, file => (term.value ||= file?.term ?? ''), { flush: 'sync' })
watchDebounced([gathers, asked], ([is]) => is && gatherAgain(), { immediate: true, debounce: 50 })
watch(gathering, (reply, before) => {
  if (!reply || (before && isPackage.value)) return
  // Whatever names an item of the package is proposed; of a course only the file that one looks at.
  decided.value.beside = isPackage.value
    ? reply.files
        .filter(({ sayings }) => gather(reply.items, sayings).met.length > 0)
        .map(({ id: file }) => file)
    : [id]
})
const nothingGathered: GatherReply = { courses: [], items: [], files: [], calendars: [], days: [] }
const itself = computed(() => (isPackage.value ? (data.value?.name ?? '') : courseItself))
const { dated, changes } = useGathered(
  () => gathering.value ?? nothingGathered,
  () => decided.value,
  () => itself.value,
)
/** What is asked for: the file that the page is about comes by itself. */
const wished = computed(() => ({
  ...decided.value,
  beside: decided.value.beside.filter(each => each !== id),
}))

// From the page of a shell one comes to bring a source for it in, and goes on there.
const shell = computed(() => (typeof route.query.for === 'string' ? route.query.for : null))
const going = useAction(async () => {
  const { courseId, planId } = data.value?.outcome ?? {}
  if (planId) return navigateTo(`/plans/${planId}/carry`)
  if (!shell.value || !courseId) return
  const plan = await api.post<{ id: string }>('/plans', { sources: [courseId], target: shell.value })
  return navigateTo(`/plans/${plan.id}/pair`)
})
const wasAsked = ref(false)
function brought(): void {
  wasAsked.value = true
  void refresh()
}
watch(
  () => data.value?.outcome,
  outcome => {
    const goesOn = outcome && (outcome.planId || (shell.value && outcome.courseId))
    if (goesOn && wasAsked.value && outcome.findings.length === 0) void going.run()
  },
)

const { run: discard, problem: discardProblem } = useAction(async () => {
  await api.delete(`/uploads/${id}`)
  await navigateTo('/files')
})
const underWay = { importing: 'Being taken in', waiting: 'Waits for its turn', reading: 'Being read' }
const underWayText = computed(() => {
  const state = data.value?.state
  const doing = state === 'importing' || state === 'waiting' ? underWay[state] : underWay.reading
  return part.value === null ? doing : `${doing}: ${part.value} %`
})
/** What is known of the file, in a few words. */
const facts = computed(() => {
  if (!data.value) return ''
  const { name, size, state } = data.value
  const isRead = report.value !== null && state !== 'refused'
  const parts = report.value && report.value.format !== 'oneroster' ? countsText(report.value.counts) : ''
  return [
    report.value?.title && name,
    isRead && formatText(report.value),
    sizeText(size),
    parts,
    isRead && report.value.findings.length === 0 && 'nothing amiss',
  ]
    .filter(Boolean)
    .join(' · ')
})
/** Why the file was refused: the last error says it. */
const refusal = computed(() => report.value?.findings.findLast(finding => finding.severity === 'error'))
</script>

<template>
  <main class="page">
    <ProblemNote v-if="problem" :problem="problem" @retry="refresh"
      ><NuxtLink v-if="problem.status === 404" to="/files">Back to the files</NuxtLink
      ><button v-else class="act plain" type="button" @click="refresh">Try again</button></ProblemNote
    >
    <LoadingLines v-else-if="!data" what="Fetching the file …" />
    <template v-else>
      <header>
        <p class="caps">
          <NuxtLink :to="{ path: '/files', query: route.query }">Files</NuxtLink> ·
          {{ stateWords[data.state] }}
        </p>
        <h1>
          <bdi>{{ report?.title || data.name }}</bdi>
        </h1>
        <p class="soft">{{ facts }}</p>
      </header>
      <ProblemNote v-if="discardProblem" :problem="discardProblem" @retry="discardProblem = null" />

      <div v-if="moving" class="under-way" role="status">
        <h2>{{ underWayText }}</h2>
        <progress :value="part ?? undefined" max="100" aria-label="How far it is" />
        <p class="soft">
          {{
            data.state === 'importing'
              ? 'Either all of it goes in, or nothing does.'
              : 'Nothing is stored in any course.'
          }}
          You may leave this page; the work goes on.
        </p>
        <button class="link" type="button" @click="discard">
          {{ data.state === 'importing' ? 'Stop and delete the file' : 'Stop reading and delete the file' }}
        </button>
      </div>

      <div v-else-if="data.state === 'failed'" class="note buoy verdict" role="alert">
        <h2>The file could not be read</h2>
        <p>{{ data.problem }}</p>
        <p>
          <NuxtLink class="act" to="/files">Send it again</NuxtLink>
          <button class="link" type="button" @click="discard">Delete the file</button>
        </p>
      </div>

      <template v-else-if="report && data.state === 'refused'">
        <div class="note buoy verdict" role="alert">
          <h2>This file was refused</h2>
          <p v-if="refusal" class="reason">
            <b>{{ refusal.where }}</b>: {{ refusal.message }}
          </p>
          <p class="soft">No part of it was used, and no course has changed.</p>
          <p class="acts">
            <button class="act" type="button" @click="discard">Delete the file</button>
            <NuxtLink to="/files">Bring in another file</NuxtLink>
          </p>
        </div>
        <FoundFindings v-if="report.findings.length > 1" :findings="report.findings" />
      </template>

      <div v-else-if="report" class="beside">
        <div class="found">
          <div v-if="data.problem" class="note buoy" role="alert">
            <h3>The file was not brought in</h3>
            <p>{{ data.problem }}</p>
          </div>
          <div v-if="data.outcome" class="note tide" role="status">
            <h3>Done</h3>
            <p>{{ data.outcome.text }}.</p>
            <p v-if="data.outcome.courseId" class="acts">
              <button
                v-if="data.outcome.planId || shell"
                class="act"
                type="button"
                :disabled="going.busy.value"
                @click="going.run()"
              >
                {{ data.outcome.planId ? 'Go to the comparison' : 'Plan the shell from it' }}
              </button>
              <NuxtLink
                :class="{ act: !data.outcome.planId && !shell }"
                :to="`/courses/${data.outcome.courseId}`"
                >Open the course</NuxtLink
              >
              <NuxtLink v-if="data.may.giveToCourse" :to="`/courses/${data.outcome.courseId}/arrange`"
                >See the change or take it back</NuxtLink
              >
              <NuxtLink v-else-if="!data.outcome.planId && !shell" to="/"
                >Find the shell it goes into</NuxtLink
              >
            </p>
            <ActionProblem :problem="going.problem.value" />
          </div>
          <FoundFindings v-if="data.outcome?.findings.length" :findings="data.outcome.findings" />
          <FoundFindings v-if="findings.some(finding => finding.severity !== 'note')" :findings="findings" />
          <ColumnChoice
            v-if="report.table && roles && !data.outcome && (data.may.addClosures || !data.may.giveToCourse)"
            v-model:roles="roles"
            v-model:confirmed="confirmed"
            :table="report.table"
          />
          <template v-if="gathers && (isPackage || course)">
            <ProblemNote v-if="gatherProblem" :problem="gatherProblem" @retry="gatherAgain" />
            <LoadingLines v-else-if="!gathering" what="Looking into your other files …" :rows="2" />
            <GatherFiles
              v-else
              v-model="decided"
              :reply="gathering"
              :package-file="itself"
              :own="isPackage ? undefined : id"
            />
          </template>
          <FoundOutline
            v-if="report.format === 'common-cartridge'"
            :lines="report.outline"
            :left="report.outlineLeft"
          />
          <section v-if="report.format === 'oneroster'">
            <h2>Its tables</h2>
            <table class="ruled tables">
              <thead>
                <tr>
                  <th scope="col">Table</th>
                  <th scope="col" class="number">Sound rows</th>
                </tr>
              </thead>
              <tbody>
                <tr v-for="(rows, table) in report.counts" :key="table">
                  <td>{{ table }}</td>
                  <td class="number">{{ numberText(rows) }}</td>
                </tr>
              </tbody>
            </table>
          </section>
          <template v-if="isDates && (data.may.addClosures || !data.may.giveToCourse)">
            <FoundDates
              v-model:chosen="chosen"
              :events="events"
              :left="fromTable ? 0 : report.eventsLeft"
              :choose="data.may.addClosures && !data.outcome"
            />
          </template>
          <FoundFindings v-if="!findings.some(finding => finding.severity !== 'note')" :findings="findings" />
        </div>
        <aside>
          <BringIn
            v-if="!data.outcome"
            v-model:term="term"
            v-model:course="course"
            v-model:taught="taught"
            v-model:into="into"
            :file="data"
            :chosen="chosenEvents"
            :wants-columns="Boolean(report.table) && !confirmed"
            :gathered="wished"
            :reply="gathering ?? nothingGathered"
            :dated="dated"
            :changes="course && gathering ? changes : null"
            @brought="brought"
          />
          <p class="away">
            <button class="link" type="button" @click="discard">
              {{ data.outcome ? 'Take the file off the list' : 'Delete the file' }}
            </button>
          </p>
        </aside>
      </div>
    </template>
  </main>
</template>

<style scoped>
h1,
header p {
  overflow-wrap: anywhere;
}
.beside {
  --aside: 280px;
}
.found {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 22px;
}
.under-way {
  max-width: 560px;
}
.under-way h2 {
  margin-bottom: 8px;
}
progress {
  width: 100%;
  height: 12px;
  accent-color: var(--tide);
  margin-bottom: 6px;
}
.verdict {
  max-width: 760px;
  padding: 16px 20px;
  margin-bottom: 24px;
}
.verdict h2 {
  margin-bottom: 8px;
}
.reason {
  overflow-wrap: anywhere;
}
.acts {
  display: flex;
  gap: 16px;
  align-items: center;
  margin: 12px 0 0;
}
.tables {
  max-width: 420px;
}
.away {
  margin-top: 18px;
}
aside {
  position: sticky;
  top: 16px;
  /* Its button stays within reach however long it and the list beside it are; room for the ring of what has the focus. */
  max-height: calc(100vh - 32px);
  overflow-y: auto;
  padding: 0 4px;
}
@media (max-width: 900px) {
  aside {
    position: static;
    max-height: none;
  }
}
b {
  font-weight: 600;
}
</style>
