<script setup lang="ts">
import { dayOf, isoOf } from '~~/core/calendar/day'
import { loadByDay, loadByWeek, type EaseMove, type Load } from '~~/core/dates/crowding'
import { sentence } from '~~/core/dates/reasons'
import type { ItemDates } from '~~/core/course/dates'
import EaseChart from './EaseChart.vue'
import { crowdItem, easedDates, type useCrowding } from './crowding'
import type { LedgerItem } from './ledger'
import { useLeftOut } from './left-out'

/** Crowded days and weeks, and what Ease would do about them: taken whole or in part. */
const props = defineProps<{
  items: readonly LedgerItem[]
  ease: ReturnType<typeof useCrowding>
  mayEdit: boolean
}>()
const emit = defineEmits<{ hold: [dates: ReadonlyMap<string, ItemDates>]; close: [] }>()
const by = ref<'weeks' | 'days'>('days')
const byLineage = computed(() => new Map(props.items.map(item => [item.lineage, item])))
const proposal = computed(() => props.ease.proposal.value)
const moves = computed(() => (proposal.value?.solved ? proposal.value.moves : []))
const { without, turn, wanted } = useLeftOut(() => moves.value)
const rows = computed(() =>
  moves.value.flatMap(move => {
    const item = byLineage.value.get(move.id)
    return item ? [{ ...move, item, why: sentence(move.reason) }] : []
  }),
)
function held(): Map<string, ItemDates> {
  return new Map(
    wanted.value.flatMap(move => {
      const item = byLineage.value.get(move.id)
      return item ? [[move.id, easedDates(item, move)] as const] : []
    }),
  )
}

const eased = computed(() => {
  const to = new Map(wanted.value.map((move: EaseMove) => [move.id, move]))
  return props.items.map(item => {
    const move = to.get(item.lineage)
    const is = crowdItem(item)
    return move ? { ...is, due: easedDates(item, move).due } : is
  })
})
const columns = computed(() => {
  const term = props.ease.term.value
  if (!term) return []
  const { classDays, weeks, exams } = term
  if (by.value === 'weeks') return weeks.map((first, at) => ({ first, label: `week ${at + 1}` }))
  const due = props.ease.all.value.flatMap(item => (item.due ? dayOf(item.due) : []))
  const last = exams?.to ?? term.classes.to
  return [...new Set([...classDays, ...due.filter(day => day <= last)])]
    .sort((a, b) => a - b)
    .map(first => ({ first, label: shortDay(isoOf(first)) }))
})
function heights(items: typeof eased.value): number[] {
  const term = props.ease.term.value
  if (!term) return []
  const crowding = props.ease.crowding.value
  const found: Map<number, Load> =
    by.value === 'weeks' ? loadByWeek(items, crowding, term) : loadByDay(items, crowding)
  return columns.value.map(({ first }) => {
    const load = found.get(first)
    return (by.value === 'weeks' ? load?.weight : load?.ids.length) ?? 0
  })
}
const now = computed(() => heights(props.ease.all.value))
const after = computed(() => (moves.value.length > 0 ? heights(eased.value) : null))
const limit = computed(() => {
  const { perDay, perWeek } = props.ease.crowding.value
  return by.value === 'weeks' ? perWeek : perDay
})
const told = computed(() => {
  const { days, weeks } = props.ease.crowded.value
  const { perDay, perWeek } = props.ease.crowding.value
  const over = (loads: readonly Load[], one: string, amount: number): string =>
    `${counted(loads.length, `${one} holds`, `${one}s hold`)} more than ${amount}.`
  const sentences = [
    ...(perDay !== null && days.length > 0 ? [over(days, 'day', perDay)] : []),
    ...(perWeek !== null && weeks.length > 0 ? [over(weeks, 'week', perWeek)] : []),
  ]
  return sentences.length > 0 ? sentences.join(' ') : 'No day and no week holds too much.'
})
</script>

