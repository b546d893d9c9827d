<script setup lang="ts">
import { clockOf } from '~~/core/calendar/day'
import type { DateField } from '~~/core/course/dates'
import type { TimePolicy } from '~~/core/dates/rule'
import { timeTyped } from '~~/core/dates/typed/time'
import { fieldName } from '~/composables/words'
import PolicyChoice from './PolicyChoice.vue'

/** At what time a date lands: as it was, with class, at a usual time, or at any that is typed. */
const props = defineProps<{ id: string; field: DateField; value: TimePolicy; mayEdit: boolean }>()
const emit = defineEmits<{ change: [time: TimePolicy] }>()
const usual: Readonly<Record<DateField, readonly string[]>> = {
  opens: ['00:00', '06:00', '08:00', '09:00', '12:00'],
  due: ['09:00', '12:00', '17:00', '20:00', '23:59'],
  closes: ['09:00', '12:00', '17:00', '20:00', '23:59'],
}
const named: readonly { value: string; label: string }[] = [
  { value: 'keep', label: 'as it was' },
  { value: 'class-start', label: 'start of class' },
  { value: 'class-end', label: 'end of class' },
]
const another = 'another'
const options = computed(() => {
  const isNamed = named.some(({ value }) => value === props.value)
  const times = new Set([...usual[props.field], ...(isNamed ? [] : [props.value])])
  return [
    ...named,
    ...[...times].toSorted().map(value => ({ value, label: value })),
    { value: another, label: 'another time …' },
  ]
})
const label = computed(() => `${fieldName(props.field)} at`)

const isTyping = ref(false)
const typed = ref('')
const refused = ref<string | null>(null)
const input = useTemplateRef<HTMLInputElement>('input')
async function choose(value: string): Promise<void> {
  if (value !== another) return emit('change', value)
  isTyping.value = true
  typed.value = ''
  refused.value = null
  await nextTick()
  input.value?.focus()
}
/** Nothing typed leaves the time as it is. */
function take(): void {
  if (!isTyping.value) return
  const minute = timeTyped(typed.value)
  if (typed.value.trim() && minute === null) {
    refused.value = `“${typed.value.trim()}” is no time of day. Type 14:30 or 2:30 pm.`
    return
  }
  isTyping.value = false
  if (minute !== null) emit('change', clockOf(minute))
}
</script>

<template>
  <PolicyChoice
    :id="id"
    :label="label"
    :options="options"
    :value="value"
    :may-edit="mayEdit"
    @change="choose"
  >
    <span v-if="isTyping" class="typed">
      <input
        :id="id"
        ref="input"
        v-model="typed"
        class="text-box"
        type="text"
        autocomplete="off"
        maxlength="20"
        placeholder="14:30"
        :aria-label="`${label}: another time`"
        :aria-invalid="refused !== null"
        :aria-describedby="refused ? `${id}-refused` : undefined"
        @blur="take"
        @keydown.enter.prevent="take"
        @keydown.esc.prevent.stop="isTyping = false"
      />
      <span v-if="refused" :id="`${id}-refused`" class="refused small" role="alert">{{ refused }}</span>
    </span>
  </PolicyChoice>
</template>

<style scoped>
.typed {
  width: 100%;
}
.text-box {
  height: 24px;
  padding: 0 6px;
}
.refused {
  display: block;
  color: var(--buoy);
}
</style>
