<script setup lang="ts">
import {
  ruleSchemas,
  type ClosurePolicy,
  type MethodName,
  type Rule,
  type TimePolicy,
} from '~~/core/dates/rule'
import { usePlan } from '../plan'

/** How dates cross for the whole course: the method, with what each would leave to settle, and what goes with it. */
const withUndated = defineModel<boolean>('withUndated', { required: true })
const store = usePlan()
const rule = computed(() => store.document!.dates.rule)
const mayEdit = computed(() => store.plan!.may.edit)
const common = computed(() => ({
  weekdays: rule.value.weekdays,
  times: rule.value.times,
  closures: rule.value.closures,
}))
/** A rule of another method that keeps times, weekdays and closures as they are set. */
const ruleOf = (method: 'keep-week' | 'offset' | 'none'): Rule =>
  method === 'offset'
    ? ruleSchemas.offset.parse({ method, wholeWeeks: true, ...common.value })
    : ruleSchemas[method].parse({ method, ...common.value })
const methods: { method: 'keep-week' | 'offset' | 'none'; name: string; says: string }[] = [
  { method: 'keep-week', name: 'Same week and weekday', says: 'counts weeks' },
  { method: 'offset', name: 'Same distance from the first day', says: 'counts days' },
  { method: 'none', name: 'No dates', says: 'takes every date away' },
]
const choose = (method: MethodName): void => {
  if (method !== rule.value.method) store.changeRule(ruleOf(method as 'keep-week'))
}
function setOffset(change: { wholeWeeks?: boolean; days?: number | null }): void {
  if (rule.value.method === 'offset') store.changeRule({ ...rule.value, ...change })
}
const setDays = (text: string): void =>
  setOffset({ days: /^-?\d{1,4}$/.test(text.trim()) ? Number(text) : null })
const setTime = (slot: 'opens' | 'due', time: TimePolicy): void =>
  store.changeRule({ ...rule.value, times: { ...rule.value.times, [slot]: time } })
const setClosure = (slots: ('opens' | 'due' | 'closes')[], policy: ClosurePolicy): void =>
  store.changeRule({
    ...rule.value,
    closures: { ...rule.value.closures, ...Object.fromEntries(slots.map(slot => [slot, policy])) },
  })
const files = computed(() => [
  { name: 'CSV', href: `/api/v1/plans/${store.plan!.id}/dates.csv` },
  { name: 'XLSX', href: `/api/v1/plans/${store.plan!.id}/dates.xlsx` },
  { name: 'iCalendar', href: `/api/v1/plans/${store.plan!.id}/deadlines.ics` },
])
/** The file is made from what the server has, so what is waiting is saved first. */
async function takeAlong(href: string): Promise<void> {
  await store.save()
  window.location.assign(href)
}
const times = (own: string[]): { value: string; label: string }[] => [
  { value: 'keep', label: 'as it was' },
  { value: 'class-start', label: 'start of class' },
  { value: 'class-end', label: 'end of class' },
  ...own.map(value => ({ value, label: value })),
]
const policies: { value: ClosurePolicy; label: string }[] = [
  { value: 'next', label: 'next usable day' },
  { value: 'previous', label: 'usable day before' },
  { value: 'nearest', label: 'nearest usable day' },
  { value: 'keep', label: 'stays' },
]
</script>

<template>
  <section>
    <h2>How dates cross</h2>
    <div role="radiogroup" aria-label="How dates cross">
      <div v-for="entry in methods" :key="entry.method" class="method">
        <ElRadio
          :model-value="rule.method"
          :value="entry.method"
          :disabled="!mayEdit"
          @change="choose(entry.method)"
          >{{ entry.name }}</ElRadio
        >
        <p class="small soft">
          {{ entry.says
          }}<template v-if="store.comparison">
            ·
            <span :class="{ settle: store.comparison.settles[entry.method]! > 0 }"
              >{{ store.comparison.settles[entry.method] }} to settle</span
            ><template v-if="store.comparison.suggested === entry.method"> · suggested</template></template
          >
        </p>
        <div v-if="entry.method === 'offset' && rule.method === 'offset'" class="more small">
          <ElCheckbox
            :model-value="rule.wholeWeeks"
            :disabled="!mayEdit || rule.days !== null"
            @change="value => setOffset({ wholeWeeks: Boolean(value) })"
            >in whole weeks</ElCheckbox
          >
          <label
            >or days
            <input
              class="days"
              type="number"
              :value="rule.days ?? ''"
              :disabled="!mayEdit"
              @change="event => setDays((event.target as HTMLInputElement).value)"
          /></label>
        </div>
      </div>
    </div>
    <dl v-show="rule.method !== 'none'" class="choices">
      <dt><label for="opens-at">Opens at</label></dt>
      <dd>
        <ElSelect
          id="opens-at"
          :model-value="rule.times.opens"
          :disabled="!mayEdit"
          aria-label="Opens at"
          @change="value => setTime('opens', value as TimePolicy)"
          ><ElOption
            v-for="time in times(['00:00', '06:00', '08:00', '09:00', '12:00'])"
            :key="time.value"
            v-bind="time"
        /></ElSelect>
      </dd>
      <dt><label for="due-at">Due at</label></dt>
      <dd>
        <ElSelect
          id="due-at"
          :model-value="rule.times.due"
          :disabled="!mayEdit"
          aria-label="Due at"
          @change="value => setTime('due', value as TimePolicy)"
          ><ElOption
            v-for="time in times(['09:00', '12:00', '17:00', '20:00', '23:59'])"
            :key="time.value"
            v-bind="time"
        /></ElSelect>
      </dd>
      <dt><label for="due-closure">Due on a closure</label></dt>
      <dd>
        <ElSelect
          id="due-closure"
          :model-value="rule.closures.due"
          :disabled="!mayEdit"
          aria-label="Due on a closure"
          @change="value => setClosure(['due', 'closes'], value as ClosurePolicy)"
          ><ElOption v-for="policy in policies" :key="policy.value" v-bind="policy"
        /></ElSelect>
      </dd>
      <dt><label for="opens-closure">Opens on a closure</label></dt>
      <dd>
        <ElSelect
          id="opens-closure"
          :model-value="rule.closures.opens"
          :disabled="!mayEdit"
          aria-label="Opens on a closure"
          @change="value => setClosure(['opens'], value as ClosurePolicy)"
          ><ElOption v-for="policy in policies" :key="policy.value" v-bind="policy"
        /></ElSelect>
      </dd>
    </dl>
    <slot />
    <ElCheckbox v-model="withUndated" class="undated">Show items without dates</ElCheckbox>
    <p class="out small">
      Take the dates along:
      <a v-for="file in files" :key="file.href" :href="file.href" @click.prevent="takeAlong(file.href)">{{
        file.name
      }}</a>
    </p>
  </section>
</template>

<style scoped>
.method {
  margin-bottom: 3px;
}
.method p {
  margin: -1px 0 0 23px;
}
.more {
  margin: 4px 0 0 23px;
  display: flex;
  gap: 16px;
  align-items: center;
}
.days {
  font: inherit;
  width: 58px;
  border: 1px solid var(--ink-soft);
  background: var(--paper-raised);
  color: var(--ink);
  padding: 1px 4px;
}
.choices {
  margin: 8px 0 12px;
  display: grid;
  grid-template-columns: auto 144px;
  align-items: center;
}
.choices dt,
.choices dd {
  margin: 0;
  padding: 4px 0;
  border-bottom: 1px dotted #b9b3a2;
  height: 31px;
  display: flex;
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
