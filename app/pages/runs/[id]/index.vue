<script setup lang="ts">
import RunPage from '~/runs/RunPage.vue'
import KeepHabit from '~/habits/KeepHabit.vue'
import TraceRecord from '~/shells/TraceRecord.vue'
import { dateFields } from '~~/core/course/dates'
import { shellFactText, shellFactWords } from '~~/core/plan/shell-facts'
import { studentDataWords } from '~~/core/student-data/student-data'
import type { RunReply } from '~~/shared/api/plans'
import EffectTable from '~/stages/run/EffectTable.vue'

const route = useRoute()
useHead({ title: 'Record · Northtide' })
const { data, problem, refresh } = useLoaded(() => api.get<RunReply>(`/runs/${String(route.params.id)}`))
onMounted(refresh)
type Entry = RunReply['entries'][number]
const entityWords: Readonly<Partial<Record<Entry['entity'], string>>> = {
  category: 'grade category',
  rules: 'grades',
  grace: 'grading',
  rubric: 'rubric',
  group: 'group',
  furnishing: 'around the units',
}
const leftWords: Readonly<Record<RunReply['left'][number]['why'], string>> = {
  chosen: 'You or a colleague chose so',
  announced: 'Announcements wait until one asks for them',
  deleted: 'They had been deleted in the old course',
  empty: 'Places that nobody ever filled',
  'left-before': 'They were left behind the time before',
  'removed-here': 'Somebody had removed them from the shell',
  'went-into': 'Their text went into another item',
}
/** What was done with a thing that was not simply added. */
const actionWords: Record<Entry['action'], string> = {
  added: '',
  filled: 'filled an empty place',
  replaced: 'written over what the shell had',
  moved: 'stands in another place',
  dated: 'opens on a date now',
  cleared: 'removed from the shell',
}
/** What was done with an item, and how its text was put together. */
function doneText({ action, text, from, isMade, was, title }: Entry): string {
  const before = was !== null && was !== title && action !== 'cleared' && `it was “${was}”`
  const origin = [isMade && 'made in the plan', from !== null && `taken from ${from}`]
  const made = text
    ? [
        text.isFrame && 'a frame, without content',
        typeof text.questions === 'number' && `${counted(text.questions, 'question')} of it`,
        text.heading !== null && `only what stood under “${text.heading}”`,
        text.further.length > 0 && `with the text of ${text.further.join(', ')}`,
        text.passages !== null && `${counted(text.passages, 'passage')} of the old course’s text`,
      ]
    : []
  return [actionWords[action], before, ...origin, ...made].filter(Boolean).join(' · ')
}
/** Kinds of which there was something, before or after; of the others a line says that there was nothing. */
const shownAudit = computed(() =>
  (data.value?.audit ?? []).filter(({ before, after, onNewItems }) => before + after + onNewItems > 0),
)
const unseenText = computed(() => {
  const unseen = (data.value?.audit.length ?? 0) - shownAudit.value.length
  if (unseen === 0) return ''
  return shownAudit.value.length === 0
    ? `Of all ${unseen} kinds there was nothing, before and after.`
    : `Of the other ${unseen} kinds there was nothing, before and after.`
})
const tablesText = computed(() => {
  const tables = data.value?.traces?.tables
  if (!tables?.asked) return ''
  const left =
    tables.rows === 0
      ? 'None holds a record about last term’s students.'
      : `${counted(tables.rows, 'record')} about last term’s students ${tables.rows === 1 ? 'stays' : 'stay'} there, none of them new.`
  return `${counted(tables.asked, 'table')} asked. ${left}`
})
const print = (): void => window.print()
const entries = computed(() => (data.value?.entries ?? []).filter(entry => entry.action !== 'moved'))
const movedCount = computed(() => (data.value?.entries.length ?? 0) - entries.value.length)
/** What stayed behind, by why. */
const left = computed(() => {
  const groups = new Map<string, string[]>()
  for (const { why, title } of data.value?.left ?? [])
    groups.set(leftWords[why], [...(groups.get(leftWords[why]) ?? []), title])
  return [...groups].map(([why, titles]) => ({ why, titles }))
})
const withWhy = ref(false)
const hasWhy = computed(() => entries.value.some(({ why }) => why.length > 0))
const gradedText = ({ category, rubric, gradingPeriod }: Entry): string =>
  [category, rubric && `rubric ${rubric}`, gradingPeriod].filter(Boolean).join(' · ')
</script>

