<script setup lang="ts">
import { useBorrowedFocus } from '~/composables/focus'

/** Consent to undoing every run of a batch. */
defineProps<{ filled: number; busy: boolean }>()
defineEmits<{ undo: []; keep: [] }>()
const panel = ref<HTMLElement>()
useBorrowedFocus(panel)
</script>

<template>
  <div ref="panel" role="group" aria-label="Undo this batch" @keydown.esc="$emit('keep')">
    <p>
      {{
        filled === 1
          ? 'Northtide puts the shell back as it was before this batch.'
          : `Northtide puts ${counted(filled, 'shell')} back as they were before this batch, each in one step.`
      }}
      A shell that somebody has changed since, or where students have handed in, stays as it is. The list
      below then says why.
    </p>
    <p class="acts">
      <button class="link danger" type="button" :disabled="busy" @click="$emit('undo')">
        Undo {{ counted(filled, 'run') }}
      </button>
      <button class="link" type="button" @click="$emit('keep')">
        Keep {{ filled === 1 ? 'it' : 'them' }}
      </button>
    </p>
  </div>
</template>

<style scoped>
.acts {
  display: flex;
  gap: 18px;
  align-items: center;
}
.danger {
  color: var(--buoy);
  font-weight: 600;
}
</style>
