<script setup lang="ts">
import type { EffectReply, EffectView as Effect, PlanReply } from '~~/shared/api/plans'
import type { ApiProblem } from '~/composables/api'
import { asksPeriod } from '../date/ledger'
import { useLedgerItems } from '../date/view'
import { useStagePlan } from '../plan/store'
import EffectTable from './EffectTable.vue'
import EffectTree from './EffectTree.vue'
import FindingList from './FindingList.vue'
import FurtherShells from './FurtherShells.vue'
import { effectText } from '~~/core/plan/effect-text'
import { furnishings } from '~~/core/course/furniture'
import { furnitureLines } from '../carry/around/furniture'
import { lossesIn } from '../carry/carry'
import InPlaceTable from './InPlaceTable.vue'
import LossList from './LossList.vue'
import OpenPoints from './OpenPoints.vue'
import SectionDates from './SectionDates.vue'
import ToSettle from './ToSettle.vue'
import { studentDataNames, studentDataWords } from '~~/core/student-data/student-data'
import { clearingText, factChanges, sectionChanges, shellOf } from './effect'
import type { FurtherEffect } from './further'

/** What running would do, whole, before one consents to it. */
const props = defineProps<{
  plan: PlanReply
  effect: Effect
  sections: EffectReply['sections']
  clearing: EffectReply['clearing']
  further: FurtherEffect[] | null
  furtherProblem: ApiProblem | null
}>()
defineEmits<{ retryFurther: [] }>()
const { store, document } = useStagePlan()
const inPlace = computed(() => props.plan.mode === 'in-place')
const sentence = computed(() => effectText(props.effect, { inPlace: inPlace.value }))
const facts = computed(() => [
  ...factChanges(document.value, shellOf(props.plan)),
  ...props.plan.sections
    .filter(entry => entry.chosen || entry.joined)
    .flatMap(({ course }) => sectionChanges(document.value.sections[course.id], course)),
])
const items = useLedgerItems()
/** What the run will write: what the shell has already keeps its dates. */
const fresh = computed(() => items.value.filter(item => store.dated.has(item.lineage)))
const toSettle = computed(() => fresh.value.filter(item => item.settle))
const toLookAt = computed(() => fresh.value.filter(item => !item.settle && item.findings.length > 0))
const toFile = computed(() => fresh.value.filter(asksPeriod))
/** The exact list of what is written over or taken away. */
const losses = computed(() => lossesIn(store.rows))
/** What stands around the units of the shell and goes for the old course's. */
const around = computed(() =>
  furnitureLines({
    sources: [props.plan.source, ...props.plan.more].map(side => side.furniture),
    shell: props.plan.target.furniture,
    carried: store.carried,
    choices: document.value.carry.furniture,
  }).flatMap(({ happens, shell }) =>
    happens === 'goes' && shell ? [`${shell.title} (${furnishings[shell.part].words})`] : [],
  ),
)
/** What of the shell's grade rules is written over. */
const rewritten = computed(() => [
  ...(store.carrying?.grades.categories ?? []).flatMap(({ changes, shell }) =>
    changes && shell ? [shell.title] : [],
  ),
  ...(props.effect.grades.rules ? ['How grades are reckoned'] : []),
])
const clearedText = computed(() => {
  const { kinds } = props.clearing
  if (!clearingText(props.clearing)) return ''
  const each = studentDataNames.flatMap(kind => {
    const count = kinds[kind]
    return count ? [counted(count, ...studentDataWords(kind))] : []
  })
  return [
    ...(inPlace.value ? [] : [clearingText(props.clearing)]),
    each.length ? `Cleared: ${each.join(', ')}.` : '',
  ]
    .filter(Boolean)
    .join(' ')
})
const hasFurther = computed(() => props.plan.set.some(entry => entry.state === 'draft'))
</script>

<template>
  <p class="effect-line">{{ sentence }}</p>
  <InPlaceTable v-if="inPlace" :plan="plan" :effect="effect" :clearing="clearing" />
  <EffectTable
    v-else
    :effect="effect"
    :source="plan.source.course"
    :target="plan.target.course"
    :several="plan.more.length > 0"
    :lost-links="store.lostLinks"
  />
  <LossList
    v-if="!inPlace && losses.length + rewritten.length + around.length"
    :rows="losses"
    :categories="rewritten"
    :around="around"
    :plan-id="plan.id"
  />
  <p v-if="clearedText" class="cleared">{{ clearedText }}</p>
  <EffectTree v-if="!inPlace" :plan-id="plan.id" />
  <SectionDates v-if="sections.length" :plan="plan" :sections="sections" />
  <table v-if="facts.length" class="ruled facts">
    <caption class="caps">
      The shell itself
    </caption>
    <tbody>
      <tr v-for="fact in facts" :key="fact.what">
        <td>{{ fact.what }}</td>
        <td class="soft">{{ fact.before }}</td>
        <td>{{ fact.after }}</td>
      </tr>
    </tbody>
  </table>
  <FurtherShells
    v-if="hasFurther"
    :effects="further"
    :problem="furtherProblem"
    @retry="$emit('retryFurther')"
  />
  <FindingList v-if="store.findings.length" :findings="store.findings" :plan-id="plan.id" />
  <OpenPoints :plan-id="plan.id" />
  <ToSettle
    v-if="toSettle.length"
    :items="toSettle"
    :plan-id="plan.id"
    :head="counted(toSettle.length, 'item has dates to settle', 'items have dates to settle')"
  />
  <ToSettle
    v-if="toLookAt.length"
    :items="toLookAt"
    :plan-id="plan.id"
    :head="counted(toLookAt.length, 'item has a date to look at', 'items have dates to look at')"
  />
  <ToSettle
    v-if="toFile.length"
    :items="toFile"
    :plan-id="plan.id"
    what="You can run all the same. These items then belong to no grading period of the shell."
    :head="counted(toFile.length, 'item is in no grading period', 'items are in no grading period')"
  />
</template>

<style scoped>
.effect-line {
  font: 500 22px/1.3 var(--serif);
  margin: 6px 0 14px;
}
.cleared {
  max-width: 860px;
  margin: 10px 0;
}
.facts {
  max-width: 860px;
  margin-top: 8px;
}
.facts td:first-child {
  width: 190px;
  font-weight: 600;
}
.facts caption {
  text-align: left;
  padding-top: 12px;
}
</style>
