<script setup lang="ts">
import { dayOf, weekdayOf, type Weekday } from '~~/core/calendar/day'
import { dateFields } from '~~/core/course/dates'
import type { RuleCommon } from '~~/core/dates/rule'
import { weekdayName } from '~~/core/dates/words'
import type { OutlineNode } from '~~/core/course/outline'

/** What each weekday of the old dates becomes: Wednesday's work becomes Thursday's. */
const props = defineProps<{
  weekdays: RuleCommon['weekdays']
  nodes: readonly OutlineNode[]
  mayEdit: boolean
}>()
const emit = defineEmits<{ change: [weekdays: RuleCommon['weekdays']] }>()
const all: readonly Weekday[] = [1, 2, 3, 4, 5, 6, 7]
/** How many old dates fall on each weekday. */
const counts = computed(() => {
  const found = new Map<Weekday, number>()
  for (const node of props.nodes)
    for (const field of dateFields) {
      const at = node[field]
      if (at === null) continue
      const weekday = weekdayOf(dayOf(at))
      found.set(weekday, (found.get(weekday) ?? 0) + 1)
    }
  return found
})
const shown = computed(() => all.filter(weekday => counts.value.has(weekday) || props.weekdays[`${weekday}`]))
const changed = computed(() => all.filter(weekday => becomes(weekday) !== weekday))
const becomes = (weekday: Weekday): Weekday => props.weekdays[`${weekday}`] ?? weekday
function turn(weekday: Weekday, into: Weekday): void {
  const { [`${weekday}` as const]: _, ...others } = props.weekdays
  emit('change', into === weekday ? others : { ...others, [weekday]: into })
}
const summary = computed(() =>
  changed.value.length === 0
    ? 'every weekday stays'
    : changed.value.map(day => `${weekdayName(day)} becomes ${weekdayName(becomes(day))}`).join(', '),
)
</script>

<template>
  <details v-if="shown.length" class="small">
    <summary>Weekdays: {{ summary }}</summary>
    <dl>
      <template v-for="weekday in shown" :key="weekday">
        <dt>
          {{ weekdayName(weekday) }}’s work
          <span class="soft">{{ counted(counts.get(weekday) ?? 0, 'date') }}</span>
        </dt>
        <dd>
          <ElSelect
            :model-value="becomes(weekday)"
            :disabled="!mayEdit"
            :aria-label="`${weekdayName(weekday)}’s work becomes`"
            @change="(into: Weekday) => turn(weekday, into)"
            ><ElOption
              v-for="each in all"
              :key="each"
              :value="each"
              :label="each === weekday ? 'stays' : `becomes ${weekdayName(each)}’s`"
          /></ElSelect>
        </dd>
      </template>
    </dl>
  </details>
</template>

<style scoped>
details {
  margin: 0 0 12px;
}
summary {
  cursor: pointer;
}
dl {
  display: grid;
  grid-template-columns: auto 160px;
  align-items: center;
  margin: 4px 0 0;
}
dt,
dd {
  margin: 0;
  padding: 3px 0;
}
</style>
