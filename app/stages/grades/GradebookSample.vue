<script setup lang="ts">
import type { GradesTold } from '~~/core/grading/reckon'
import NumberCell from './NumberCell.vue'
import { useStagePlan } from '../plan/store'
import { gradedAs } from '~~/core/grading/plan'
import { plainRules } from '~~/core/grading/rules'
import { gradedItems, gradesBy, sampleStudents, type SampleStudent } from './gradebook'

/** What made-up students come to by the old rules and by the new ones, so that a change is seen to be right. */
const { store, plan, document } = useStagePlan()
const carried = computed(() => store.nodes.filter(node => store.carried.has(node.lineage)))
const itemsBefore = computed(() => gradedItems(carried.value))
const itemsAfter = computed(() => {
  const grades = store.carrying?.grades
  if (!grades) return []
  return itemsBefore.value.map(item => ({ ...item, ...gradedAs(item, grades, document.value.grades) }))
})
/** Scores that were typed, by student and item, over the made-up ones. */
const typed = ref<Record<string, Record<string, string | null>>>({})
const students = computed(() =>
  sampleStudents(itemsBefore.value).map((student): SampleStudent => ({
    ...student,
    scores: { ...student.scores, ...typed.value[student.id] },
  })),
)
const before = computed(() =>
  gradesBy(
    plan.value.source.grading ?? plainRules,
    store.merged?.categories ?? [],
    itemsBefore.value,
    students.value,
  ),
)
const after = computed(() => {
  const grades = store.carrying?.grades
  if (!grades) return 'Nothing is planned yet'
  return gradesBy(grades.rules, grades.categories, itemsAfter.value, students.value)
})
const resultOf = (told: GradesTold | string, id: string) =>
  typeof told === 'string' ? undefined : told.students.find(student => student.id === id)
const lines = computed(() =>
  students.value.map(student => {
    const [was, is] = [resultOf(before.value, student.id), resultOf(after.value, student.id)]
    const difference = was?.result && is?.result ? Number(is.result) - Number(was.result) : null
    return { student, was, is, difference }
  }),
)
const text = (result: { result: string | null; letter: string | null } | undefined): string =>
  [result?.result ? `${result.result} %` : 'none', result?.letter].filter(Boolean).join(' · ')
const differenceText = (difference: number | null): string => {
  if (difference === null) return ''
  if (Math.abs(difference) < 0.005) return 'the same'
  return `${difference > 0 ? '+' : '−'}${Math.abs(difference).toFixed(2)}`
}
const open = ref<string | null>(null)
function type(student: string, item: string, value: number | null): void {
  typed.value = {
    ...typed.value,
    [student]: { ...typed.value[student], [item]: value === null ? null : pointsText(value) },
  }
}
const dropped = computed(() => new Set(resultOf(after.value, open.value ?? '')?.dropped))
const opened = computed(() => students.value.find(student => student.id === open.value) ?? null)
const points = (score: string | null | undefined): number | null =>
  score === null || score === undefined ? null : Math.round(Number(score) * 10_000)
</script>

<template>
  <section aria-labelledby="sample-head">
    <h2 id="sample-head">Sample gradebook</h2>
    <p class="small soft">
      Four made-up students over the {{ itemsBefore.length }} graded items that come. Open one to type other
      scores. Nothing of this is kept.
    </p>
    <p v-if="typeof after === 'string'" class="small settle" role="alert">
      These rules cannot be reckoned by yet: {{ after }}.
    </p>
    <table class="ruled">
      <thead>
        <tr>
          <th scope="col">Student</th>
          <th scope="col" class="number">By the old rules</th>
          <th scope="col" class="number">By these</th>
          <th scope="col" class="number">Change</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="{ student, was, is, difference } in lines" :key="student.id">
          <th scope="row">
            <button
              class="link"
              type="button"
              :aria-expanded="open === student.id"
              @click="open = open === student.id ? null : student.id"
            >
              {{ student.name }}
            </button>
          </th>
          <td class="number">{{ text(was) }}</td>
          <td class="number">{{ text(is) }}</td>
          <td class="number">{{ differenceText(difference) }}</td>
        </tr>
      </tbody>
    </table>
    <div v-if="opened" class="scores">
      <h3>Scores of “{{ opened.name }}”</h3>
      <ul>
        <li v-for="item in itemsAfter" :key="item.lineage" :class="{ dropped: dropped.has(item.lineage) }">
          <bdi>{{ item.title }}</bdi>
          <span v-if="dropped.has(item.lineage)" class="soft small">dropped</span>
          <span v-else-if="item.exempt" class="soft small">exempt</span>
          <span v-else-if="item.category === null" class="settle small">in no category</span>
          <span class="score">
            <NumberCell
              :value="points(opened.scores[item.lineage])"
              :label="`${item.title}: score`"
              @change="value => type(opened?.id ?? '', item.lineage, value)"
            />
            <span class="soft small">of {{ pointsText(item.points) }}</span>
          </span>
        </li>
      </ul>
    </div>
  </section>
</template>

<style scoped>
th[scope='row'] {
  text-transform: none;
  letter-spacing: 0;
  font-size: 14px;
  border-bottom: 1px solid var(--rule);
}
.scores {
  margin-top: 10px;
}
.scores ul {
  list-style: none;
  columns: 2;
  column-gap: 26px;
}
.scores li {
  display: flex;
  gap: 8px;
  align-items: center;
  padding: 2px 0;
  break-inside: avoid;
  border-bottom: 1px solid var(--rule);
}
.scores bdi {
  flex: 1;
  min-width: 0;
}
.dropped bdi {
  text-decoration: line-through;
}
.score {
  display: flex;
  gap: 5px;
  align-items: center;
}
@media (max-width: 900px) {
  .scores ul {
    columns: 1;
  }
}
</style>
