<script setup lang="ts">
import { useClipboard } from '@vueuse/core'
import type { InvitationReply } from '~~/shared/api/session'

/** A link that was just made: sent, or to be handed over, which is the only time it is seen. */
defineProps<{ name: string; login: string; sent: InvitationReply }>()
defineEmits<{ close: [] }>()
const { copy, copied, isSupported } = useClipboard()
</script>

<template>
  <div class="note" role="status">
    <template v-if="sent.link">
      <h3>Hand this link to {{ name }}</h3>
      <p>
        It lets {{ name }} set a password for {{ login }}, once, within {{ sent.days }} days. Northtide keeps
        no copy of it: you see it only now.
      </p>
      <p class="link-line">
        <code>{{ sent.link }}</code>
        <button v-if="isSupported" class="link" type="button" @click="copy(sent.link)">
          {{ copied ? 'Copied' : 'Copy the link' }}
        </button>
      </p>
    </template>
    <template v-else>
      <h3>The link is on its way to {{ name }}</h3>
      <p>
        It went to {{ sent.mailedTo }}, and lets {{ name }} set a password for {{ login }}, once, within
        {{ sent.days }} days.
      </p>
    </template>
    <button class="act plain" type="button" @click="$emit('close')">Close this note</button>
  </div>
</template>

<style scoped>
.note {
  max-width: 720px;
  margin-bottom: 14px;
}
.link-line {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: baseline;
}
code {
  overflow-wrap: anywhere;
}
</style>
