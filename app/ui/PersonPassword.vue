<script setup lang="ts">
import type { PeopleReply } from '~~/shared/api/people'

/** Whether somebody can sign in yet, and the link that lets them set a password. */
const props = defineProps<{ person: PeopleReply['people'][number]; busy: boolean }>()
defineEmits<{ invite: []; takeBack: [] }>()
const state = computed(() => {
  const { hasPassword, invitedAt } = props.person
  if (invitedAt) return `link made ${instantText(invitedAt)}`
  return hasPassword ? 'set' : 'none yet'
})
const act = computed(() =>
  props.person.hasPassword || props.person.invitedAt ? 'Send a new link' : 'Send a link to set one',
)
</script>

<template>
  <span class="soft">{{ state }}</span>
  <span v-if="person.active" class="acts">
    <button
      class="link small"
      type="button"
      :disabled="busy"
      :aria-label="`${act}: ${person.name}`"
      @click="$emit('invite')"
    >
      {{ act }}
    </button>
    <button
      v-if="person.invitedAt"
      class="link small"
      type="button"
      :aria-label="`Take back the link of ${person.name}`"
      @click="$emit('takeBack')"
    >
      Take it back
    </button>
  </span>
</template>

<style scoped>
.acts {
  display: flex;
  gap: 12px;
}
</style>
