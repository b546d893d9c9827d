<script setup lang="ts">
import type { TermCalendar } from '~~/core/calendar/schema'
import { checkWindows, type Windows } from '~~/core/pairing/windows'
import type { FieldContext } from '~/ui/date-field/typed-date'

/** When students may enrol in a course and enter it, and what is wrong with that. `of`: of which course, where there are several on the page. */
const props = defineProps<{
  windows: Windows
  term: TermCalendar
  context: FieldContext
  mayEdit: boolean
  of?: string
}>()
defineEmits<{ change: [field: keyof Windows, at: string | null] }>()
const spans: { name: string; from: keyof Windows; to: keyof Windows }[] = [
  { name: 'Students may enrol', from: 'enrolFrom', to: 'enrolTo' },
  { name: 'Students may enter', from: 'openFrom', to: 'openTo' },
]
const findings = computed(() => checkWindows(props.windows, props.term))
const labelOf = (name: string, end: 'from' | 'until'): string =>
  `${name} ${end}${props.of ? `, ${props.of}` : ''}`
</script>

<template>
  <div v-for="span in spans" :key="span.name" class="span" :class="{ narrow: of }">
    <span>{{ span.name }}</span>
    <DateField
      :model-value="windows[span.from]"
      :context="context"
      :disabled="!mayEdit"
      placeholder="from any day"
      :label="labelOf(span.name, 'from')"
      @update:model-value="at => $emit('change', span.from, at)"
    />
    <DateField
      :model-value="windows[span.to]"
      :context="context"
      :disabled="!mayEdit"
      placeholder="without end"
      :label="labelOf(span.name, 'until')"
      @update:model-value="at => $emit('change', span.to, at)"
    />
  </div>
  <p
    v-for="{ grave, sentence } in findings"
    :key="sentence"
    class="small"
    :class="grave === 'must' ? 'must' : 'settle'"
    role="status"
  >
    {{ sentence }}
  </p>
</template>

<style scoped>
.span.narrow {
  grid-template-columns: 1fr 1fr;
  gap: 3px 8px;
}
.span.narrow > span:first-child {
  grid-column: 1 / -1;
}
p {
  margin: 0;
}
.must {
  color: var(--buoy);
  font-weight: 600;
}
.span {
  display: grid;
  grid-template-columns: 118px 1fr 1fr;
  gap: 8px;
  align-items: center;
  font-size: 13px;
}
</style>
