<script setup lang="ts">
import { dateFields, type DateField } from '~~/core/course/dates'
import type { OutlineNode } from '~~/core/course/outline'
import type { ClosurePolicy, Rule, TimePolicy } from '~~/core/dates/rule'
import { fieldName } from '~/composables/words'
import PolicyChoice from './PolicyChoice.vue'
import TimeChoice from './TimeChoice.vue'
import WeekdayTable from './WeekdayTable.vue'

/** What goes with every method that places dates: times of day, closures, and what each weekday becomes. */
defineProps<{ rule: Rule; nodes: readonly OutlineNode[]; mayEdit: boolean }>()
defineEmits<{
  time: [field: DateField, time: TimePolicy]
  closure: [field: DateField, policy: ClosurePolicy]
  weekdays: [weekdays: Rule['weekdays']]
}>()
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
      <TimeChoice
        v-for="field in dateFields"
        :id="`${field}-at`"
        :key="`${field}-at`"
        :field="field"
        :value="rule.times[field]"
        :may-edit="mayEdit"
        @change="value => $emit('time', field, value)"
      />
      <PolicyChoice
        v-for="field in dateFields"
        :id="`${field}-closure`"
        :key="`${field}-closure`"
        :label="`${fieldName(field)} on a closure`"
        :options="policies"
        :value="rule.closures[field]"
        :may-edit="mayEdit"
        @change="value => $emit('closure', field, value)"
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
