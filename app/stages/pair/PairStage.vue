<script setup lang="ts">
import type { CourseLine } from '~~/shared/api/courses'
import type { PlanReply } from '~~/shared/api/plans'
import { codePatterns, readCode, termDisagreement } from '~~/core/pairing/codes'
import type { CodesReply } from '~~/shared/api/codes'
import FootBar from '../FootBar.vue'
import StageFrame from '../StageFrame.vue'
import AlsoInto from './AlsoInto.vue'
import HabitChoice from './HabitChoice.vue'
import AwaitedNote from './AwaitedNote.vue'
import NamesAndWindows from './NamesAndWindows.vue'
import SourceList from './SourceList.vue'
import { usePlan } from '../plan/store'

const store = usePlan()
const plan = computed(() => store.plan!)
const sources = computed(() => [plan.value.source, ...plan.value.more].map(side => side.course.id))
const { run: choose, busy: changing, problem } = useAction((ids: string[]) => store.changeSources(ids))
// A code that names another term than its course is in: the wrong course may have been taken. Without the rules the page works too.
const { data: codes, refresh: fetchCodes } = useLoaded(() => api.get<CodesReply>('/codes'))
onMounted(fetchCodes)
const patterns = computed(() => codePatterns(codes.value?.rules.patterns ?? []))
const inPlace = computed(() => plan.value.mode === 'in-place')
const awaited = computed(() => plan.value.target.course.origin === 'awaited')
/** In place: shells with a roster that the registrar has for this class. */
const rivals = computed(() =>
  inPlace.value && plan.value.state === 'draft'
    ? plan.value.siblings.filter(course => course.origin === 'registrar')
    : [],
)
/** What becomes of the shell, in a sentence or two. */
const sourceFate = computed(() => {
  if (inPlace.value)
    return 'A snapshot of it is kept, with its students and their work, before anything is written.'
  return plan.value.source.course.origin === 'file'
    ? 'This is the file as it was read. It is compared with the course, and never written.'
    : 'This course is read, never written. It stays whole, with its students and their work.'
})
const targetFate = computed(() => {
  const { course, nodes } = plan.value.target
  if (inPlace.value)
    return 'The same course, in the new term with new dates. Nothing is carried: all of it is there.'
  if (awaited.value)
    return 'There is no shell yet. Its place is held with the term’s calendar and the old meeting times.'
  if (nodes.length)
    return `It holds ${counted(course.items, 'item')} already. Carry shows which of them stay, which are filled and which are replaced.`
  if (course.origin === 'registrar') return 'It is empty. Its roster is the registrar’s and is not touched.'
  return course.students > 0
    ? 'It is empty, and was made by hand. Its students stay as they are.'
    : 'It is empty, and nobody is on its roster: it was made by hand.'
})
/** The students of a side of the pair, as far as one may know of them. */
function studentsText(course: CourseLine): string {
  if (course.role === 'shared' || course.role === null) return 'its students are not shown to you'
  if (inPlace.value) {
    const { students, term } = plan.value.source.course
    return `${counted(students, 'student')} of ${term.name}`
  }
  return course.origin === 'awaited' ? 'comes with the shell' : counted(course.students, 'student')
}
function holdsText({ course, nodes }: PlanReply['source']): string {
  if (plan.value.closed.some(each => each.course === course.id)) return 'no longer shown to you'
  const units = nodes.filter(node => node.type === 'unit').length
  return `${counted(units, 'unit')}, ${counted(course.items, 'item')}`
}
const sides = computed(() => [
  {
    course: plan.value.source.course,
    whole: plan.value.source,
    head: inPlace.value ? 'As it is now' : 'Rolls from',
    fate: sourceFate.value,
  },
  {
    course: plan.value.target.course,
    whole: inPlace.value && plan.value.state === 'draft' ? plan.value.source : plan.value.target,
    head: inPlace.value ? 'As it will be' : 'Rolls into',
    fate: targetFate.value,
  },
])
</script>

