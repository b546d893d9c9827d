<script setup lang="ts">
import { itemKinds } from '~~/core/course/model'
import { weightOf } from '~~/core/dates/crowding'
import NumberBox from '~/ui/NumberBox.vue'
import type { useCrowding } from './crowding'
import type { LedgerItem } from './ledger'

/** How much is too much, and what each kind weighs. The plan remembers it. */
const props = defineProps<{
  items: readonly LedgerItem[]
  ease: ReturnType<typeof useCrowding>
  mayEdit: boolean
}>()
const crowding = computed(() => props.ease.crowding.value)
const kinds = computed(() =>
  itemKinds.filter(kind => props.items.some(item => item.node.kind === kind && item.planned.due !== null)),
)
const weigh = (kind: string, weight: number | undefined): void =>
  props.ease.put({ weights: { ...crowding.value.weights, [kind]: weight ?? 1 } })
const numbers = [
  { key: 'perDay', label: 'Items due on a day', min: 1, max: 200 },
  { key: 'perWeek', label: 'Weight due in a week', min: 1, max: 1000 },
] as const
/** What a limit begins with that there was none of. */
const begins = { perDay: 3, perWeek: 8 }
</script>

<template>
  <section aria-label="How much is too much">
    <h2>How much is too much</h2>
    <dl class="settings">
      <template v-for="{ key, label, min, max } in numbers" :key="key">
        <dt>
          <ElCheckbox
            :model-value="crowding[key] !== null"
            :disabled="!mayEdit"
            @change="isOn => ease.put({ [key]: isOn ? begins[key] : null })"
            >{{ label }}</ElCheckbox
          >
        </dt>
        <dd>
          <span v-if="crowding[key] === null" class="soft small">no limit</span>
          <NumberBox
            v-else
            :value="crowding[key] ?? begins[key]"
            :min="min"
            :max="max"
            :disabled="!mayEdit"
            :label="label"
            @change="value => ease.put({ [key]: value })"
          />
        </dd>
      </template>
      <dt>Days between exams</dt>
      <dd>
        <NumberBox
          :value="crowding.minGap"
          :min="0"
          :max="60"
          :disabled="!mayEdit"
          label="Days between exams"
          @change="minGap => ease.put({ minGap })"
        />
      </dd>
      <template v-if="ease.meetings.value.length">
        <dt>Work may be due on</dt>
        <dd>
          <ElSelect
            :model-value="crowding.days"
            size="small"
            :disabled="!mayEdit"
            aria-label="Days on which work may be due"
            @change="days => ease.put({ days })"
          >
            <ElOption value="usable" label="usable days" />
            <ElOption value="meetings" label="class days" />
          </ElSelect>
        </dd>
      </template>
    </dl>
    <h3>What each kind weighs</h3>
    <p class="small soft">What weighs 0 is not counted and never moved. What weighs more is moved less.</p>
    <dl class="settings">
      <template v-for="kind in kinds" :key="kind">
        <dt>{{ kindWords(kind)[1] }}</dt>
        <dd>
          <ElInputNumber
            :model-value="weightOf(crowding, kind)"
            size="small"
            :min="0"
            :max="100"
            :step="0.5"
            :disabled="!mayEdit"
            :aria-label="`What each ${kindWords(kind)[0]} weighs`"
            @change="value => weigh(kind, value)"
          />
        </dd>
      </template>
    </dl>
    <p class="small soft">
      What is held by hand stays where it is, and so does what is due outside classes. The order stays.
    </p>
  </section>
</template>

<style scoped>
.settings {
  grid-template-columns: minmax(0, 1fr) auto;
}
.settings :deep(.el-checkbox) {
  height: auto;
}
.settings :deep(.el-checkbox__label) {
  white-space: normal;
}
.el-input-number,
.el-select {
  width: 104px;
}
h3 {
  margin-top: 14px;
}
</style>
