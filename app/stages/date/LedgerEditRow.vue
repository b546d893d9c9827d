<script setup lang="ts">
import { isDateTime, type WallTime } from '~~/core/calendar/day'
import { dateFields, type DateField, type ItemDates } from '~~/core/course/dates'
import { fieldName } from '~/composables/words'
import type { LedgerItem } from './ledger'

/** An item whose dates are being set by hand. A text that is no date and time is not accepted. */
const props = defineProps<{ item: LedgerItem }>()
const emit = defineEmits<{ commit: [dates: ItemDates]; cancel: [] }>()
const { opens, due, closes } = props.item.planned
const draft = reactive<Record<DateField, string>>({
  opens: opens ?? '',
  due: due ?? '',
  closes: closes ?? '',
})
const form = ref<HTMLFormElement>()
onMounted(() => form.value?.querySelector<HTMLInputElement>('input[name=due]')?.focus())

const dateOf = (text: string): WallTime | null => (isDateTime(text) ? text : null)
function commit(): void {
  const isWhole = dateFields.every(field => draft[field] === '' || isDateTime(draft[field]))
  if (!isWhole) return emit('cancel')
  emit('commit', { opens: dateOf(draft.opens), due: dateOf(draft.due), closes: dateOf(draft.closes) })
}
</script>

<template>
  <form ref="form" class="ledger-row editing" @submit.prevent="commit" @keydown.esc.stop="emit('cancel')">
    <span class="name">
      <KindMark :kind="item.node.kind" :exam="item.node.exam" />
      <span class="words">{{ item.node.title }}</span>
    </span>
    <input
      v-for="field in dateFields"
      :key="field"
      v-model="draft[field]"
      type="datetime-local"
      :name="field"
      :aria-label="fieldName(field)"
    />
    <span class="acts">
      <button class="link" type="submit">Hold</button>
      <button class="link" type="button" @click="emit('cancel')">Leave</button>
    </span>
  </form>
</template>

<style scoped>
.editing {
  background: var(--paper-raised);
  outline: 1.5px solid var(--tide);
  outline-offset: -1.5px;
  z-index: 2;
  grid-template-columns: minmax(0, 1fr) repeat(3, 190px) 96px;
}
input {
  font: inherit;
  font-size: 13px;
  width: 100%;
  border: 1px solid var(--ink-soft);
  background: var(--paper-raised);
  color: var(--ink);
  padding: 0 4px;
}
.acts {
  display: flex;
  gap: 12px;
}
</style>
