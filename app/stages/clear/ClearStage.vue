<script setup lang="ts">
import { countsOf, totalOf } from '~~/core/student-data/student-data'
import FootBar from '../FootBar.vue'
import StageFrame from '../StageFrame.vue'
import { useStagePlan } from '../plan/store'
import { settleSum } from '~~/core/plan/to-settle'
import { plannedClearing } from '~~/core/student-data/clearing'
import type { ClearingReply } from '~~/shared/api/clearing'
import ClearingChoices from './ClearingChoices.vue'
import StudentRows from './StudentRows.vue'
import TraceTable from './TraceTable.vue'
import UnseenFiles from './UnseenFiles.vue'
import WhereLooked from './WhereLooked.vue'
import { studentDataHeld } from './held'
import { lookedText } from './trace-words'

const { store, plan, document } = useStagePlan()
const sides = computed(() => [plan.value.source, ...plan.value.more])
const data = computed(() => studentDataHeld(plan.value))
const held = computed(() => data.value.counts)
const total = computed(() => data.value.total)
const untold = computed(() =>
  sides.value
    .filter(side => side.course.role === 'shared' || side.course.role === null)
    .map(side => codeText(side.course)),
)
const inPlace = computed(() => plan.value.mode === 'in-place')
const isDraft = computed(() => plan.value.state === 'draft')
/** What is probably no trace is listed, but counts for nothing. */
const listed = computed(() => store.traces.filter(({ weight }) => weight !== 'doubtful'))
/** Decisions of an older plan, each made of all places of a word in a thing. */
const older = computed(() => {
  const { answers } = document.value.traces
  return store.traces.filter(({ id, wordId }) => id !== wordId && answers[wordId] && !answers[id])
})
const olderWords = computed(() => new Set(older.value.map(({ wordId }) => wordId)).size)
const inShell = computed(() => totalOf(plan.value.target.studentData))
const looked = computed(() => store.tracesReply?.looked ?? null)
/** What may be cleared in the course that is written; asked for by whoever may decide of it. */
const {
  data: clearing,
  problem: clearingProblem,
  refresh: loadClearing,
} = useLoaded(() => api.get<ClearingReply>(`/plans/${plan.value.id}/clearing`))
watch(
  () => plan.value.id,
  () => {
    if (isDraft.value && plan.value.may.edit) void loadClearing()
  },
  { immediate: true },
)
const clears = computed(() =>
  clearing.value && clearing.value.rows.length + clearing.value.people.length > 0
    ? plannedClearing(clearing.value.rows, clearing.value.people, document.value.clearing)
    : null,
)
const records = (n: number): string => `${counted(n, 'record')} about students`
const recordsText = computed(() => {
  const all = total.value
  if (!inPlace.value) return `${records(all)} ${all === 1 ? 'stays' : 'stay'} behind.`
  if (!clears.value) return `${records(all)} ${all === 1 ? 'is' : 'are'} in the course.`
  const goes = clears.value.rows
  const stays = all - goes
  const gone = `${records(goes)} ${goes === 1 ? 'goes' : 'go'} from the course`
  return stays > 0 ? `${gone}, ${numberText(stays)} ${stays === 1 ? 'stays' : 'stay'}.` : `${gone}.`
})
const tracesText = computed(() => {
  if (!isDraft.value) return ''
  if (store.isSearchingTraces) return ''
  const where = inPlace.value ? 'its texts' : 'what you carry'
  const n = listed.value.length
  if (n === 0) return `No trace of a student is in ${where}.`
  return `${counted(n, 'trace')} of students ${n === 1 ? 'is' : 'are'} in ${where}.`
})
const columns = computed(() =>
  inPlace.value
    ? [{ head: 'In the course', counts: held.value }]
    : [
        { head: 'Old course', counts: held.value },
        { head: 'Crosses', counts: countsOf(() => 0) },
      ],
)
const rosterText = computed(() => {
  const { students } = plan.value.target.studentData
  if (students === 0) return 'Nobody is on the shell’s roster yet.'
  return `${counted(students, 'student')} on the registrar’s roster ${students === 1 ? 'stays' : 'stay'} enrolled.`
})
const workText = computed(() =>
  inShell.value
    ? `What they did in the shell already stays too: ${counted(inShell.value, 'record')}.`
    : 'No work of theirs is in the shell yet.',
)
const totals = computed(() => [
  inPlace.value
    ? { count: clears.value?.rows ?? 0, words: clears.value?.rows === 1 ? 'record goes' : 'records go' }
    : { count: total.value, words: total.value === 1 ? 'record stays behind' : 'records stay behind' },
  ...(inPlace.value ? [] : [{ count: 0, words: 'cross' }]),
  ...(isDraft.value && !store.isSearchingTraces
    ? [
        {
          count: listed.value.length - store.tracesToSettle.length,
          words: listed.value.length - store.tracesToSettle.length === 1 ? 'trace settled' : 'traces settled',
        },
        {
          count: settleSum(store.toSettle, 'clear'),
          words: 'to settle',
          settle: true,
        },
      ]
    : []),
])
</script>