<template>
  <section class="ease" aria-label="Crowded days">
    <header>
      <h2>Crowded days</h2>
      <p class="soft small" role="status">{{ told }}</p>
      <span class="small acts">
        <button class="link" type="button" :aria-pressed="by === 'days'" @click="by = 'days'">By day</button>
        <button class="link" type="button" :aria-pressed="by === 'weeks'" @click="by = 'weeks'">
          By week
        </button>
        <button class="link" type="button" @click="$emit('close')">Back to the ledger</button>
      </span>
    </header>
    <EaseChart
      :labels="columns.map(column => column.label)"
      :now="now"
      :eased="after"
      :limit="limit"
      :told="`What is due ${by === 'days' ? 'each day' : 'each week, by weight'}. ${told}`"
    />
    <p class="key small soft" aria-hidden="true">
      <span class="now" /> as it stands <span class="over" /> too much
      <template v-if="after"><span class="eased" /> eased</template>
    </p>
    <div class="proposal">
      <template v-if="proposal && !proposal.solved">
        <h3>These limits cannot hold</h3>
        <p>{{ proposal.conflict.message }}</p>
      </template>
      <template v-else-if="rows.length">
        <div class="head">
          <h3>Ease would move {{ counted(rows.length, 'item') }}</h3>
          <button
            v-if="mayEdit"
            class="act"
            type="button"
            :disabled="!wanted.length"
            @click="emit('hold', held())"
          >
            {{
              wanted.length === rows.length
                ? `Move ${rows.length === 1 ? 'it' : `all ${rows.length}`} and hold`
                : `Move ${wanted.length} and hold`
            }}
          </button>
        </div>
        <ul aria-label="What Ease would move">
          <li v-for="{ id, item, from, to, cost, why } in rows" :key="id">
            <label>
              <input
                type="checkbox"
                :checked="!without.has(id)"
                :disabled="!mayEdit"
                :aria-label="`Move ${item.node.title}`"
                @change="turn(id)"
              />
              <KindMark :kind="item.node.kind" :exam="item.node.exam" />
              <bdi>{{ item.node.title }}</bdi>
            </label>
            <span
              >{{ dayText(isoOf(from)) }} → <b>{{ dayText(isoOf(to)) }}</b></span
            >
            <span class="soft">{{ counted(Math.abs(to - from), 'day') }}, cost {{ numberText(cost) }}</span>
            <span class="soft small why">{{ why }}</span>
          </li>
        </ul>
      </template>
      <p v-else class="soft">
        Nothing needs to move. Set lower limits at the right to spread the work further.
      </p>
    </div>
  </section>
</template>

<style scoped>
.ease {
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
}
header,
.head {
  display: flex;
  gap: 16px;
  align-items: baseline;
}
header p {
  flex: 1;
  margin: 0;
}
.head {
  justify-content: space-between;
  align-items: center;
  margin-bottom: 6px;
}
.acts {
  display: flex;
  gap: 12px;
}
.acts [aria-pressed='true'] {
  color: var(--ink);
  font-weight: 600;
  text-decoration: none;
}
.key {
  margin: 4px 0 10px;
  display: flex;
  gap: 6px;
  align-items: center;
}
.key span {
  width: 10px;
  height: 10px;
  background: var(--ink-soft);
  margin-left: 10px;
}
.key .over {
  background: var(--brass);
}
.key .eased {
  background: var(--tide);
}
.proposal {
  flex: 1;
  min-height: 0;
  overflow: auto;
  border-top: 1.5px solid var(--rule-strong);
  padding-top: 10px;
}
ul {
  list-style: none;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1.3fr) 170px 120px minmax(0, 2fr);
  gap: 10px;
  align-items: baseline;
  padding: 5px 0;
  border-bottom: 1px solid var(--rule);
  content-visibility: auto;
  contain-intrinsic-size: auto 34px;
}
label {
  display: flex;
  gap: 8px;
  align-items: center;
}
input {
  margin: 0;
  accent-color: var(--tide-text);
}
@media (max-width: 900px) {
  .proposal {
    overflow: visible;
  }
  header {
    flex-wrap: wrap;
    gap: 2px 14px;
  }
  li {
    grid-template-columns: minmax(0, 1fr);
    gap: 2px;
  }
}
</style>
