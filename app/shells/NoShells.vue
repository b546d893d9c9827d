<script setup lang="ts">
import { viewNames, views, type View } from './index-filter'

/** What is said where a view lists no shell: why, and the way on. */
const props = defineProps<{ text: string; view: View; counts: Record<View, number> }>()
defineEmits<{ view: [name: View] }>()
const viewText = computed(() =>
  props.view === 'now' ? 'under way or coming' : viewNames[props.view].toLowerCase(),
)
const elsewhere = computed(() => views.filter(name => name !== props.view && props.counts[name] > 0))
const emptyTexts: Record<Exclude<View, 'now'>, [title: string, why: string]> = {
  hidden: ['You have hidden nothing', 'A shell you hide stays here.'],
  past: ['Nothing is past', 'Courses come here by the rule above.'],
  archived: ['Nothing is archived', 'Old courses come here by the rule above; snapshots at once.'],
}
</script>

<template>
  <div v-if="text" class="note empty">
    <h2>Nothing {{ viewText }} has the words “{{ text }}”</h2>
    <p v-for="name in elsewhere" :key="name">
      <button class="link" type="button" @click="$emit('view', name)">
        {{ counted(counts[name], 'course') }} under {{ viewNames[name] }}
      </button>
    </p>
    <p v-if="!elsewhere.length">
      Try fewer words, or <NuxtLink to="/no-shell">find out why a shell is not here</NuxtLink>.
    </p>
  </div>
  <div v-else-if="view === 'now'" class="note empty">
    <h2>No shell is waiting for you</h2>
    <p>The registrar has not listed you on a course of a coming term.</p>
    <p><NuxtLink class="act" to="/no-shell">Find out why, and whom to ask</NuxtLink></p>
    <p>Or plan for the term now, and attach the shell when it comes.</p>
  </div>
  <div v-else class="note empty">
    <h2>{{ emptyTexts[view][0] }}</h2>
    <p>{{ emptyTexts[view][1] }}</p>
  </div>
</template>

<style scoped>
.empty {
  max-width: 560px;
  margin-top: 12px;
}
</style>
