<script setup lang="ts">
import { useElementBounding, useWindowSize } from '@vueuse/core'
import type { Day } from '~~/core/calendar/day'
import MonthSheet from './date-field/MonthSheet.vue'
import { useTypedDate, type FieldContext } from './date-field/typed-date'

/**
 * The one field of the application for a date, with a time or without. One types it as one would say it; the field says what it
 * understood, and only then it counts. Enter or leaving the field takes it; Escape leaves all as it was.
 */
const props = defineProps<{
  /** `YYYY-MM-DDTHH:MM`, or `YYYY-MM-DD` where the field has no time; null for no date. */
  modelValue: string | null
  context: FieldContext
  label: string
  name?: string
  placeholder?: string
  disabled?: boolean
  ruleDay?: Day | null
  dueOn?: (day: Day) => number
}>()
const emit = defineEmits<{
  'update:modelValue': [value: string | null]
  /** Enter was pressed, and what stands there counts. */
  accepted: []
  /** Escape was pressed on a field that is as it was. */
  left: []
}>()
const { text, echo, understood, isTouched, day, settle, choose, put, back } = useTypedDate(
  toRef(props, 'modelValue'),
  toRef(props, 'context'),
  props.dueOn,
)
const input = ref<HTMLInputElement>()
const open = ref(false)
const id = useId()

/** Whether the field holds something that counts; it is told, if it is news. */
function accept(): boolean {
  const settled = settle()
  if (settled === undefined) return false
  if (settled !== props.modelValue) emit('update:modelValue', settled)
  return true
}
function enter(): void {
  if (!accept()) return
  open.value = false
  emit('accepted')
}
/** All is as it was, and the sheet out of the way; of a field that was so already whoever asked for it is told. */
function escape(): void {
  open.value = false
  if (!isTouched.value) return emit('left')
  back()
}
function leave(): void {
  open.value = false
  // What one is still asked about, and what is no date, stays in sight and does not count.
  if (understood.value.is !== 'date' || !understood.value.unlikely) accept()
}
function type(event: KeyboardEvent): void {
  if (event.key !== '1' && event.key !== '2') return
  if (understood.value.is === 'which' && choose(event.key === '1' ? 0 : 1)) event.preventDefault()
}
const step = (days: number): void => put((day.value ?? props.context.today) + days)

const { left, bottom, top, height } = useElementBounding(input)
const { width, height: windowHeight } = useWindowSize()
const panelSize = { width: 348, height: 330 }
const place = computed(() => {
  const below = windowHeight.value - bottom.value
  const isBelow = below >= panelSize.height || below >= top.value
  return {
    left: `${Math.max(8, Math.min(left.value, width.value - panelSize.width - 8))}px`,
    ...(isBelow
      ? { top: `${bottom.value + 3}px` }
      : { bottom: `${windowHeight.value - bottom.value + height.value + 3}px` }),
  }
})
const isFaulty = computed(() => isTouched.value && echo.value.tone === 'refused')
/** What was left in the field and does not count: no date, or a date that one is still asked about. */
const unsaved = computed(() => {
  if (!isTouched.value || open.value) return null
  const { tone, lead, rest } = echo.value
  if (tone === 'refused') return lead
  return tone === 'asks' ? `Not saved: ${[lead, ...rest].join(' · ')}` : null
})
const shownDay = computed(
  () => day.value ?? props.ruleDay ?? props.context.term?.classes.from ?? props.context.today,
)

defineExpose({
  /** What stands there is selected, so that what is typed takes its place. */
  focus: () => {
    input.value?.focus()
    input.value?.select()
  },
  /** Makes what is typed count; false, and the field focused, where it cannot. */
  settleNow: (): boolean => {
    const isSettled = accept()
    if (!isSettled) input.value?.focus()
    return isSettled
  },
})
</script>

<template>
  <span class="date-field">
    <input
      ref="input"
      v-model="text"
      type="text"
      autocomplete="off"
      spellcheck="false"
      :name="name"
      :aria-label="label"
      :aria-describedby="open || unsaved ? id : undefined"
      :aria-invalid="isFaulty"
      :placeholder="placeholder"
      :disabled="disabled"
      @focus="open = true"
      @input="open = true"
      @blur="leave"
      @keydown="type"
      @keydown.enter.prevent.stop="enter"
      @keydown.esc.prevent.stop="escape"
      @keydown.up.prevent.stop="step(-1)"
      @keydown.down.prevent.stop="step(1)"
      @keydown.page-up.prevent.stop="step(-7)"
      @keydown.page-down.prevent.stop="step(7)"
    />
    <span v-if="unsaved" :id="id" :class="['echo small', isFaulty ? 'refused' : 'asks']" role="alert">{{
      unsaved
    }}</span>
    <Teleport to="body">
      <div
        v-if="open"
        class="date-panel"
        role="dialog"
        :aria-label="`${label}: choose a day`"
        :style="place"
        @mousedown.prevent
      >
        <p :id="id" class="echo" :class="echo.tone" aria-live="polite">
          <b>{{ echo.lead }}</b>
          <span v-for="part in echo.rest" :key="part"> · {{ part }}</span>
        </p>
        <MonthSheet
          :term="context.term"
          :day="shownDay"
          :chosen="day"
          :rule-day="ruleDay"
          :due-on="dueOn"
          @pick="put"
        />
        <p class="keys small">↑ ↓ a day · PgUp PgDn a week · Enter takes it</p>
      </div>
    </Teleport>
  </span>
</template>

<style scoped>
.date-field {
  display: block;
}
input {
  font: inherit;
  font-size: 13px;
  width: 100%;
  height: 24px;
  border: 1px solid var(--el-border-color, var(--ink-soft));
  border-radius: 2px;
  background: var(--paper-raised);
  color: var(--ink);
  padding: 0 6px;
}
input[aria-invalid='true'] {
  border-color: var(--buoy);
}
input:disabled {
  border-color: var(--rule);
  color: var(--ink-soft);
}
.refused {
  color: var(--buoy);
}
.asks {
  color: var(--brass-text);
}
</style>
<style>
.date-panel {
  position: fixed;
  z-index: 2000;
  width: min(348px, calc(100vw - 8px));
  border: 1.5px solid var(--rule-strong);
  background: var(--paper-raised);
  color: var(--ink);
}
.date-panel .echo {
  margin: 0;
  padding: 8px 14px;
  border-bottom: 1px solid var(--rule);
  font-size: 13.5px;
  color: var(--ink-soft);
}
.date-panel .echo.sure b {
  color: var(--tide-text);
}
.date-panel .echo.asks b {
  color: var(--brass-text);
}
.date-panel .echo.refused b {
  color: var(--buoy);
}
.date-panel .keys {
  margin: 0;
  padding: 0 14px 8px;
  color: var(--ink-soft);
}
</style>
