<script setup lang="ts">
import type { PlanReply } from '~~/shared/api/plans'
import { usePlan } from './plan/store'

/** Sources that the plan may not be rolled from any more: which they are, who took them back, and the way on. */
const props = defineProps<{ plan: PlanReply }>()
const store = usePlan()
const sources = computed(() => [props.plan.source, ...props.plan.more].map(side => side.course))
/** Courses that are no sources, of which the plan takes single items. */
const found = computed(() => props.plan.found.map(side => side.course))
const isSource = (id: string): boolean => sources.value.some(source => source.id === id)
const hasOthers = computed(
  () => sources.value.length > props.plan.closed.filter(each => isSource(each.course)).length,
)
function whyText({ how, by, at }: PlanReply['closed'][number]): string {
  const when = at ? `, ${instantText(at)}` : ''
  if (how === 'taken-back') return by ? `${by} took it back${when}.` : `The share was taken back${when}.`
  if (how === 'ran-out') return `The share ran out${when}.`
  return 'Whoever chose it no longer has a part in that course.'
}
const closed = computed(() =>
  props.plan.closed.flatMap(each => {
    const course = [...sources.value, ...found.value].find(one => one.id === each.course)
    return course
      ? [
          {
            course,
            name: codeText(course),
            why: whyText(each),
            mayGo: !isSource(course.id) || hasOthers.value,
          },
        ]
      : []
  }),
)
const fateOf = (mayGo: boolean): string =>
  mayGo
    ? 'This plan neither shows nor counts what it holds. The rest of the plan is as it was. Take it out to run the plan.'
    : 'Nothing of it is shown here. Your decisions are kept.'
useFocusAfterwards()
const {
  run: takeOut,
  busy,
  problem,
} = useAction((id: string) =>
  isSource(id)
    ? store.changeSources(sources.value.flatMap(source => (source.id === id ? [] : [source.id])))
    : store.takeOutCourse(id),
)
</script>

<template>
  <section class="closed" role="status" aria-label="A source is not open any more">
    <p v-for="{ course, name, why, mayGo } in closed" :key="course.id">
      <b
        >You can no longer roll from {{ name }} <bdi>{{ course.title }}</bdi>, {{ course.term.name }}.</b
      >
      {{ why }} {{ fateOf(mayGo) }}
      <template v-if="plan.may.edit">
        <button v-if="mayGo" class="link" type="button" :disabled="busy" @click="takeOut(course.id)">
          Take {{ name }} out of the plan
        </button>
        <NuxtLink v-else :to="`/plans/${plan.id}/pair`">Choose another source in Pair</NuxtLink>
      </template>
    </p>
    <ActionProblem :problem="problem" />
  </section>
</template>

<style scoped>
.closed {
  padding: 8px var(--gutter);
  background: var(--brass-wash);
  border-bottom: 1px solid var(--brass);
  flex: none;
}
p {
  margin: 0;
}
b {
  font-weight: 600;
}
</style>
