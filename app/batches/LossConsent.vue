<script setup lang="ts">
import { useBorrowedFocus } from '~/composables/focus'

/** Consent to what is lost, in place. In the slot: what that is. */
defineProps<{ label: string; act: string; keep: string; busy: boolean }>()
defineEmits<{ act: []; keep: [] }>()
const panel = ref<HTMLElement>()
useBorrowedFocus(panel)
</script>

<template>
  <div ref="panel" role="group" :aria-label="label" @keydown.esc="$emit('keep')">
    <p><slot /></p>
    <p class="acts">
      <button class="link danger" type="button" :disabled="busy" @click="$emit('act')">{{ act }}</button>
      <button class="link" type="button" @click="$emit('keep')">{{ keep }}</button>
    </p>
  </div>
</template>

<style scoped>
.acts {
  display: flex;
  gap: 18px;
}
.danger {
  color: var(--buoy);
  font-weight: 600;
}
</style>