<template>
  <RunPage :data="data" :problem="problem" waits="Fetching the record …" @retry="refresh">
    <template #above>Record of a run</template>
    <template #title="{ data: run }"
      >{{ codeText(run.source) }}, {{ run.source.term.name }} into {{ codeText(run.target) }},
      {{ run.target.term.name }}</template
    >
    <template #head="{ data: run }">
      <p class="soft">
        Run {{ instantInFull(run.target, run.finishedAt) }}, by {{ run.by }} ·
        <NuxtLink :to="`/courses/${run.target.id}`">the shell</NuxtLink> ·
        <NuxtLink :to="`/plans/${run.planId}/run`">the plan</NuxtLink> ·
        <NuxtLink class="no-print" :to="`/runs/${run.id}/undo`">{{
          run.undoneAt ? 'put the run back …' : 'undo the run …'
        }}</NuxtLink>
        ·
        <button class="link no-print" type="button" @click="print">Print this record</button> ·
        <span class="no-print"
          >keep it as <a :href="`/api/v1/runs/${run.id}/record.pdf`" download>PDF</a> or
          <a :href="`/api/v1/runs/${run.id}/record.json`" download>JSON</a></span
        >
      </p>
    </template>
    <template #default="{ data: run }">
      <p v-if="run.undoneAt" class="note brass">
        This run was undone {{ instantInFull(run.target, run.undoneAt) }}. What it wrote is not in the course
        any more.
      </p>
      <KeepHabit :run="run.id" :term="run.target.term.name" />
      <EffectTable v-if="!run.snapshot" :effect="run.effect" :source="run.source" :target="run.target" done />
      <p v-else class="lead">
        Rolled in place: {{ counted(run.effect.dates.dates, 'date') }} written. The course as it was, students
        and all, is kept as
        <NuxtLink :to="`/courses/${run.snapshot.id}`">a snapshot in {{ run.snapshot.term.name }}</NuxtLink
        >.
      </p>
      <template v-if="run.course.length">
        <h2>The shell itself</h2>
        <table class="ruled narrow">
          <thead>
            <tr>
              <th scope="col">What</th>
              <th scope="col">Before</th>
              <th scope="col">After</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="fact in run.course" :key="fact.field">
              <td>{{ shellFactWords[fact.field] ?? fact.field }}</td>
              <td class="soft">{{ shellFactText(fact.before) }}</td>
              <td>{{ shellFactText(fact.after) }}</td>
            </tr>
          </tbody>
        </table>
      </template>
      <p v-if="run.sections.length">
        Its content is shown in {{ run.sections.map(section => codeText(section)).join(', ') }} too, each with
        the dates of its own meetings.
      </p>
      <h2>Audit: student data in the shell</h2>
      <p class="soft">
        Counted before and after writing, and once more on the new items alone, within the same step. Anything
        found would have undone the run. {{ tablesText }}
      </p>
      <table v-if="shownAudit.length" class="ruled narrow">
        <thead>
          <tr>
            <th scope="col">Kind</th>
            <th scope="col" class="number">Before</th>
            <th scope="col" class="number">Cleared</th>
            <th scope="col" class="number">After</th>
            <th scope="col" class="number">On new items</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="line in shownAudit" :key="line.kind">
            <td class="kind">{{ studentDataWords(line.kind)[1] }}</td>
            <td class="number">{{ line.before }}</td>
            <td class="number">{{ line.cleared }}</td>
            <td class="number">{{ line.after }}</td>
            <td class="number kept">{{ line.onNewItems }}</td>
          </tr>
        </tbody>
      </table>
      <p v-if="unseenText" class="soft small">{{ unseenText }}</p>
      <TraceRecord v-if="run.traces" :record="run.traces" />
      <h2>{{ run.snapshot ? 'What was dated anew' : 'What was written' }}</h2>
      <p v-if="hasWhy" class="no-print">
        <ElCheckbox v-model="withWhy">Show why each date is where it is</ElCheckbox>
      </p>
      <table class="ruled entries">
        <thead>
          <tr>
            <th scope="col">Unit or item</th>
            <th v-for="field in dateFields" :key="field" scope="col">{{ fieldName(field) }}</th>
            <th scope="col">Graded under</th>
            <th scope="col">Noted</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="entry in entries" :key="`${entry.entity} ${entry.lineage}`" :class="entry.entity">
            <td :style="{ paddingLeft: `${entry.entity === 'item' ? 18 * entry.depth : 0}px` }">
              <KindMark v-if="entry.kind" :kind="entry.kind" /> <bdi>{{ entry.title }}</bdi>
              <span v-if="entityWords[entry.entity]" class="soft small">{{ entityWords[entry.entity] }}</span>
              <span v-if="!run.snapshot && doneText(entry)" class="soft small">{{ doneText(entry) }}</span>
              <ul v-if="withWhy && entry.why.length" class="why soft small">
                <li v-for="(reason, at) in entry.why" :key="at">{{ reason }}</li>
              </ul>
            </td>
            <td v-for="field in dateFields" :key="field">
              {{ entry[field] ? momentText(entry[field], yearsOfClasses(run.target.term)) : '' }}
            </td>
            <td class="soft small">{{ gradedText(entry) }}</td>
            <td class="soft small">{{ entry.flags.join(', ').replaceAll('-', ' ') }}</td>
          </tr>
        </tbody>
      </table>
      <p v-if="movedCount" class="soft small">
        {{ counted(movedCount, 'thing') }} of the shell {{ movedCount === 1 ? 'stands' : 'stand' }} in another
        place than before, to make room.
      </p>
      <template v-if="left.length">
        <h2>What stayed behind</h2>
        <p v-for="group in left" :key="group.why">
          <b>{{ group.why }}</b>: {{ group.titles.join(', ') }}.
        </p>
      </template>
    </template>
  </RunPage>
</template>

<style scoped>
.page > h2 {
  margin: 30px 0 6px;
}
.narrow {
  max-width: 640px;
}
.number {
  text-align: right;
}
.kind::first-letter {
  text-transform: uppercase;
}
.why {
  list-style: none;
  margin: 2px 0 4px;
}
.entries td span.small {
  margin-left: 6px;
}
.unit td {
  font: 600 15px var(--serif);
  padding-top: 14px;
}
</style>
