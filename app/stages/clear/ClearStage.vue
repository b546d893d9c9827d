<script setup lang="ts">
import { studentDataNames, studentDataWords, totalOf } from '~~/core/student-data/student-data'
import FootBar from '../FootBar.vue'
import StageFrame from '../StageFrame.vue'
import { useStagePlan } from '../plan/store'
import { studentDataHeld } from './held'

const { plan } = useStagePlan()
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
const inShell = computed(() => totalOf(plan.value.target.studentData))
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
</script>

<template>
  <StageFrame>
    <h2 class="line">
      {{ inPlace ? 'What students did stays in the course.' : 'Nothing about students crosses.' }}
    </h2>
    <p v-if="inPlace" class="lead">
      {{ codeText(plan.source.course) }} holds {{ counted(held.students, 'student') }} and
      {{ counted(total, 'record') }} of what they did. The run keeps a snapshot with all of it in
      {{ plan.source.course.term.name }}, and takes nothing out of the course itself.
    </p>
    <p v-else class="lead">
      {{ sides.map(side => `${codeText(side.course)} of ${side.course.term.name}`).join(' and ') }}
      {{ sides.length === 1 ? 'holds' : 'hold' }} {{ counted(held.students, 'student') }} and
      {{ counted(total, 'record') }} of what they did. All of it stays there.{{
        untold.length
          ? ` What ${untold.join(', ')} holds about students is not shown to you; it stays there too.`
          : ''
      }}
    </p>
    <table class="ruled">
      <thead>
        <tr>
          <th scope="col">Kind</th>
          <th scope="col" class="number">{{ inPlace ? 'In it now' : 'In the old course' }}</th>
          <th scope="col" class="number">{{ inPlace ? 'In the snapshot' : 'Crosses' }}</th>
          <th scope="col" class="number">{{ inPlace ? 'Stays in the course' : 'In the shell now' }}</th>
        </tr>
      </thead>
      <tbody>
        <tr>
          <td>Students on the roster</td>
          <td class="number">{{ numberText(held.students) }}</td>
          <td class="number kept">{{ inPlace ? numberText(held.students) : 0 }}</td>
          <td class="number">{{ numberText(inPlace ? held.students : plan.target.studentData.students) }}</td>
        </tr>
        <tr v-for="kind in studentDataNames" :key="kind">
          <td class="kind">{{ studentDataWords(kind)[1] }}</td>
          <td class="number">{{ numberText(held[kind]) }}</td>
          <td class="number kept">{{ inPlace ? numberText(held[kind]) : 0 }}</td>
          <td class="number">{{ numberText(inPlace ? held[kind] : plan.target.studentData[kind]) }}</td>
        </tr>
      </tbody>
    </table>
    <template #side>
      <template v-if="inPlace"
        ><h2>Why it stays</h2>
        <p class="small">
          Rolling in place moves dates. What students did is neither moved nor removed: it is in the course as
          before, and once more in the snapshot.
        </p>
        <p class="small">
          Where the registrar makes a shell for the new term, roll into that instead: nothing about students
          crosses then.
        </p></template
      >
      <template v-else>
        <h2>Why nothing</h2>
        <p class="small">
          What students did belongs to their enrolment in the old course. Carrying copies units, items, dates
          and grade categories, and never reads an enrolment.
        </p>
        <p class="small">
          The old course stays whole and readable. After the run an audit counts every kind again in the
          shell, and the record keeps what it found.
        </p>
        <h2 class="own">The shell’s own</h2>
        <p class="small">{{ rosterText }} {{ workText }}</p>
      </template>
    </template>
    <template #foot
      ><FootBar
        :totals="
          inPlace
            ? [{ count: total, words: 'records of students stay' }]
            : [
                { count: total, words: 'records of students stay behind' },
                { count: 0, words: 'cross' },
              ]
        "
        ><NuxtLink class="act on-deep" :to="`/plans/${plan.id}/date`">On to Date ⟶</NuxtLink></FootBar
      ></template
    >
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
.lead {
  max-width: 60ch;
  margin-bottom: 16px;
}
.ruled {
  max-width: 760px;
}
.kind::first-letter {
  text-transform: uppercase;
}
.ruled .number {
  padding-right: 24px;
}
</style>
