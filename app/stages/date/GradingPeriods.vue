<script setup lang="ts">
import { isoOf } from '~~/core/calendar/day'
import { usePlan } from '../plan/store'
import { asksPeriod, type LedgerItem } from './ledger'

/** The grading periods of the new term: how many items that count fall in each, and those of which a person must say. */
const props = defineProps<{ items: readonly LedgerItem[]; mayEdit: boolean }>()
defineEmits<{ select: [lineage: string] }>()
const store = usePlan()
const periods = computed(() => {
  const counts = new Map<string, number>()
  for (const { filed } of props.items)
    if (filed?.period) counts.set(filed.period, (counts.get(filed.period) ?? 0) + 1)
  return (store.terms?.target.gradingPeriods ?? []).map(({ name, from, to }) => ({
    name,
    days: `${dayText(isoOf(from))} to ${dayText(isoOf(to))}`,
    count: counts.get(name) ?? 0,
  }))
})
const asked = computed(() => props.items.filter(asksPeriod))
const chosen = computed(() => props.items.filter(({ filed }) => filed?.by === 'chosen'))
/** As many as are read at a glance; the others follow once these are settled. */
const listed = 6
const askedHead = computed(() =>
  asked.value.length === 1 ? 'One item needs your choice:' : `${asked.value.length} items need your choice:`,
)
const letGo = (): void =>
  store.fileUnder(
    chosen.value.map(item => item.lineage),
    null,
  )
</script>

<template>
  <section v-if="periods.length" class="under-rule" aria-label="Grading periods">
    <h2>Grading periods</h2>
    <dl class="settings">
      <template v-for="{ name, days, count } in periods" :key="name">
        <dt>
          <bdi>{{ name }}</bdi>
        </dt>
        <dd>
          {{ counted(count, 'item') }} <span class="small soft">{{ days }}</span>
        </dd>
      </template>
    </dl>
    <p class="small soft">
      An item with points goes by its new due date, else by its opening, else by its unit.
    </p>
    <div v-if="asked.length" class="small">
      <p class="settle">{{ askedHead }}</p>
      <ul>
        <li v-for="item in asked.slice(0, listed)" :key="item.lineage">
          <button class="link" type="button" @click="$emit('select', item.lineage)">
            <bdi>{{ item.node.title }}</bdi>
          </button>
        </li>
      </ul>
      <p v-if="asked.length > listed" class="soft">and {{ asked.length - listed }} more.</p>
    </div>
    <p v-if="chosen.length && mayEdit" class="small">
      {{ counted(chosen.length, 'period was', 'periods were') }} chosen by hand.
      <button class="link" type="button" @click="letGo">Let the dates decide again</button>
    </p>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  padding: 0;
  margin: 0 0 4px;
}
p {
  margin: 4px 0;
}
</style>
