<script setup lang="ts">
import type { GatherReply } from '~~/shared/api/gathering'
import { useDayContext } from '~/composables/today'
import DateField from '~/ui/DateField.vue'
import type { OwnSpan } from './gathering'

/** When a course was taught that was taught in no term here: first and last day, and the days without classes that calendars among the files name. */
const props = defineProps<{
  /** First and last day of what is dated in it; null: nothing is. */
  dated: { from: string; to: string } | null
  days: GatherReply['days']
  fault: (field: string) => string | undefined
}>()
const span = defineModel<OwnSpan>({ required: true })
const context = useDayContext()
const ends = [
  { end: 'from', label: 'First day', full: 'First day of classes', placeholder: '2 sep 2025' },
  { end: 'to', label: 'Last day', full: 'Last day of classes', placeholder: '4 dec 2025' },
] as const
const ran = computed(() => ({
  from: span.value.from ?? props.dated?.from ?? null,
  to: span.value.to ?? props.dated?.to ?? null,
}))
/** Days of the calendars that lie between the first day and the last. */
const within = computed(() => {
  const { from, to } = ran.value
  if (!from || !to) return []
  return props.days.flatMap(({ file, events }) =>
    events.flatMap(({ title, firstDay, lastDay }) =>
      firstDay >= from && lastDay <= to ? [{ file, name: title, from: firstDay, to: lastDay }] : [],
    ),
  )
})
type Closure = OwnSpan['closures'][number]
const keyOf = ({ name, from, to }: Closure): string => `${name} ${from} ${to}`
const isMarked = (closure: Closure): boolean =>
  span.value.closures.some(each => keyOf(each) === keyOf(closure))
function mark({ name, from, to }: Closure, on: boolean): void {
  const rest = span.value.closures.filter(each => keyOf(each) !== keyOf({ name, from, to }))
  span.value = { ...span.value, closures: on ? [...rest, { name, from, to }] : rest }
}
const daysText = ({ from, to }: Closure): string =>
  from === to ? dayText(from) : `${dayText(from)} to ${dayText(to)}`
</script>

<template>
  <div class="own">
    <p class="small">
      Say when its classes began and ended.
      {{ dated ? 'Proposed are the first and the last day of what is dated in it.' : '' }}
    </p>
    <dl class="settings">
      <template v-for="{ end, label, full, placeholder } in ends" :key="end">
        <dt>{{ label }}</dt>
        <dd>
          <DateField
            :model-value="ran[end]"
            :context="context"
            :label="full"
            :placeholder="placeholder"
            @update:model-value="day => (span = { ...span, [end]: day })"
          />
        </dd>
      </template>
    </dl>
    <p v-if="fault('span')" class="small lost" role="alert">{{ fault('span') }}</p>
    <details v-if="within.length" open>
      <summary>Which of these days had no classes?</summary>
      <ul class="plain">
        <li v-for="closure in within" :key="closure.file + keyOf(closure)">
          <ElCheckbox :model-value="isMarked(closure)" @change="on => mark(closure, Boolean(on))">
            <bdi>{{ closure.name }}</bdi> <span class="soft small">{{ daysText(closure) }}</span>
          </ElCheckbox>
        </li>
      </ul>
    </details>
  </div>
</template>

<style scoped>
.own {
  display: grid;
  gap: 12px;
}
p {
  margin: 0;
}
ul {
  list-style: none;
  padding: 0;
}
li :deep(.el-checkbox) {
  height: auto;
  white-space: normal;
}
.lost {
  color: var(--buoy);
}
</style>
