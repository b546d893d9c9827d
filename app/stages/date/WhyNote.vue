<script setup lang="ts">
import { slotNames, type SlotName } from '~~/core/dates/rule'
import { sentence } from '~~/core/dates/sentences'
import type { LedgerItem } from './ledger'

/** Why the selected item's dates are what they are, and what can be done with them. */
const props = defineProps<{ item: LedgerItem | null; mayEdit: boolean }>()
defineEmits<{ hold: []; letGo: []; edit: [] }>()
const words: Record<SlotName, string> = { due: 'Due', opens: 'Opens', closes: 'Closes' }
const slots = computed(() =>
  props.item
    ? (['due', 'opens', 'closes'] as const)
        .filter(slot => slotNames.includes(slot))
        .map(slot => ({
          slot,
          at: props.item!.planned[slot],
          settle: props.item!.outcomes[slot] === 'settle',
          sentences: props.item!.planned.slots[slot].reasons.map(sentence),
        }))
        .filter(entry => entry.sentences.length > 0)
    : [],
)
</script>

<template>
  <section v-if="item" class="note" :class="{ brass: item.settle }" aria-live="polite">
    <p class="caps">Why</p>
    <h3>{{ item.node.title }}</h3>
    <div v-for="entry in slots" :key="entry.slot" class="slot">
      <p class="head">
        <b>{{ words[entry.slot] }} {{ entry.at ? momentText(entry.at) : 'no longer' }}</b
        ><span v-if="entry.settle" class="settle"> to settle</span>
      </p>
      <ol>
        <li v-for="line in entry.sentences" :key="line">{{ line }}</li>
      </ol>
    </div>
    <p v-if="!slots.length" class="small soft">It had no dates and gets none.</p>
    <p v-if="mayEdit" class="acts">
      <button class="link" type="button" @click="$emit('edit')">Edit</button
      ><button v-if="!item.held" class="link" type="button" @click="$emit('hold')">Hold here</button
      ><button v-else class="link" type="button" @click="$emit('letGo')">Let go</button>
    </p>
  </section>
  <p v-else class="soft small">
    Choose a row, with the pointer or with <kbd>j</kbd> and <kbd>k</kbd>, to see why its dates are what they
    are.
  </p>
</template>

<style scoped>
.caps {
  margin: 0;
}
.slot {
  margin-top: 8px;
}
.head {
  margin: 0 0 2px;
  font-size: 13px;
}
.acts {
  display: flex;
  gap: 16px;
  margin: 10px 0 0;
}
</style>
