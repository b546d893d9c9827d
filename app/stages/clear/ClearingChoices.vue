<script setup lang="ts">
import {
  clearChoiceOf,
  plannedClearing,
  type ClearChoice,
  type KindCounts,
} from '~~/core/student-data/clearing'
import { studentDataKinds } from '~~/core/student-data/kinds'
import { studentDataNames, studentDataWords, type StudentDataName } from '~~/core/student-data/student-data'
import type { ClearingReply } from '~~/shared/api/clearing'
import { useStagePlan } from '../plan/store'
import { staysText } from './clearing-words'

/** What of student data goes from the course that is written: a decision for each kind that is really there, and for each person. */
const props = defineProps<{ clearing: ClearingReply }>()
const { store, plan, document } = useStagePlan()
const mayEdit = computed(() => plan.value.may.edit)
const inPlace = computed(() => plan.value.mode === 'in-place')
const decisions = computed(() => document.value.clearing)
const planned = computed(() => plannedClearing(props.clearing.rows, props.clearing.people, decisions.value))
const titles = computed(
  () => new Map([...store.nodes, ...plan.value.target.nodes].map(node => [node.lineage, node.title])),
)
interface Line {
  kind: StudentDataName
  counts: KindCounts
  items: { lineage: string; title: string; rows: number; stays: boolean }[]
}
const lines = computed((): Line[] =>
  studentDataNames.flatMap(kind => {
    const counts = planned.value.kinds.get(kind)
    if (!counts || counts.go + counts.stay + counts.staffGo === 0) return []
    const byItem = new Map<string, number>()
    for (const row of props.clearing.rows)
      if (row.kind === kind && row.item !== null && row.isStudent)
        byItem.set(row.item, (byItem.get(row.item) ?? 0) + row.rows)
    const items = [...byItem].map(([lineage, rows]) => ({
      lineage,
      title: titles.value.get(lineage) ?? 'an item that was removed',
      rows,
      stays: decisions.value.except[kind]?.includes(lineage) ?? false,
    }))
    return [{ kind, counts, items }]
  }),
)
const staffRows = computed(() =>
  props.clearing.rows.filter(row => !row.isStudent).reduce((sum, row) => sum + row.rows, 0),
)
const byHand = computed(() => props.clearing.people.filter(person => person.origin === 'hand'))
const listed = computed(() => props.clearing.people.filter(person => person.origin === 'registrar'))
const isOff = (enrolment: string): boolean => planned.value.off.includes(enrolment)
const choice = (clears: unknown): ClearChoice => (clears === true ? 'clear' : 'keep')
const setKind = (kind: StudentDataName, clears: unknown): void =>
  store.changeIn('clearing', { kinds: { ...decisions.value.kinds, [kind]: choice(clears) } })
function setStays(kind: StudentDataName, item: string, stays: boolean): void {
  const rest = (decisions.value.except[kind] ?? []).filter(each => each !== item)
  store.changeIn('clearing', {
    except: { ...decisions.value.except, [kind]: stays ? [...rest, item] : rest },
  })
}
function setPeople(enrolments: readonly string[], goes: boolean): void {
  const people = Object.fromEntries(enrolments.map(enrolment => [enrolment, choice(goes)]))
  store.changeIn('clearing', { people: { ...decisions.value.people, ...people } })
}
const whyOf = (kind: StudentDataName): string => studentDataKinds[kind].why
</script>

