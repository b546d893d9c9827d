<script setup lang="ts">
import { dayOf, type Day, type WallTime } from '~~/core/calendar/day'
import type { dateFields, ItemDates } from '~~/core/course/dates'
import { useItemContexts } from '~/composables/today'
import { fieldName } from '~/composables/words'
import DateField from '~/ui/DateField.vue'
import { useLedgerSource } from './source'
import { standingDates } from './hand'
import { fieldsOf, tellingField, type LedgerItem } from './ledger'

/** An item whose dates are being set by hand. Nothing is held before every field says a date that may stand there. */
const props = defineProps<{ item: LedgerItem }>()
const emit = defineEmits<{ commit: [dates: ItemDates]; cancel: [] }>()
const base = useLedgerSource()
const draft = reactive<ItemDates>(standingDates(props.item, base.itemRules))
const fields = ref<InstanceType<typeof DateField>[]>([])
// The field that tells most of the item: where it has but one date, that one.
const editable = fieldsOf(props.item)
const firstField = tellingField(props.item.node) ?? (editable.includes('due') ? 'due' : 'opens')
onMounted(() => fields.value[editable.indexOf(firstField)]?.focus())

const contexts = useItemContexts(
  () => base.terms?.target ?? null,
  () => base.meetings,
)
/** How many other items are due on each day. */
const due = computed(() => {
  const count = new Map<Day, number>()
  for (const item of base.ledger?.items ?? []) {
    if (item.id === props.item.lineage || item.due === null) continue
    count.set(dayOf(item.due), (count.get(dayOf(item.due)) ?? 0) + 1)
  }
  return count
})
/** The old date stays in sight while one types the new one. */
function was(field: (typeof dateFields)[number]): string {
  const at = props.item.node[field]
  return at ? `was ${momentText(at, base.terms && yearsOf(base.terms.source))}` : 'had none'
}
const dueOn = (day: Day): number => due.value.get(day) ?? 0
const ruleDay = computed(() => {
  const at = props.item.held ? null : props.item.planned[firstField]
  return at && dayOf(at)
})
function commit(): void {
  if (fields.value.every(field => field.settleNow())) emit('commit', { ...draft })
}
</script>

<template>
  <div class="ledger-row editing" role="row" :aria-label="`Dates of ${item.node.title}`">
    <form class="inside" role="none" @submit.prevent="commit">
      <span class="name" role="gridcell">
        <KindMark :kind="item.node.kind" :exam="item.node.exam" />
        <bdi class="words">{{ item.node.title }}</bdi>
      </span>
      <span v-for="field in editable" :key="field" role="gridcell">
        <DateField
          ref="fields"
          :model-value="draft[field]"
          :context="contexts[field]"
          :label="fieldName(field)"
          :name="field"
          placeholder="no date"
          :rule-day="field === firstField ? ruleDay : null"
          :due-on="dueOn"
          @update:model-value="at => (draft[field] = at as WallTime | null)"
          @accepted="commit"
          @left="emit('cancel')"
        />
        <small class="soft">{{ was(field) }}</small>
      </span>
      <span class="acts" role="gridcell">
        <button class="link" type="submit">Save and hold</button>
        <button class="link" type="button" @click="emit('cancel')">Cancel</button>
      </span>
    </form>
  </div>
</template>

<style scoped>
.editing {
  display: block;
  background: var(--paper-raised);
  outline: 1.5px solid var(--tide);
  outline-offset: -1.5px;
  z-index: 2;
}
.inside {
  display: grid;
  grid-template-columns: minmax(0, 1fr) repeat(3, 158px) 148px;
  column-gap: 8px;
  align-items: center;
  min-height: 28px;
}
@media (max-width: 900px) {
  .inside {
    grid-template-columns: repeat(3, minmax(0, 1fr));
    row-gap: 6px;
    padding-block: 6px;
  }
  .name,
  .acts {
    grid-column: 1 / -1;
  }
}
@media (max-width: 620px) {
  .inside {
    grid-template-columns: minmax(0, 1fr);
  }
}
small {
  display: block;
  font-size: 12px;
  padding-left: 8px;
}
.acts {
  display: flex;
  gap: 12px;
}
</style>
