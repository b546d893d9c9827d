<script setup lang="ts">
import { alikeItems, choiceForAll, choicesOf, type OfferedChoice } from '~~/core/dates/hand/choices'
import type { ItemDates } from '~~/core/course/dates'
import { useLedgerSource } from './source'
import type { LedgerItem } from './ledger'

/** What can be done about a date that wants settling: a button each, which says where the date would be. */
const props = defineProps<{ item: LedgerItem }>()
const emit = defineEmits<{ settle: [dates: ReadonlyMap<string, ItemDates>] }>()
const base = useLedgerSource()
const choices = computed(() => (base.terms ? choicesOf(props.item.planned, base.terms) : []))
const alike = computed(() => alikeItems(base.ledger?.items ?? [], props.item.planned))
/** Whether a choice is for all that are alike. */
const forAll = ref(false)
watch(
  () => props.item.lineage,
  () => {
    forAll.value = false
  },
)
function choose(choice: OfferedChoice): void {
  if (!base.terms) return
  const items = forAll.value ? alike.value : [props.item.planned]
  emit('settle', choiceForAll(items, choice.name, base.terms))
}
</script>

<template>
  <div v-if="choices.length" class="choices" role="group" aria-label="Settle it">
    <button
      v-for="choice in choices"
      :key="choice.name"
      class="act plain"
      type="button"
      @click="choose(choice)"
    >
      {{ choice.outcome }}<span v-if="choice.words" class="soft small">{{ choice.words }}</span>
    </button>
    <ElCheckbox v-if="alike.length > 1" v-model="forAll"
      >the same for all {{ alike.length }} like it</ElCheckbox
    >
  </div>
</template>

<style scoped>
.choices {
  margin: 8px 0 2px;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 5px;
}
.act {
  text-align: left;
  display: flex;
  gap: 8px;
  align-items: baseline;
  padding: 3px 9px;
  white-space: normal;
}
</style>
