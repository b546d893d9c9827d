<script setup lang="ts">
import { studentDataKinds, studentDataWords } from '~~/core/clear/kinds'
import FootBar from '../FootBar.vue'
import StageFrame from '../StageFrame.vue'
import { usePlan } from '../plan'

const store = usePlan()
const plan = computed(() => store.plan!)
const total = computed(() => studentDataKinds.reduce((sum, kind) => sum + plan.value.source.studentData[kind], 0))
const inShell = computed(() => studentDataKinds.reduce((sum, kind) => sum + plan.value.target.studentData[kind], 0))
</script>

<template>
  <StageFrame>
    <h2 class="line">Nothing about students crosses.</h2>
    <p class="lead">{{ codeText(plan.source.course) }} of {{ plan.source.course.term.name }} holds {{ counted(plan.source.studentData.students, 'student') }} and {{ numberText(total) }} things about them. All of it stays there.</p>
    <table class="ruled">
      <thead><tr><th scope="col">Kind</th><th scope="col" class="number">In the old course</th><th scope="col" class="number">Crosses</th><th scope="col" class="number">In the shell now</th></tr></thead>
      <tbody>
        <tr><td>Students on the roster</td><td class="number">{{ numberText(plan.source.studentData.students) }}</td><td class="number kept">0</td><td class="number">{{ numberText(plan.target.studentData.students) }}</td></tr>
        <tr v-for="kind in studentDataKinds" :key="kind">
          <td class="kind">{{ studentDataWords[kind][1] }}</td><td class="number">{{ numberText(plan.source.studentData[kind]) }}</td><td class="number kept">0</td><td class="number">{{ numberText(plan.target.studentData[kind]) }}</td>
        </tr>
      </tbody>
    </table>
    <template #side>
      <h2>Why nothing</h2>
      <p class="small">What students did hangs off their enrolment in the old course. Carrying copies units, items, dates and grade categories, and never reads an enrolment.</p>
      <p class="small">The old course stays whole and readable. After the run an audit counts every kind again in the shell, and the record keeps what it found.</p>
      <div class="note">
        <h3>The shell’s own</h3>
        <p class="small">{{ counted(plan.target.studentData.students, 'student') }} on the registrar’s roster stay{{ plan.target.studentData.students === 1 ? 's' : '' }} enrolled.{{ inShell ? ` ${counted(inShell, 'thing')} students have done in the shell already stay too.` : ' No work of theirs is in the shell yet.' }}</p>
      </div>
    </template>
    <template #foot><FootBar :totals="[{ count: total, words: 'things about students stay behind' }, { count: 0, words: 'cross' }]"><NuxtLink class="act on-deep" :to="`/plans/${plan.id}/date`">On to Date ⟶</NuxtLink></FootBar></template>
  </StageFrame>
</template>

<style scoped>
.line { font-size: 26px; margin: 6px 0 6px; }
.lead { max-width: 60ch; margin-bottom: 16px; }
.ruled { max-width: 760px; }
.kind::first-letter { text-transform: uppercase; }
.ruled .number { padding-right: 24px; }
</style>