<template>
  <StageFrame>
    <h2 class="line">{{ recordsText }} {{ tracesText }}</h2>
    <p v-if="untold.length" class="soft small">
      What {{ untold.join(', ') }} holds about students is not shown to you. It stays there too.
    </p>
    <ProblemNote v-if="clearingProblem" :problem="clearingProblem" @retry="loadClearing" />
    <section v-else-if="clearing && clears && isDraft" class="leftovers" aria-label="What is cleared">
      <h3 v-if="!inPlace">Left over in {{ codeText(plan.target.course) }}</h3>
      <ClearingChoices :clearing="clearing" />
      <h3 v-if="store.traces.length">In texts, files and settings</h3>
    </section>
    <template v-if="isDraft">
      <ProblemNote v-if="store.tracesProblem" :problem="store.tracesProblem" @retry="store.loadTraces" />
      <LoadingLines
        v-else-if="store.isSearchingTraces"
        what="Looking for last term’s students in texts, files and settings …"
      />
      <UnseenFiles v-if="!store.isSearchingTraces" />
      <div v-if="older.length && plan.may.edit" class="note" role="status">
        <p class="small">
          {{ counted(olderWords, 'decision') }} made before {{ olderWords === 1 ? 'holds' : 'hold' }} for
          {{ counted(older.length, 'place') }} now: each place of a word is told by itself, with what would be
          edited there.
          <button class="link" type="button" @click="store.tellApart(store.traces)">Keep them so</button>
        </p>
      </div>
      <template v-if="store.traces.length && !store.isSearchingTraces">
        <p class="soft small lead">
          A trace is a student’s name, address or number in a text, a file or a setting. Remove it, say it
          otherwise, or keep it and say why.
        </p>
        <TraceTable />
      </template>
      <p v-else-if="looked && !store.isSearchingTraces && !store.tracesProblem" class="soft">
        Northtide looked through {{ lookedText(looked) }} for {{ counted(looked.students, 'student') }}.
        {{ store.unseen.length ? 'It found none.' : 'There is nothing to decide here.' }}
      </p>
    </template>
    <p v-else class="soft">
      This plan was run. Its <NuxtLink v-if="plan.run" :to="`/runs/${plan.run.id}`">record</NuxtLink> says
      what was looked through, what was taken out and what stays for a reason.
    </p>
    <template #side>
      <template v-if="!clears || !inPlace">
        <details open class="rows">
          <summary><h2>Records about students</h2></summary>
          <StudentRows :held="held" :columns="columns" />
        </details>
      </template>
      <p v-if="looked?.similarity" class="small">
        {{ counted(looked.similarity, 'similarity check') }}
        {{ looked.similarity === 1 ? 'gets' : 'get' }} a new identity: nobody hands in to last term’s.
      </p>
      <WhereLooked v-if="isDraft && looked" :looked="looked" />
      <template v-if="!inPlace">
        <h2 class="own">The shell’s own</h2>
        <p class="small">{{ rosterText }} {{ workText }}</p>
        <p class="small soft">
          The old course stays whole and readable. After the run every table and the shell’s text are searched
          again, and the record keeps what was found.
        </p>
      </template>
    </template>
    <template #foot>
      <FootBar :totals="totals">
        <template v-if="store.traces.length && isDraft" #keys>
          <span><kbd>n</kbd> next</span><span><kbd>r</kbd> remove</span><span><kbd>a</kbd> “a student”</span
          ><span><kbd>y</kbd> keep</span>
        </template>
        <NuxtLink class="act on-deep" :to="`/plans/${plan.id}/date`">On to Date ⟶</NuxtLink>
      </FootBar>
    </template>
  </StageFrame>
</template>

<style scoped>
.own {
  margin-top: 18px;
}
.line {
  font-size: 26px;
  margin: 6px 0 6px;
}
.rows summary h2 {
  display: inline;
}
.leftovers {
  margin-bottom: 14px;
}
.leftovers h3 {
  margin: 12px 0 6px;
}
.lead {
  margin-bottom: 8px;
}
</style>
