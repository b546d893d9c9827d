<script setup lang="ts">
import type { DateField } from '~~/core/course/dates'
import type { OutlineNode } from '~~/core/course/outline'
import type { ClosurePolicy, Rule, TimePolicy } from '~~/core/dates/rule'
import PolicyChoice from './PolicyChoice.vue'
import WeekdayTable from './WeekdayTable.vue'

/** What goes with every method that places dates: times of day, closures, and what each weekday becomes. */
defineProps<{ rule: Rule; nodes: readonly OutlineNode[]; mayEdit: boolean }>()
defineEmits<{
  time: [field: DateField, time: TimePolicy]
  closure: [field: DateField, policy: ClosurePolicy]
  weekdays: [weekdays: Rule['weekdays']]
}>()
const times = (all: string[]): { value: string; label: string }[] => [
  { value: 'keep', label: 'as it was' },
  { value: 'class-start', label: 'start of class' },
  { value: 'class-end', label: 'end of class' },
  ...all.map(value => ({ value, label: value })),
]
const opensTimes = times(['00:00', '06:00', '08:00', '09:00', '12:00'])
const dueTimes = times(['09:00', '12:00', '17:00', '20:00', '23:59'])
const policies: { value: ClosurePolicy; label: string }[] = [
  { value: 'next', label: 'next usable day' },
  { value: 'previous', label: 'usable day before' },
  { value: 'nearest', label: 'nearest usable day' },
  { value: 'keep', label: 'stays' },
]
</script>

<template>
  <div>
    <dl class="choices">
      <PolicyChoice
        id="opens-at"
        label="Opens at"
        :options="opensTimes"
        :value="rule.times.opens"
        :may-edit="mayEdit"
        @change="value => $emit('time', 'opens', value)"
      />
      <PolicyChoice
        id="due-at"
        label="Due at"
        :options="dueTimes"
        :value="rule.times.due"
        :may-edit="mayEdit"
        @change="value => $emit('time', 'due', value)"
      />
      <PolicyChoice
        id="closes-at"
        label="Closes at"
        :options="dueTimes"
        :value="rule.times.closes"
        :may-edit="mayEdit"
        @change="value => $emit('time', 'closes', value)"
      />
      <PolicyChoice
        id="due-closure"
        label="Due on a closure"
        :options="policies"
        :value="rule.closures.due"
        :may-edit="mayEdit"
        @change="value => $emit('closure', 'due', value)"
      />
      <PolicyChoice
        id="opens-closure"
        label="Opens on a closure"
        :options="policies"
        :value="rule.closures.opens"
        :may-edit="mayEdit"
        @change="value => $emit('closure', 'opens', value)"
      />
      <PolicyChoice
        id="closes-closure"
        label="Closes on a closure"
        :options="policies"
        :value="rule.closures.closes"
        :may-edit="mayEdit"
        @change="value => $emit('closure', 'closes', value)"
      />
    </dl>
    <WeekdayTable
      :weekdays="rule.weekdays"
      :nodes="nodes"
      :may-edit="mayEdit"
      @change="weekdays => $emit('weekdays', weekdays)"
    />
  </div>
</template>

<style scoped>
.choices {
  margin: 8px 0 12px;
  display: grid;
  grid-template-columns: auto 144px;
  align-items: center;
}
</style>
