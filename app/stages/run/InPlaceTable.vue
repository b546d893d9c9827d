<script setup lang="ts">
import { graceText } from '~~/core/grading/grace'
import { clearingText } from './effect'
import type { EffectReply, EffectView, PlanReply } from '~~/shared/api/plans'

/** What rolling in place does, row by row. */
const props = defineProps<{ plan: PlanReply; effect: EffectView; clearing: EffectReply['clearing'] }>()
const rows = computed(() => {
  const { source, target } = props.plan
  const { dates } = props.effect
  const students = counted(source.studentData.students, 'student')
  const [was, is] = [source.course.term.name, target.course.term.name]
  return [
    {
      what: 'Snapshot',
      text: `of ${codeText(source.course)} as it stands in ${was}: ${counted(source.course.items, 'item')}, ${students} and all they did`,
    },
    { what: 'Term', text: `${was} becomes ${is}` },
    {
      what: 'Dates',
      text: `${counted(dates.dates, 'date')} written, ${dates.moved} moved, ${props.effect.settle.dates} to settle`,
    },
    ...(props.effect.grace ? [{ what: 'Grace allowances', text: graceText(props.effect.grace) }] : []),
    ...(props.effect.traces.out > 0
      ? [
          {
            what: 'Traces',
            text: `${counted(props.effect.traces.out, 'trace')} of students taken out of texts, titles, files or settings`,
          },
        ]
      : []),
    ...(props.effect.traces.unseen + props.effect.settle.unseen > 0
      ? [
          {
            what: 'Not looked into',
            text: counted(props.effect.traces.unseen + props.effect.settle.unseen, 'file'),
          },
        ]
      : []),
    {
      what: 'Students',
      text: clearingText(props.clearing) || `${students} and what they did stay in the course`,
    },
  ]
})
</script>

<template>
  <table class="ruled place">
    <tbody>
      <tr v-for="{ what, text } in rows" :key="what">
        <td>{{ what }}</td>
        <td>{{ text }}</td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.place {
  max-width: 860px;
  margin-top: 8px;
}
.place td:first-child {
  width: 190px;
  font-weight: 600;
}
</style>
