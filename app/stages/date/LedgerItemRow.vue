<script setup lang="ts">
import type { Term } from '~~/core/calendar/term'
import type { DateField } from '~~/core/course/dates'
import type { Years } from '~~/core/calendar/zone'
import { fieldName } from '~/composables/words'
import { fieldsOf, isUnit, wasText, type LedgerItem } from './ledger'
import { wantsLooking } from './view'

/** An item of the ledger: where it was, where it lands, and how. */
const props = defineProps<{
  item: LedgerItem
  source: Term | null
  /** The years of the new term: a date of another says so. */
  years: Years | null
  /** How it came to be. */
  how: string
  selected: boolean
  /** Whether it is among those that a change of many is for. */
  chosen: boolean
  /** The date that keys move alone, where one was chosen. */
  field: DateField | null
}>()
const emit = defineEmits<{ field: [field: DateField]; choose: [] }>()
const was = computed(() => wasText(props.item.node, props.source))
const tone = computed(() => {
  if (wantsLooking(props.item)) return 'settle'
  return props.item.held ? 'kept' : 'soft'
})
const cells = computed(() =>
  fieldsOf(props.item).map(field => {
    const at = props.item.planned[field]
    const outcome = props.item.outcomes[field]
    const noted = props.item.findings.some(({ where }) => where.field === field)
    const old = props.item.node[field]
    // Where the row is looked at, every date says what it was; the telling one stands in its own column.
    const before =
      old && props.selected ? `was ${momentText(old, props.source && yearsOf(props.source))}` : ''
    return { field, at, outcome, noted, before, none: outcome === 'none' ? 'none' : '–' }
  }),
)
</script>

<template>
  <div
    class="ledger-row"
    role="row"
    :aria-selected="selected || chosen"
    :aria-current="selected || undefined"
    :class="{ selected, among: chosen, head: item.head }"
    :data-item="item.node.title"
  >
    <span class="name" role="gridcell">
      <input
        type="checkbox"
        tabindex="-1"
        :checked="chosen"
        :aria-label="`Choose ${item.node.title}`"
        @click.stop
        @change="emit('choose')"
      />
      <template v-if="item.head">
        <b class="words"
          >{{ item.head.number }} · <bdi :title="item.node.title">{{ item.node.title }}</bdi></b
        >
      </template>
      <template v-else>
        <KindMark :kind="item.node.kind" :exam="item.node.exam" />
        <bdi class="words" :title="item.node.title">{{ item.node.title }}</bdi>
      </template>
    </span>
    <span class="soft" role="gridcell">{{ was }}</span>
    <span
      v-for="{ field: each, at, outcome, noted, before, none } in cells"
      :key="each"
      role="gridcell"
      :class="{ chosen: selected && each === field, noted }"
      :data-field="each"
      :data-name="fieldName(each)"
      :data-at="at ?? ''"
      :data-outcome="outcome"
      @click="emit('field', each)"
    >
      <template v-if="at"
        ><b>{{ dayText(at, years) }}</b> <i>{{ at.slice(11) }}</i></template
      >
      <template v-else>{{ none }}</template>
      <small v-if="before" class="soft">{{ before }}</small>
    </span>
    <span v-if="isUnit(item)" class="soft counts" role="gridcell" aria-colspan="2">
      {{ item.head ? `${item.head.dated} dated · ${item.head.undated} undated` : 'a unit' }}
    </span>
    <span role="gridcell" :class="tone"
      >{{ how }}<span v-if="item.settle" class="visually-hidden">, to settle</span></span
    >
  </div>
</template>

<style scoped>
.head {
  min-height: 38px;
  padding-top: 9px;
}
.head .name b {
  font: 600 15.5px var(--serif);
}
.counts {
  grid-column: span 2;
  font-size: 13px;
}
.selected {
  background: var(--tide-wash);
}
.among {
  background: color-mix(in srgb, var(--tide-wash), transparent 45%);
}
.among.selected {
  background: var(--tide-wash);
}
input {
  margin: 0;
  accent-color: var(--tide-text);
  opacity: 0.55;
}
input:checked,
.ledger-row:hover input {
  opacity: 1;
}
b {
  font-weight: 400;
}
@media (max-width: 620px) {
  [data-field]::before {
    content: attr(data-name) ' ';
    color: var(--ink-soft);
    font-size: 12px;
    display: block;
  }
}
.chosen {
  outline: 1.5px solid var(--tide);
  outline-offset: -1px;
}
.noted {
  box-shadow: inset 0 -2px 0 var(--brass);
}
[data-field='due'] b {
  font-weight: 600;
}
small {
  display: block;
  font-size: 12px;
  white-space: nowrap;
}
i {
  font-style: normal;
  color: var(--ink-soft);
  font-size: 12.5px;
}
[data-outcome='settle'] b,
[data-outcome='moved'] b {
  color: var(--brass-text);
}
.selected .settle,
.selected [data-outcome='settle'] b,
.selected [data-outcome='moved'] b {
  color: var(--brass-on-wash);
}
[data-outcome='held'] b {
  color: var(--tide-text);
  font-weight: 600;
}
[data-outcome='none'],
[data-outcome='empty'] {
  color: var(--ink-soft);
}
</style>
