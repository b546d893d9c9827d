<script setup lang="ts">
import { dueAtClassStart, hoursDiffer, withClassStart } from '~~/core/dates/class-start'
import { ledgerInputs } from '~~/core/plan/ledger'
import { useStagePlan } from '../plan/store'

/** Work that was due when the old section's class began, where a section begins at another hour: it can follow the start of class. */
const { store, plan, document } = useStagePlan()
const sections = computed(() =>
  plan.value.sections.filter(({ chosen, joined }) => chosen || joined).map(({ course }) => course),
)
const all = computed(() =>
  plan.value.state === 'draft' && store.datesInput ? ledgerInputs(store.datesInput) : [],
)
/** Of each source the work, where a section that is written meets otherwise than it did. */
const found = computed(() =>
  all.value.flatMap(input => {
    const now = [input.targetMeetings, ...sections.value.map(({ meetings }) => meetings)]
    return now.some(meetings => hoursDiffer(input.sourceMeetings, meetings))
      ? dueAtClassStart(input, document.value.dates)
      : []
  }),
)
const itemsText = computed(() =>
  found.value.map(({ kind, items }) => counted(items.length, ...kindWords(kind as never))).join(' and '),
)
const were = computed(() => (found.value.flatMap(({ items }) => items).length === 1 ? 'was' : 'were'))
const oldText = computed(() => meetingText(plan.value.source.course.meetings))
const newText = computed(() =>
  [plan.value.target.course, ...sections.value]
    .map(course => `${codeText(course)} meets ${meetingText(course.meetings) || 'at no known time'}`)
    .join(', '),
)
function follow(): void {
  const items = all.value.flatMap(input => input.items)
  store.changeIn('dates', withClassStart(document.value.dates, found.value, items))
}
</script>

<template>
  <p v-if="found.length && plan.may.edit" class="small settle">
    {{ itemsText }} {{ were }} due when class began ({{ oldText }}). {{ newText }}.
    <button class="link" type="button" @click="follow">Make them due when class begins</button>
  </p>
</template>
