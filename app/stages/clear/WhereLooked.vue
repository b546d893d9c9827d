<script setup lang="ts">
import { passedOverReasons, type Looked } from '~~/core/student-data/traces/trace'
import { lookedText } from './trace-words'

/** Exactly what was looked through, and for whom. */
const props = defineProps<{ looked: Looked }>()
const forWhom = computed(() => {
  const { students, alsoHere, phones } = props.looked
  const who = `${counted(students, 'student')} of last term: full names in any order, first and family names alone, nicknames, addresses, student numbers and sign-in names${phones > 0 ? `, and the phone numbers that the roster has of ${phones}` : ''}.`
  if (alsoHere === 0) return who
  return `${who} ${alsoHere === 1 ? 'One of them is' : `${alsoHere} of them are`} on the new roster or teaching, and told apart.`
})
</script>

<template>
  <h2>Where we looked</h2>
  <p class="small">
    {{ lookedText(looked) }}: texts, links, comments, settings and what files say of themselves.
  </p>
  <h2>For whom</h2>
  <p class="small">{{ forWhom }}</p>
  <details v-if="looked.passedOver.length" class="small">
    <summary>Passed over: {{ counted(looked.passedOver.length, 'word') }}</summary>
    <ul>
      <li v-for="{ word, why } in looked.passedOver" :key="word">
        <bdi>{{ word }}</bdi> <span class="soft">{{ passedOverReasons[why] }}</span>
      </li>
    </ul>
  </details>
</template>

<style scoped>
h2 {
  margin-top: 14px;
}
ul {
  list-style: none;
  margin-top: 4px;
}
details {
  margin-top: 6px;
}
</style>
