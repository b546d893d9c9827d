<script setup lang="ts">
import { lossText } from '~~/core/carry/places/loss'
import type { PlaceRow } from '~~/core/carry/places/row'
import { titleOf } from '../carry/carry'
import { usePlan } from '../plan/store'
import { whoseText } from './effect'

/** Everything of the shell that a run writes over or takes away, one by one, in the units they stand in. */
const props = defineProps<{
  rows: readonly PlaceRow[]
  /** Titles of the shell's grade categories that are written over, and how grades are reckoned there. */
  categories: readonly string[]
  /** What around the units of the shell goes for the old course's. */
  around: readonly string[]
  planId: string
}>()
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
const whose = ({ source }: PlaceRow): string =>
  whoseText(present(store.plan), source ? store.sideOf(source.lineage) : null)
const count = computed(() => props.rows.length + props.categories.length + props.around.length)
</script>

<template>
  <section class="losses" aria-labelledby="losses-head">
    <h3 id="losses-head">Overwritten or removed in the shell: {{ count }}</h3>
    <ul>
      <li v-if="categories.length">
        <NuxtLink :to="`/plans/${planId}/grades`">Grade rules</NuxtLink>
        <ul>
          <li v-for="title in categories" :key="title">
            <bdi>{{ title }}</bdi> is written over
          </li>
        </ul>
      </li>
      <li v-if="around.length">
        <NuxtLink :to="`/plans/${planId}/around`">Around the units</NuxtLink>
        <ul>
          <li v-for="title in around" :key="title">
            <bdi>{{ title }}</bdi> is replaced
          </li>
        </ul>
      </li>
      <li v-for="group in groups" :key="group.unit">
        <b
          ><bdi>{{ group.unit }}</bdi></b
        >
        <ul>
          <li v-for="row in group.rows" :key="row.key">
            <NuxtLink :to="`/plans/${planId}/carry?item=${row.key}`"
              ><bdi>{{ row.shell?.title }}</bdi></NuxtLink
            >
            {{ lossText(row, whose(row)) }}
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
