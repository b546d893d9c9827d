<script setup lang="ts">
import type { PlanText } from '~~/shared/api/plans'
import { useStagePlan } from '../plan/store'
import type { ShownRow } from './carry'

/** How much of an item's text comes: all of it, what stands under one heading, and what else goes into the same place. */
const props = defineProps<{ shown: ShownRow; mayEdit: boolean }>()
const { store, plan, document } = useStagePlan()
const row = computed(() => props.shown.row)
const key = computed(() => row.value.source?.lineage ?? '')
const places = computed(() => document.value.places)
const isPlace = computed(() => row.value.happens === 'fills')
const { data, problem, loading, refresh } = useLoaded(() =>
  api.get<PlanText>(`/plans/${plan.value.id}/texts/${key.value}`),
)
const isAsked = ref(false)
/** Headings are fetched once somebody opens the list. */
function ask(): void {
  if (isAsked.value) return
  isAsked.value = true
  void refresh()
}
watch(key, () => (isAsked.value = false))
const whole = 'all'
const nameOf = ({ title, nth }: { title: string; nth: number }): string => `${nth} ${title}`
const chosen = computed(() => places.value.headings[key.value] ?? null)
const headings = computed(() => {
  const found = (isAsked.value && data.value?.headings) || []
  const isKnown = chosen.value === null || found.some(each => nameOf(each) === nameOf(chosen.value ?? each))
  return isKnown || !chosen.value ? found : [{ ...chosen.value, level: 2 }, ...found]
})
const part = computed({
  get: () => (chosen.value ? nameOf(chosen.value) : whole),
  set: value => {
    const { [key.value]: _, ...rest } = places.value.headings
    const heading = headings.value.find(each => nameOf(each) === value)
    store.changeIn('places', {
      headings: heading ? { ...rest, [key.value]: { title: heading.title, nth: heading.nth } } : rest,
    })
  },
})
const titles = computed(() => new Map(store.nodes.map(node => [node.lineage, node.title])))
/** What could go into the same place: texts that come and meet nothing of the shell. */
const couldCome = computed(() => {
  const holders = new Set(store.nodes.map(node => node.parent))
  return store.rows.flatMap(({ source, happens, into, key: own, text }) => {
    if (
      !source?.isHtml ||
      holders.has(source.lineage) ||
      own === row.value.key ||
      (text && text.further.length > 0)
    )
      return []
    return happens === 'adds' || into === row.value.key ? [source] : []
  })
})
const further = computed({
  get: () => places.value.further[key.value] ?? [],
  set: value => {
    const { [key.value]: _, ...rest } = places.value.further
    const pairs = Object.fromEntries(value.map(lineage => [lineage, null]))
    store.changeIn('places', {
      further: value.length > 0 ? { ...rest, [key.value]: value } : rest,
      pairs: { ...places.value.pairs, ...pairs },
    })
  },
})
const goTogether = computed(() => further.value.flatMap(lineage => titles.value.get(lineage) ?? []))
</script>

<template>
  <dl class="settings">
    <dt>Takes</dt>
    <dd>
      <ElSelect
        v-model="part"
        size="small"
        :disabled="!mayEdit"
        :loading="loading"
        aria-label="How much of its text comes"
        @visible-change="ask"
      >
        <ElOption :value="whole" label="all of its text" />
        <ElOption
          v-for="heading in headings"
          :key="nameOf(heading)"
          :value="nameOf(heading)"
          :label="`what stands under “${heading.title}”`"
          :style="{ paddingLeft: `${8 + heading.level * 8}px` }"
        />
      </ElSelect>
    </dd>
    <template v-if="isPlace || further.length">
      <dt>And also</dt>
      <dd>
        <ElSelect
          v-model="further"
          size="small"
          multiple
          filterable
          collapse-tags
          :disabled="!mayEdit"
          placeholder="nothing else"
          aria-label="What else goes into this place"
        >
          <ElOption v-for="node in couldCome" :key="node.lineage" :value="node.lineage" :label="node.title" />
        </ElSelect>
      </dd>
    </template>
  </dl>
  <ProblemNote v-if="problem && isAsked" :problem="problem" @retry="refresh" />
  <p v-if="isAsked && data && !data.headings.length" class="small soft">
    This text has no headings: it comes whole.
  </p>
  <p v-if="chosen" class="small soft">
    Only what stands under “{{ chosen.title }}” comes, under that name. The rest of the text stays behind.
  </p>
  <p v-if="goTogether.length" class="small">
    {{ goTogether.length === 1 ? 'One more text follows' : `${goTogether.length} more texts follow` }} it,
    under {{ goTogether.length === 1 ? 'its title' : 'their titles' }}: {{ goTogether.join(', ') }}.
    <span class="settle">Their points, dates, category and settings do not come.</span>
  </p>
</template>