<template>
  <table v-if="lines.length" class="ruled choices">
    <thead>
      <tr>
        <th scope="col">What is there</th>
        <th scope="col" class="number">Records</th>
        <th scope="col">Clear</th>
        <th scope="col">Why, and what it means</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="{ kind, counts, items } in lines" :key="kind">
        <td class="kind">{{ studentDataWords(kind)[1] }}</td>
        <td class="number">{{ numberText(counts.go + counts.stay) }}</td>
        <td>
          <ElCheckbox
            :model-value="clearChoiceOf(decisions, kind) === 'clear'"
            size="small"
            :disabled="!mayEdit"
            :aria-label="`Clear ${studentDataWords(kind)[1]}`"
            @change="(clears: unknown) => setKind(kind, clears)"
          />
        </td>
        <td>
          {{ whyOf(kind) }} <span class="soft">{{ staysText(counts) }}</span>
          <span v-if="clearChoiceOf(decisions, kind) === 'keep'" class="settle small">
            Recommended: clear it.</span
          >
          <details v-if="items.length > 1 && clearChoiceOf(decisions, kind) === 'clear'" class="small">
            <summary>Only on some items</summary>
            <ul>
              <li v-for="item in items" :key="item.lineage">
                <ElCheckbox
                  :model-value="!item.stays"
                  size="small"
                  :disabled="!mayEdit"
                  @change="(clears: unknown) => setStays(kind, item.lineage, clears !== true)"
                  ><bdi>{{ item.title }}</bdi>
                  <span class="soft">{{ numberText(item.rows) }}</span></ElCheckbox
                >
              </li>
            </ul>
          </details>
        </td>
      </tr>
      <tr v-if="staffRows">
        <td>Of teaching staff</td>
        <td class="number">{{ numberText(staffRows) }}</td>
        <td>
          <ElCheckbox
            :model-value="decisions.staff === 'clear'"
            size="small"
            :disabled="!mayEdit"
            aria-label="Clear what teaching staff wrote"
            @change="(clears: unknown) => store.changeIn('clearing', { staff: choice(clears) })"
          />
        </td>
        <td>
          What teaching staff wrote often answers every term.
          <span class="soft">It stays unless you say so.</span>
        </td>
      </tr>
    </tbody>
  </table>
  <section v-if="listed.length && inPlace" class="people" aria-label="Last term’s students on the list">
    <h3>
      {{ counted(listed.length, 'student') }} of last term still
      {{ listed.length === 1 ? 'stands' : 'stand' }} in the course
    </h3>
    <p class="small soft">
      The registrar put them there. They keep the old course: the snapshot of
      {{ plan.source.course.term.name }} stays theirs to read.
    </p>
    <ElRadioGroup
      :model-value="decisions.roster"
      size="small"
      :disabled="!mayEdit"
      aria-label="Last term’s students"
      @change="
        (roster: unknown) => store.changeIn('clearing', { roster: roster === 'clear' ? 'clear' : 'keep' })
      "
    >
      <ElRadio value="keep">Leave them to the academic office’s sweep (recommended)</ElRadio>
      <ElRadio value="clear">Take them off now, with all that is left of theirs</ElRadio>
    </ElRadioGroup>
  </section>
  <section v-if="byHand.length" class="people" aria-label="People added by hand">
    <h3>{{ counted(byHand.length, 'student') }} added by hand</h3>
    <p class="small soft">
      The registrar does not list {{ byHand.length === 1 ? 'this student' : 'these students' }}. Whoever is
      taken off loses this course, with all that hangs off it.
    </p>
    <p class="acts small">
      <button
        class="link"
        type="button"
        :disabled="!mayEdit"
        @click="
          setPeople(
            byHand.map(person => person.enrolment),
            true,
          )
        "
      >
        Take all {{ byHand.length }} off
      </button>
      <button
        class="link"
        type="button"
        :disabled="!mayEdit"
        @click="
          setPeople(
            byHand.map(person => person.enrolment),
            false,
          )
        "
      >
        Let all {{ byHand.length }} stay
      </button>
    </p>
    <ul class="names">
      <li v-for="person in byHand" :key="person.enrolment">
        <ElCheckbox
          :model-value="isOff(person.enrolment)"
          size="small"
          :disabled="!mayEdit"
          @change="(goes: unknown) => setPeople([person.enrolment], goes === true)"
          >Take <bdi>{{ person.name }}</bdi> off</ElCheckbox
        >
      </li>
    </ul>
  </section>
  <p class="small soft kept">
    What is cleared is kept aside for {{ counted(clearing.days, 'day') }}. Until then you can put it back from
    the course’s page.
  </p>
</template>

<style scoped>
.choices {
  max-width: 900px;
}
.choices .number {
  padding-right: 18px;
}
.kind::first-letter {
  text-transform: uppercase;
}
.kind {
  white-space: nowrap;
}
ul {
  list-style: none;
}
.people {
  margin-top: 18px;
  max-width: 760px;
}
.acts {
  display: flex;
  gap: 16px;
}
.names {
  columns: 2 260px;
}
.kept {
  margin-top: 14px;
}
@media (max-width: 620px) {
  .kind {
    white-space: normal;
  }
}
</style>
