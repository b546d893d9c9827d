<script setup lang="ts">
import { tracePlaces } from '~~/core/student-data/traces/markup'
import { lookedText } from '~/stages/clear/trace-words'
import type { TraceRecord } from '~~/core/student-data/traces/record'

/** What a run's record says of traces of students: what was looked through, what went, and what stays for which reason. */
const props = defineProps<{ record: TraceRecord }>()
const goneText = computed(() => {
  const { out, left } = props.record
  const gone = out === 0 ? 'None was found that had to go.' : `${counted(out, 'trace')} taken out.`
  const after =
    left === 0
      ? 'The text was searched again after writing: nothing was left.'
      : `After writing, ${counted(left, 'name')} stood in what was written in the plan itself.`
  return [gone, passedText.value, after].filter(Boolean).join(' ')
})
const passedText = computed(() => {
  const { passed } = props.record
  if (passed === 0) return ''
  return `${counted(passed, 'word')} that ${passed === 1 ? 'is' : 'are'} a student’s name too ${passed === 1 ? 'stays' : 'stay'}: somebody or something else was meant.`
})
</script>

<template>
  <h2>Traces of students in the text</h2>
  <p class="soft">
    {{ lookedText(record.looked) }} were searched for {{ counted(record.looked.students, 'student') }}.
    {{ goneText }}
  </p>
  <table v-if="record.unseen.length" class="ruled narrow">
    <thead>
      <tr>
        <th scope="col">Came without a look into it</th>
        <th scope="col" class="number">Size</th>
        <th scope="col">Why</th>
        <th scope="col">By</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="({ title, why, size, by }, at) in record.unseen" :key="at">
        <td>
          <bdi>{{ title }}</bdi>
        </td>
        <td class="number">{{ bytesText(size) }}</td>
        <td>{{ why }}</td>
        <td>{{ by }}</td>
      </tr>
    </tbody>
  </table>
  <table v-if="record.kept.length" class="ruled narrow">
    <thead>
      <tr>
        <th scope="col">Kept in</th>
        <th scope="col">Where</th>
        <th scope="col">Why</th>
        <th scope="col">By</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="({ title, place, because, by }, at) in record.kept" :key="at">
        <td>
          <bdi>{{ title }}</bdi>
        </td>
        <td>{{ tracePlaces[place] }}</td>
        <td>{{ because }}</td>
        <td>{{ by }}</td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
table + table {
  margin-top: 12px;
}
</style>
