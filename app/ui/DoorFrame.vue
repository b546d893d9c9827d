<script setup lang="ts">
/** The page in front of the application: a form, and the tide below it. */
defineProps<{ motto: string }>()
defineEmits<{ submit: [] }>()
</script>

<template>
  <main class="door">
    <form @submit.prevent="$emit('submit')">
      <h1>Northtide</h1>
      <p class="motto">{{ motto }}</p>
      <slot />
    </form>
    <svg class="tide" viewBox="0 0 1280 200" preserveAspectRatio="none" aria-hidden="true">
      <path
        v-for="line in 5"
        :key="line"
        :d="`M0 ${40 + line * 26} C 160 ${10 + line * 26}, 320 ${10 + line * 26}, 480 ${40 + line * 26} S 800 ${70 + line * 26}, 960 ${40 + line * 26} S 1200 ${14 + line * 26}, 1280 ${30 + line * 26}`"
      />
    </svg>
  </main>
</template>

<style scoped>
.door {
  min-height: 100vh;
  display: grid;
  place-items: center;
  position: relative;
  overflow: hidden;
}
form {
  width: min(340px, 90vw);
  display: grid;
  gap: 6px;
  margin-bottom: 120px;
  z-index: 1;
}
h1 {
  font: italic 600 44px/1 var(--serif);
}
.motto {
  font: 17px/1.4 var(--serif);
  color: var(--ink-soft);
  margin-bottom: 18px;
  border-bottom: 1.5px solid var(--ink);
  padding-bottom: 14px;
}
form :deep(label) {
  font-weight: 600;
  font-size: 13px;
  color: var(--ink);
  margin-top: 6px;
}
form :deep(input:not([type='checkbox'])) {
  font: inherit;
  font-size: 15px;
  padding: 8px 10px;
  border: 1px solid var(--ink-soft);
  background: var(--paper-raised);
  color: var(--ink);
  border-radius: 2px;
}
form :deep(.act) {
  justify-self: start;
  margin-top: 14px;
  padding: 8px 22px;
}
form :deep(.wrong) {
  color: var(--buoy);
  margin: 8px 0 0;
}
form :deep(.hint) {
  margin: 16px 0 0;
  font-size: 12.5px;
  color: var(--ink-soft);
}
.tide {
  position: absolute;
  left: 0;
  right: 0;
  bottom: 0;
  width: 100%;
  height: 200px;
}
.tide path {
  fill: none;
  stroke: var(--rule);
  stroke-width: 1.5;
  vector-effect: non-scaling-stroke;
}
</style>
