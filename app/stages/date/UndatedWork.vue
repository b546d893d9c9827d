<script setup lang="ts">
import type { Weekday } from '~~/core/calendar/day'
import { usualPattern, type PatternDate } from '~~/core/dates/pattern'
import { weekdayName } from '~~/core/dates/words'
import { itemKindDefinitions } from '~~/core/course/kinds'
import { itemKinds, type ItemKind } from '~~/core/course/model'
import type { UndatedPattern } from '~~/core/plan/parts/dates'
import { isUndated } from '~~/core/plan/undated'
import NumberBox from '~/ui/NumberBox.vue'
import { useStagePlan } from '../plan/store'
import type { LedgerItem } from './ledger'

/** Work that never had a date, and a pattern that gives it one: unit k is in teaching week k. */
const props = defineProps<{ items: readonly LedgerItem[]; mayEdit: boolean }>()
const { store, document } = useStagePlan()
const pattern = computed(() => document.value.dates.pattern)
const usual: UndatedPattern = {
  ...usualPattern,
  dates: { ...usualPattern.dates },
  kinds: itemKinds.filter(kind => itemKindDefinitions[kind].workedOn),
}
// Not of the document: another rule for the course changes nothing here.
const itemRules = computed(() => document.value.dates.itemRules)
const undated = computed(() =>
  props.items.filter(item => isUndated(item.node) && !(item.lineage in itemRules.value)),
)
const kindsThere = computed(() =>
  itemKinds.filter(kind => undated.value.some(item => item.node.kind === kind)),
)
const meant = computed(() => {
  const kinds: readonly (ItemKind | null)[] = (pattern.value ?? usual).kinds
  return undated.value.filter(item => kinds.includes(item.node.kind))
})
const dated = computed(() =>
  meant.value.filter(({ planned }) => planned.due !== null || planned.opens !== null),
)
const put = (changed: Partial<UndatedPattern>): void =>
  store.changeIn('dates', { pattern: { ...(pattern.value ?? usual), ...changed } })
const toggle = (isOn: unknown): void => (isOn ? put({}) : store.changeIn('dates', { pattern: null }))
const weekdays: readonly Weekday[] = [1, 2, 3, 4, 5, 6, 7]
function putDate(field: 'opens' | 'due', changed: Partial<PatternDate> | null): void {
  const { [field]: now, ...rest } = (pattern.value ?? usual).dates
  const first = usual.dates[field] ?? { weeksOn: 0, weekday: 1, time: '08:00' }
  put({ dates: changed ? { ...rest, [field]: { ...(now ?? first), ...changed } } : rest })
}
const weeks = [
  { value: 0, label: 'of its week' },
  { value: 1, label: 'a week on' },
  { value: 2, label: 'two weeks on' },
]
const times = ['00:00', '06:00', '08:00', '09:00', '12:00', '17:00', '20:00', '23:59']
</script>

<template>
  <section v-if="undated.length || pattern" class="under-rule" aria-label="Work without dates">
    <h2>Work without dates</h2>
    <p v-if="!pattern" class="small">
      {{ counted(undated.length, 'item has', 'items have') }} no date,
      {{ meant.length === 0 ? 'none' : meant.length }} of them work.
    </p>
    <ElCheckbox :model-value="pattern !== null" :disabled="!mayEdit" @change="toggle"
      >Date it by a pattern</ElCheckbox
    >
    <template v-if="pattern">
      <dl class="settings">
        <dt>Unit 1 is in</dt>
        <dd>
          <span class="small soft">teaching week </span>
          <NumberBox
            :value="pattern.firstWeek"
            :min="1"
            :max="200"
            :disabled="!mayEdit"
            label="Teaching week of the first unit"
            @change="firstWeek => put({ firstWeek })"
          />
        </dd>
        <dt>Each takes</dt>
        <dd>
          <NumberBox
            :value="pattern.weeksPerUnit"
            :min="1"
            :max="60"
            :disabled="!mayEdit"
            label="Weeks for each unit"
            @change="weeksPerUnit => put({ weeksPerUnit })"
          />
          <span class="small soft"> {{ pattern.weeksPerUnit === 1 ? 'week' : 'weeks' }}</span>
        </dd>
        <template v-for="field in ['opens', 'due'] as const" :key="field">
          <dt>{{ fieldName(field) }}</dt>
          <dd class="date">
            <ElSelect
              :model-value="pattern.dates[field]?.weekday ?? 0"
              size="small"
              :disabled="!mayEdit"
              :aria-label="`${fieldName(field)} on which weekday`"
              @change="day => putDate(field, day === 0 ? null : { weekday: day })"
            >
              <ElOption :value="0" label="no date" />
              <ElOption v-for="day in weekdays" :key="day" :value="day" :label="weekdayName(day)" />
            </ElSelect>
            <template v-if="pattern.dates[field]">
              <ElSelect
                :model-value="pattern.dates[field]?.weeksOn"
                size="small"
                :disabled="!mayEdit"
                :aria-label="`${fieldName(field)} in which week`"
                @change="weeksOn => putDate(field, { weeksOn })"
              >
                <ElOption v-for="week in weeks" :key="week.value" :value="week.value" :label="week.label" />
              </ElSelect>
              <ElSelect
                :model-value="pattern.dates[field]?.time"
                size="small"
                :disabled="!mayEdit"
                :aria-label="`${fieldName(field)} at what time`"
                @change="time => putDate(field, { time })"
              >
                <ElOption v-for="time in times" :key="time" :value="time" :label="time" />
              </ElSelect>
            </template>
          </dd>
        </template>
        <dt>For</dt>
        <dd>
          <ElSelect
            :model-value="pattern.kinds"
            size="small"
            multiple
            collapse-tags
            :disabled="!mayEdit"
            aria-label="Kinds that are dated"
            @change="kinds => put({ kinds: [...kinds] })"
          >
            <ElOption
              v-for="kind in [...new Set([...kindsThere, ...pattern.kinds])]"
              :key="kind"
              :value="kind"
              :label="kindWords(kind)[1]"
            />
          </ElSelect>
        </dd>
      </dl>
      <p class="small soft">
        {{
          dated.length === 0
            ? 'No item gets dates by this.'
            : `${counted(dated.length, 'item gets', 'items get')} dates by this.`
        }}
        A unit’s number is the one in its title, where most have one.
      </p>
    </template>
  </section>
</template>

<style scoped>
.date {
  display: grid;
  grid-template-columns: 1.5fr 1fr;
  gap: 4px;
}
.date .el-select:first-child {
  grid-column: 1 / -1;
}
</style>
