<script setup lang="ts">
import { dateFields, datesOf, type ItemDates } from '~~/core/course/dates'
import { orderedDates } from '~~/core/dates/hand/ordered'
import { fieldName } from '~/composables/words'
import type { LedgerItem } from '~/stages/date/ledger'
import { useLedgerSource } from '~/stages/date/source'

/** The row that is looked at in a shell: what the run wrote of the dates that are others now, and what is noted of them. */
const props = defineProps<{ item: LedgerItem }>()
defineEmits<{ letGo: []; edit: []; order: [dates: ItemDates] }>()
const base = useLedgerSource()
const years = computed(() => base.terms && yearsOf(base.terms.target))
const inDisorder = computed(() => props.item.findings.some(({ check }) => check === 'dates.order'))
const changed = computed(() =>
  dateFields.flatMap(field => {
    const [was, is] = [props.item.node[field], props.item.planned[field]]
    if (was === is) return []
    const at = (moment: typeof was): string => (moment ? momentText(moment, years.value) : 'none')
    return [`${fieldName(field)}: ${at(is)}. The run wrote ${was ? at(was) : 'no date'}.`]
  }),
)
</script>

<template>
  <section
    class="note tide"
    :class="{ brass: item.findings.length }"
    aria-label="Looked at"
    aria-live="polite"
  >
    <h3>
      <bdi>{{ item.node.title }}</bdi>
    </h3>
    <p class="acts">
      <button class="link" type="button" @click="$emit('edit')">Edit its dates</button>
      <button v-if="item.held" class="link" type="button" @click="$emit('letGo')">
        {{ base.words.letGo }}
      </button>
    </p>
    <slot />
    <p v-for="line in changed" :key="line" class="small">{{ line }}</p>
    <p v-if="inDisorder">
      <button
        class="act plain"
        type="button"
        @click="$emit('order', orderedDates(datesOf(item.node), datesOf(item.planned)))"
      >
        Put the dates in order
      </button>
    </p>
    <p v-for="{ sentence } in item.findings" :key="sentence" class="settle small">{{ sentence }}</p>
  </section>
</template>

<style scoped>
.acts {
  display: flex;
  gap: 16px;
  margin: 2px 0 4px;
}
p {
  margin: 4px 0 0;
}
</style>
