<script setup lang="ts">
import { civilOfDay, dayOfCivil, type Day } from '~~/core/calendar/day'
import { teachingWeek, weekFirst, type Term } from '~~/core/calendar/term'
import { monthName, weekdayShort } from '~~/core/dates/words'

/** A month on a sheet: teaching weeks at its side, closures hatched, what is due each day as dots. For the pointer; keys type. */
const props = defineProps<{
  term: Term | null
  /** The day in question. */
  day: Day
  chosen: Day | null
  /** Where the rule would put the date. */
  ruleDay?: Day | null
  dueOn?: (day: Day) => number
}>()
const emit = defineEmits<{ pick: [day: Day] }>()

const weekStart = computed(() => props.term?.weekStart ?? 1)
const months = ref(0)
watch(
  () => props.day,
  () => {
    months.value = 0
  },
)
const month = computed(() => {
  const { year, month: own } = civilOfDay(props.day)
  const at = year * 12 + own - 1 + months.value
  return { year: Math.floor(at / 12), month: (at % 12) + 1 }
})
const weekdays = computed(() => Array.from({ length: 7 }, (_, at) => ((weekStart.value - 1 + at) % 7) + 1))
/** `wk 8` of a week with classes. */
function weekName(first: Day): string {
  const { term } = props
  if (!term?.weeks.includes(first)) return ''
  return `wk ${teachingWeek(term, first).week}`
}
const isWithin = (range: { from: Day; to: Day } | null, day: Day): boolean =>
  range !== null && day >= range.from && day <= range.to
const dotsShown = 4
const cellOf = (day: Day) => ({
  day,
  date: civilOfDay(day).date,
  isOther: civilOfDay(day).month !== month.value.month,
  isClosed: props.term?.closureOn(day) !== undefined,
  isExam: isWithin(props.term?.exams ?? null, day),
  dots: '●'.repeat(Math.min(dotsShown, props.dueOn?.(day) ?? 0)),
})
const rows = computed(() => {
  const { year, month: own } = month.value
  const last = dayOfCivil(own === 12 ? year + 1 : year, (own % 12) + 1, 1) - 1
  const firsts = []
  for (let first = weekFirst(weekStart.value, dayOfCivil(year, own, 1)); first <= last; first += 7)
    firsts.push(first)
  return firsts.map(first => ({
    first,
    name: weekName(first),
    days: Array.from({ length: 7 }, (_, at) => cellOf(first + at)),
  }))
})
const hint = computed(() =>
  [
    props.term?.closures.length && 'hatched: no classes',
    props.term?.exams && 'tinted: exams',
    props.dueOn && 'dots: what is due',
    props.ruleDay !== null && props.ruleDay !== undefined && 'outlined: where the rule would put it',
  ]
    .filter(Boolean)
    .join(' · '),
)
</script>

<template>
  <div class="sheet" aria-hidden="true" @mousedown.prevent>
    <div class="head">
      <span class="title">{{ monthName(month.month) }} {{ month.year }}</span>
      <button type="button" tabindex="-1" title="The month before" @click="months--">&lt;</button>
      <button type="button" tabindex="-1" title="The month after" @click="months++">&gt;</button>
    </div>
    <table>
      <thead>
        <tr>
          <th />
          <th v-for="weekday in weekdays" :key="weekday">{{ weekdayShort(weekday) }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.first">
          <th>{{ row.name }}</th>
          <td
            v-for="cell in row.days"
            :key="cell.day"
            :class="{
              other: cell.isOther,
              closed: cell.isClosed,
              exams: cell.isExam,
              chosen: cell.day === chosen,
              ruled: cell.day === ruleDay,
            }"
          >
            <button type="button" tabindex="-1" @click="emit('pick', cell.day)">
              {{ cell.date }}<span class="dots">{{ cell.dots }}</span>
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <p v-if="hint" class="hint">{{ hint }}</p>
  </div>
</template>

<style scoped>
.sheet {
  padding: 10px 14px 8px;
}
.head {
  display: flex;
  gap: 6px;
  align-items: center;
}
.title {
  flex: 1;
  font: 500 17px var(--serif);
}
.head button {
  width: 22px;
  height: 22px;
  border: 1px solid var(--rule);
  border-radius: 2px;
  background: var(--paper-raised);
  color: var(--ink);
  font-weight: 600;
  cursor: pointer;
}
table {
  width: 100%;
  border-collapse: collapse;
  margin-top: 6px;
  table-layout: fixed;
}
thead th {
  font: 400 12px var(--sans);
  color: var(--ink-soft);
  padding: 2px 0 4px;
}
tbody tr {
  border-top: 1px solid var(--rule);
}
tbody th {
  font: italic 400 13px var(--serif);
  color: var(--brass-text);
  text-align: left;
}
td {
  padding: 0;
}
td button {
  width: 100%;
  height: 32px;
  border: 1.5px solid transparent;
  background: none;
  color: var(--ink);
  font: inherit;
  font-size: 13.5px;
  line-height: 15px;
  cursor: pointer;
  display: flex;
  flex-direction: column;
  align-items: center;
  justify-content: flex-start;
  padding: 3px 0 0;
}
.dots {
  font-size: 6px;
  line-height: 8px;
  letter-spacing: 1px;
  color: var(--tide);
}
.other button {
  color: var(--ink-soft);
  font-style: italic;
}
.closed {
  background: repeating-linear-gradient(135deg, var(--sand) 0 4px, var(--paper-raised) 4px 6px);
}
.exams {
  background: var(--exams);
}
.ruled button {
  border-color: var(--ink);
}
td button:hover {
  background: var(--tide-wash);
}
.chosen button,
.chosen button:hover {
  background: var(--tide);
  color: var(--on-tide);
  font-weight: 600;
}
.chosen .dots {
  color: var(--on-tide);
}
.hint {
  margin: 8px 0 0;
  font-size: 12px;
  color: var(--ink-soft);
}
</style>