<template>
  <StageFrame>
    <AwaitedNote v-if="awaited && plan.state === 'draft'" :plan="plan" />
    <div v-if="rivals.length" class="note brass rivals" role="status">
      <h3>
        The registrar has {{ rivals.length === 1 ? 'a shell' : 'shells' }} for this class in
        {{ plan.target.course.term.name }}
      </h3>
      <p class="small">
        The students are there, and rolling in place enrols nobody. Roll into
        <template v-for="(shell, at) in rivals" :key="shell.id"
          >{{ at ? ' or ' : '' }}<NuxtLink :to="`/fill/${shell.id}`">{{ codeText(shell) }}</NuxtLink> ({{
            counted(shell.students, 'student')
          }})</template
        >
        instead, unless you mean to do this.
      </p>
    </div>
    <div class="two">
      <section v-for="side in sides" :key="side.head">
        <p class="caps">{{ side.head }}</p>
        <h2>
          {{ codeOf(side.course) }} <bdi>{{ side.course.title }}</bdi>
        </h2>
        <table class="ruled facts">
          <tbody>
            <tr>
              <th scope="row">Term</th>
              <td>
                {{ side.course.term.name }}, classes
                {{ rangeText(side.course.term.classesFrom, side.course.term.classesTo) }}
              </td>
            </tr>
            <tr>
              <th scope="row">Meets</th>
              <td>
                {{ meetingText(side.course.meetings) || 'no meeting times known'
                }}{{ side.course.meetings[0]?.room ? `, ${side.course.meetings[0].room}` : '' }}
              </td>
            </tr>
            <tr>
              <th scope="row">Taught by</th>
              <td>{{ side.course.instructors.join(', ') || 'nobody yet' }}</td>
            </tr>
            <tr>
              <th scope="row">Roster</th>
              <td>
                {{ studentsText(side.course) }}
              </td>
            </tr>
            <tr>
              <th scope="row">Holds</th>
              <td>
                {{ holdsText(side.whole) }}
              </td>
            </tr>
          </tbody>
        </table>
        <p
          v-for="wrong in [termDisagreement(readCode(side.course.code, patterns), side.course.term)].filter(
            each => each !== null,
          )"
          :key="wrong.code"
          class="note brass"
          role="status"
        >
          Its code {{ side.course.code }} says {{ wrong.code }}; the course is in {{ wrong.term }}. Make sure
          that this is the right course.
        </p>
        <p v-if="side.course.missing" class="note brass" role="status">
          The registrar does not list {{ codeText(side.course) }} any more. Ask the registrar before you go
          on.
        </p>
        <p class="soft">{{ side.fate }}</p>
      </section>
    </div>
    <NamesAndWindows :plan="plan" />
    <template #side>
      <template v-if="!inPlace">
        <h2>Sources <span v-if="sources.length > 1" class="soft small">in this order</span></h2>
        <ProblemNote v-if="problem" :problem="problem" @retry="problem = null" />
        <SourceList :plan="plan" :changing="changing" @choose="choose" />
        <AlsoInto v-if="plan.state === 'draft' && plan.may.edit && !awaited" :plan="plan" />
      </template>
      <template v-else
        ><h2>In place</h2>
        <p class="small">
          One course, used again. Its content stays, its dates move, and the old term keeps a snapshot.
        </p></template
      >
      <HabitChoice :plan="plan" />
      <p v-if="!plan.may.edit" class="soft">
        {{
          plan.state === 'run'
            ? 'This plan has been run; its pair is kept as it was.'
            : 'You can see this plan but not change it.'
        }}
      </p>
    </template>
    <template #foot
      ><FootBar
        ><NuxtLink class="act on-deep" :to="`/plans/${plan.id}/${inPlace ? 'date' : 'carry'}`"
          >On to {{ inPlace ? 'Date' : 'Carry' }} ⟶</NuxtLink
        ></FootBar
      ></template
    >
  </StageFrame>
</template>

<style scoped>
.rivals {
  margin-bottom: 16px;
}
.rivals p {
  margin: 0;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 40px;
}
.facts {
  margin: 10px 0 12px;
}
.facts th {
  border-bottom: 1px solid var(--rule);
  text-transform: none;
  letter-spacing: 0;
  font-size: 13px;
  width: 86px;
  padding-top: 8px;
}
.facts tr:first-child > * {
  border-top: 1.5px solid var(--rule-strong);
}
h2 .small {
  font: 400 12.5px var(--sans);
  margin-left: 6px;
}
@media (max-width: 620px) {
  .facts th,
  .facts tr:first-child > * {
    border: 0;
  }
}
@media (max-width: 700px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
    gap: 22px;
  }
}
</style>
