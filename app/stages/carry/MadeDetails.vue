<script setup lang="ts">
import type { MadeThing } from '~~/core/carry/added'
import { dateFields, datesOf, noDates, type ItemDates } from '~~/core/course/dates'
import { useItemContexts } from '~/composables/today'
import MadeFields, { type MadeFields as Fields } from '~/ui/made/MadeFields.vue'
import { useStagePlan } from '../plan/store'

/** What is made in the plan: its points, category, dates and text. */
const props = defineProps<{ lineage: string; thing: MadeThing; mayEdit: boolean }>()
const { store, plan, document } = useStagePlan()
const contexts = useItemContexts(
  () => store.terms?.target ?? null,
  () => plan.value.target.course.meetings,
)
const dates = computed(() => {
  const rule = document.value.dates.itemRules[props.lineage]
  return datesOf((rule?.method === 'set' ? rule : null) ?? store.planned.get(props.lineage) ?? noDates)
})
const fields = computed((): Fields => ({
  points: props.thing.points,
  exam: props.thing.exam,
  text: props.thing.text,
  dates: dates.value,
  category: document.value.grades.items[props.lineage]?.category ?? null,
}))
const holdDates = (next: Readonly<ItemDates>): void =>
  store.hold(props.lineage, dateFields.every(each => next[each] === null) ? null : next)
function putCategory(category: string | null): void {
  const { items } = document.value.grades
  store.changeIn('grades', { items: { ...items, [props.lineage]: { ...items[props.lineage], category } } })
}
function change({ dates: next, category, ...own }: Partial<Fields>): void {
  if (next) holdDates(next)
  if (category !== undefined) putCategory(category)
  if (Object.keys(own).length > 0)
    store.changeIn('added', {
      made: { ...document.value.added.made, [props.lineage]: { ...props.thing, ...own } },
    })
}
</script>

<template>
  <MadeFields
    :key="lineage"
    :kind="thing.kind"
    :fields="fields"
    :categories="store.carrying?.grades.categories ?? []"
    :contexts="contexts"
    :disabled="!mayEdit"
    @change="change"
  />
  <p class="small">
    <button class="link" type="button" :disabled="!mayEdit" @click="store.takeOut(lineage)">
      Take it out of the plan
    </button>
  </p>
</template>
