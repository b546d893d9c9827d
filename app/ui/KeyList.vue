<script setup lang="ts">
/** The keys that work on this page now. */
defineEmits<{ close: [] }>()
// A model must be a variable of this component, not an import.
const single = letterKeys
const panel = ref<HTMLElement>()
useBorrowedFocus(panel)
const shown: Record<string, string> = { ArrowDown: '↓', ArrowUp: '↑', Escape: 'esc', ' ': 'space' }
const keyText = (key: string): string =>
  key
    .split(/[ +](?=.)/)
    .map(part => shown[part] ?? part)
    .join(' ')
</script>

<template>
  <aside ref="panel" class="keys" aria-label="Keys" @keydown.esc.stop="$emit('close')">
    <h2>Keys</h2>
    <dl>
      <template v-for="binding in allKeys" :key="binding.key"
        ><dt>
          <kbd>{{ keyText(binding.key) }}</kbd>
        </dt>
        <dd>{{ binding.does }}</dd></template
      >
    </dl>
    <ElCheckbox v-model="single">Single letters are keys</ElCheckbox>
    <p class="soft small">When they are off, only arrows, Enter and keys with Ctrl work.</p>
    <button class="link" type="button" @click="$emit('close')">Close</button>
  </aside>
</template>

<style scoped>
.keys {
  position: absolute;
  right: var(--gutter);
  top: 48px;
  z-index: 15;
  width: min(330px, calc(100vw - 2 * var(--gutter)));
  max-height: calc(100vh - 80px);
  overflow: auto;
  background: var(--paper-raised);
  border: 1px solid var(--ink-soft);
  padding: 14px 18px;
}
dl {
  display: grid;
  grid-template-columns: 74px 1fr;
  gap: 6px 10px;
  margin: 10px 0 14px;
}
dd {
  margin: 0;
}
</style>
