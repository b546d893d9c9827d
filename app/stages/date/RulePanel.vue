<script setup lang="ts">
import type { DateField } from '~~/core/course/dates'
import { comparedRule } from '~~/core/dates/fit'
import {
  allMethods,
  commonOf,
  type ClosurePolicy,
  type MethodName,
  type TimePolicy,
} from '~~/core/dates/rule'
import { offeredMethods } from '~/workers/compute'
import { useStagePlan } from '../plan/store'
import MethodChoice from './MethodChoice.vue'
import OffsetParameters from './OffsetParameters.vue'
import PolicyChoice from './PolicyChoice.vue'

/** How dates cross for the whole course: the method, with what each would leave to settle, and what goes with it. */
const withUndated = defineModel<boolean>('withUndated', { required: true })
const { store, plan, document } = useStagePlan()
const rule = computed(() => document.value.dates.rule)
const mayEdit = computed(() => plan.value.may.edit)
const methods = allMethods.filter(method => offeredMethods.includes(method.name))

/** A rule of another method keeps times, weekdays and closures as they are set. */
function choose(method: MethodName): void {
  if (method !== rule.value.method) store.changeRule(comparedRule(method, commonOf(rule.value)))
}
const setTime = (field: 'opens' | 'due', time: TimePolicy): void =>
  store.changeRule({ ...rule.value, times: { ...rule.value.times, [field]: time } })
function setClosure(fields: readonly DateField[], policy: ClosurePolicy): void {
  const changed = Object.fromEntries(fields.map(field => [field, policy]))
  store.changeRule({ ...rule.value, closures: { ...rule.value.closures, ...changed } })
}

const times = (own: string[]): { value: string; label: string }[] => [
  { value: 'keep', label: 'as it was' },
  { value: 'class-start', label: 'start of class' },
  { value: 'class-end', label: 'end of class' },
  ...own.map(value => ({ value, label: value })),
]
const opensTimes = times(['00:00', '06:00', '08:00', '09:00', '12:00'])
const dueTimes = times(['09:00', '12:00', '17:00', '20:00', '23:59'])
const policies: { value: ClosurePolicy; label: string }[] = [
  { value: 'next', label: 'next usable day' },
  { value: 'previous', label: 'usable day before' },
  { value: 'nearest', label: 'nearest usable day' },
  { value: 'keep', label: 'stays' },
]

const files = computed(() =>
  Object.entries({ CSV: 'dates.csv', XLSX: 'dates.xlsx', iCalendar: 'deadlines.ics' }).map(
    ([name, file]) => ({ name, href: `/api/v1/plans/${plan.value.id}/${file}` }),
  ),
)
/** The file is made from what the server has, so what is waiting is saved first. */
async function download(href: string): Promise<void> {
  await store.save()
  window.location.assign(href)
}
</script>

<template>
  <section>
    <h2>How dates cross</h2>
    <div role="radiogroup" aria-label="How dates cross">
      <MethodChoice
        v-for="method in methods"
        :key="method.name"
        :method="method"
        :chosen="rule.method"
        :may-edit="mayEdit"
        :comparison="store.comparison"
        @choose="choose"
      >
        <OffsetParameters
          v-if="method.name === 'offset' && rule.method === 'offset'"
          :rule="rule"
          :may-edit="mayEdit"
          @change="store.changeRule"
        />
      </MethodChoice>
    </div>
    <dl v-show="rule.method !== 'none'" class="choices">
      <PolicyChoice
        id="opens-at"
        label="Opens at"
        :options="opensTimes"
        :value="rule.times.opens"
        :may-edit="mayEdit"
        @change="value => setTime('opens', value)"
      />
      <PolicyChoice
        id="due-at"
        label="Due at"
        :options="dueTimes"
        :value="rule.times.due"
        :may-edit="mayEdit"
        @change="value => setTime('due', value)"
      />
      <PolicyChoice
        id="due-closure"
        label="Due on a closure"
        :options="policies"
        :value="rule.closures.due"
        :may-edit="mayEdit"
        @change="value => setClosure(['due', 'closes'], value)"
      />
      <PolicyChoice
        id="opens-closure"
        label="Opens on a closure"
        :options="policies"
        :value="rule.closures.opens"
        :may-edit="mayEdit"
        @change="value => setClosure(['opens'], value)"
      />
    </dl>
    <slot />
    <ElCheckbox v-model="withUndated" class="undated">Show items without dates</ElCheckbox>
    <p class="out small">
      Download these dates:
      <a v-for="{ name, href } in files" :key="href" :href="href" @click.prevent="download(href)">{{
        name
      }}</a>
    </p>
  </section>
</template>

<style scoped>
.choices {
  margin: 8px 0 12px;
  display: grid;
  grid-template-columns: auto 144px;
  align-items: center;
}
.undated {
  margin-top: 12px;
}
.out {
  margin: 8px 0 0;
  display: flex;
  gap: 10px;
}
</style>
