<script setup lang="ts">
import type { DateField } from '~~/core/course/dates'
import { sentence } from '~~/core/dates/reasons'
import type { ItemDates } from '~~/core/course/dates'
import { fieldName } from '~/composables/words'
import { useLedgerSource } from './source'
import SettleChoices from './SettleChoices.vue'
import { asksPeriod, isUnit, type LedgerItem } from './ledger'

/** Why the selected item's dates are what they are, and what can be done with them. */
const props = defineProps<{ item: LedgerItem | null; mayEdit: boolean }>()
defineEmits<{ hold: []; letGo: []; edit: []; settle: [dates: ReadonlyMap<string, ItemDates>] }>()
/** What matters most comes first. */
const told: readonly DateField[] = ['due', 'opens', 'closes']
const base = useLedgerSource()
const years = computed(() => base.terms && yearsOf(base.terms.target))
const dates = computed(() => {
  const { item } = props
  if (!item) return []
  return told.flatMap(field => {
    const { at, outcome, reasons } = item.planned.crossed[field]
    const head = `${fieldName(field)} ${at ? momentText(at, years.value) : 'no longer'}`
    const sentences = reasons.map(sentence)
    const notes = item.findings.filter(({ where }) => where.field === field).map(({ sentence }) => sentence)
    const isTold = sentences.length > 0 || notes.length > 0
    return isTold ? [{ field, head, settle: outcome === 'settle', sentences, notes }] : []
  })
})
</script>

<template>
  <section
    v-if="item"
    class="note tide"
    aria-label="Why"
    :class="{ brass: item.settle || item.findings.length || asksPeriod(item) }"
    aria-live="polite"
  >
    <p class="caps">Why</p>
    <h3>
      <bdi>{{ item.node.title }}</bdi>
    </h3>
    <p v-if="mayEdit" class="acts">
      <button class="link" type="button" @click="$emit('edit')">Edit</button>
      <button v-if="item.held" class="link" type="button" @click="$emit('letGo')">
        {{ base.words.letGo }}
      </button>
      <button v-else-if="base.words.hold" class="link" type="button" @click="$emit('hold')">
        {{ base.words.hold }}
      </button>
    </p>
    <SettleChoices v-if="mayEdit" :item="item" @settle="dates => $emit('settle', dates)" />
    <slot />
    <div v-for="{ field, head, settle, sentences, notes } in dates" :key="field" class="field">
      <p class="head">
        <b>{{ head }}</b><span v-if="settle" class="settle"> to settle</span>
      </p>
      <ol>
        <li v-for="line in sentences" :key="line">{{ line }}</li>
      </ol>
      <p v-for="line in notes" :key="line" class="settle small">{{ line }}</p>
    </div>
    <p v-if="!dates.length" class="small soft">
      {{ isUnit(item) ? 'This unit opened on no date' : 'This item had no dates' }} and gets none.
    </p>
  </section>
  <p v-else class="soft small">
    Choose a row to see why its dates are what they are.
    <template v-if="letterKeys"><kbd>j</kbd> and <kbd>k</kbd> go from row to row.</template>
  </p>
</template>

<style scoped>
.caps {
  margin: 0;
}
.field {
  margin-top: 8px;
}
.head {
  margin: 0 0 2px;
  font-size: 13px;
}
.acts {
  display: flex;
  gap: 16px;
  margin: 2px 0 4px;
}
</style>
