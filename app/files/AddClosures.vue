<script setup lang="ts">
import type { ImportWish, UploadReply } from '~~/shared/api/uploads'

/** Adds marked days of a file to a term as closures. The slot says what that does. */
const props = defineProps<{
  file: UploadReply
  chosen: Extract<ImportWish, { as: 'closures' }>['events']
  wantsColumns: boolean
  busy: boolean
}>()
const emit = defineEmits<{ bring: [wish: ImportWish] }>()
const term = defineModel<string>('term', { required: true })
const termName = computed(() => props.file.terms.find(entry => entry.code === term.value)?.name ?? '')
/** What is still to do before days can be added, or the button that adds them. */
const pressText = computed(() => {
  if (props.wantsColumns) return 'Confirm the columns first'
  if (props.chosen.length === 0) return 'Mark the days first'
  return `Add ${counted(props.chosen.length, 'closure')}${termName.value ? ` to ${termName.value}` : ''}`
})
</script>

<template>
  <div class="days">
    <slot />
    <FormField label="Term">
      <TermSelect v-model="term" :terms="file.terms" label="Term" />
    </FormField>
    <button
      class="act"
      type="button"
      :disabled="busy || wantsColumns || !chosen.length"
      @click="emit('bring', { as: 'closures', term, events: chosen })"
    >
      {{ pressText }}
    </button>
  </div>
</template>

<style scoped>
.days {
  display: grid;
  gap: 12px;
}
.act {
  justify-self: start;
}
</style>
