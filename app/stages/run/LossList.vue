<script setup lang="ts">
import { partWords } from '~~/core/carry/again'
import type { PlaceRow } from '~~/core/carry/places/row'
import type { PassageChoices } from '~~/core/prose/compose'
import { titleOf } from '../carry/carry'
import { usePlan } from '../plan/store'

/** Everything of the shell that a run writes over or takes away, one by one, in the units they stand in. */
const props = defineProps<{ rows: readonly PlaceRow[]; planId: string }>()
const store = usePlan()
const unitOf = computed(() => {
  const units = new Map<string, string>()
  const over: PlaceRow[] = []
  for (const row of store.rows) {
    over.length = row.depth
    units.set(
      row.key,
      over
        .filter(each => each.type === 'unit')
        .map(titleOf)
        .join(' › ') || 'Outside the units',
    )
    over[row.depth] = row
  }
  return units
})
const groups = computed(() => {
  const found = new Map<string, PlaceRow[]>()
  for (const row of props.rows) {
    const unit = unitOf.value.get(row.key) ?? ''
    found.set(unit, [...(found.get(unit) ?? []), row])
  }
  return [...found].map(([unit, rows]) => ({ unit, rows }))
})
const passagesText = ({ takes, both }: PassageChoices): string =>
  counted(takes.length + both.length, 'passage')
function whatText({ happens, source, shell, parts }: PlaceRow): string {
  if (happens === 'unfilled') return 'an empty place that nothing fills is removed'
  if (happens === 'removes') return 'is removed from the shell'
  if (happens === 'again') {
    const taken = parts
      .filter(part => part.takes)
      .map(({ part, passages }) => (passages ? `text in ${passagesText(passages)}` : partWords[part]))
    return `gets the old course’s ${taken.join(', ')}`
  }
  const name = source && source.title !== shell?.title ? `“${source.title}”` : 'the old course’s'
  return `is replaced by ${name}`
}
</script>

<template>
  <section class="losses" aria-labelledby="losses-head">
    <h3 id="losses-head">Overwritten or removed in the shell: {{ rows.length }}</h3>
    <ul>
      <li v-for="group in groups" :key="group.unit">
        <b
          ><bdi>{{ group.unit }}</bdi></b
        >
        <ul>
          <li v-for="row in group.rows" :key="row.key">
            <NuxtLink :to="`/plans/${planId}/carry?item=${row.key}`"
              ><bdi>{{ row.shell?.title }}</bdi></NuxtLink
            >
            {{ whatText(row) }}
          </li>
        </ul>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.losses {
  margin: 14px 0;
}
ul {
  list-style: none;
}
ul ul {
  padding-left: 16px;
}
li {
  padding: 2px 0;
}
</style>
