<script setup lang="ts">
import { dayOf } from '~~/core/calendar/day'
import { useDayContext } from '~/composables/today'
import DateField from '~/ui/DateField.vue'
import { useStagePlan } from '../plan/store'
import { tellingField, type LedgerItem } from './ledger'

/** When the old course ran, where its term does not fit its dates: its first and last day of classes are enough. */
const props = defineProps<{ items: readonly LedgerItem[]; mayEdit: boolean }>()
const { store, plan, document } = useStagePlan()
const span = computed(() => document.value.dates.sourceSpan)
const days = computed(() =>
  props.items.flatMap(({ node }) => {
    const field = tellingField(node)
    return field && node[field] ? dayOf(node[field]) : []
  }),
)
/** Dates that lie more than two weeks outside the old term. */
const outside = computed(() => {
  const term = store.terms?.source
  if (!term) return 0
  const last = (term.exams ?? term.classes).to
  return days.value.filter(day => day < term.firstWeek - 14 || day > last + 14).length
})
const isOdd = computed(() => outside.value >= 3 && outside.value * 2 > days.value.length)
const isAsked = ref(false)
const draft = reactive<{ from: string | null; to: string | null }>({ from: null, to: null })
watch(
  span,
  now => {
    draft.from = now?.from ?? null
    draft.to = now?.to ?? null
  },
  { immediate: true },
)
const context = useDayContext()
const isTooShort = computed(
  () => draft.from !== null && draft.to !== null && dayOf(draft.to) - dayOf(draft.from) < 6,
)
function put(field: 'from' | 'to', day: string | null): void {
  draft[field] = day
  const { from, to } = draft
  if (from && to && !isTooShort.value) store.changeIn('dates', { sourceSpan: { from, to } })
}
function useTerm(): void {
  isAsked.value = false
  store.changeIn('dates', { sourceSpan: null })
}
const termName = computed(() => plan.value.source.course.term.name)
</script>

<template>
  <section
    v-if="isOdd || isAsked || span"
    class="span"
    :class="{ note: isOdd, brass: isOdd }"
    aria-label="When the old course ran"
  >
    <p v-if="isOdd" class="small">
      {{ counted(outside, 'date lies', 'dates lie') }} outside {{ termName }}. Say when classes of the old
      course began and ended.
    </p>
    <dl class="settings">
      <dt>First day of classes</dt>
      <dd>
        <DateField
          :model-value="draft.from"
          :context="context"
          label="First day of classes of the old course"
          placeholder="2 sep 2025"
          :disabled="!mayEdit"
          @update:model-value="day => put('from', day)"
        />
      </dd>
      <dt>Last day of classes</dt>
      <dd>
        <DateField
          :model-value="draft.to"
          :context="context"
          label="Last day of classes of the old course"
          placeholder="4 dec 2025"
          :disabled="!mayEdit"
          @update:model-value="day => put('to', day)"
        />
      </dd>
    </dl>
    <p v-if="isTooShort" class="small settle" role="alert">
      The last day is at least a week after the first.
    </p>
    <button v-if="mayEdit && (span || isAsked)" class="link small" type="button" @click="useTerm">
      Use the days of {{ termName }}
    </button>
  </section>
  <p v-else-if="mayEdit" class="small">
    <button class="link" type="button" @click="isAsked = true">The old course ran on other days</button>
  </p>
</template>

<style scoped>
.span {
  margin: 8px 0;
}
</style>
