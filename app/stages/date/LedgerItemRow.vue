<script setup lang="ts">
import type { Term } from '~~/core/calendar/term'
import { dateFields } from '~~/core/course/dates'
import { howText, wasText, type LedgerItem } from './ledger'

/** An item of the ledger: where it was, where it lands, and how. */
const props = defineProps<{ item: LedgerItem; source: Term | null; selected: boolean }>()
const was = computed(() => wasText(props.item.node, props.source))
const how = computed(() => `${props.item.settle ? 'to settle: ' : ''}${howText(props.item)}`)
const tone = computed(() => {
  if (props.item.held) return 'kept'
  return props.item.settle ? 'settle' : 'soft'
})
const cells = computed(() =>
  dateFields.map(field => {
    const at = props.item.planned[field]
    const outcome = props.item.outcomes[field]
    return { field, at, outcome, none: outcome === 'none' ? 'none' : '–' }
  }),
)
</script>

<template>
  <div
    class="ledger-row"
    role="row"
    :aria-selected="selected"
    :class="{ selected }"
    :data-item="item.node.title"
  >
    <span class="name" role="cell">
      <KindMark :kind="item.node.kind" :exam="item.node.exam" />
      <span class="words" :title="item.node.title">{{ item.node.title }}</span>
    </span>
    <span class="soft" role="cell">{{ was }}</span>
    <span
      v-for="{ field, at, outcome, none } in cells"
      :key="field"
      role="cell"
      :data-field="field"
      :data-at="at ?? ''"
      :data-outcome="outcome"
    >
      <template v-if="at"
        ><b>{{ dayText(at) }}</b> <i>{{ at.slice(11) }}</i></template
      >
      <template v-else>{{ none }}</template>
    </span>
    <span role="cell" :class="tone">{{ how }}</span>
  </div>
</template>

<style scoped>
.selected {
  background: var(--tide-wash);
}
b {
  font-weight: 400;
}
[data-field='due'] b {
  font-weight: 600;
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
[data-outcome='held'] b {
  color: var(--tide-text);
  font-weight: 600;
}
[data-outcome='none'],
[data-outcome='empty'] {
  color: var(--ink-soft);
}
</style>
