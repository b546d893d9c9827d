<script setup lang="ts">
import type { AnyMethod, MethodName } from '~~/core/dates/rule'
import type { Comparison } from '~/workers/messages'

/** One way in which dates cross, with what it would leave to settle. */
const props = defineProps<{
  method: AnyMethod
  chosen: MethodName | null
  mayEdit: boolean
  comparison: Comparison | null
}>()
defineEmits<{ choose: [method: MethodName] }>()
const settles = computed(() => props.comparison?.settles[props.method.name])
/** Why the best is the best, as words that follow `suggested`. */
const because: Readonly<Record<Comparison['because'], string>> = {
  'fewest-to-settle': 'the least is left to settle',
  'same-length': 'both terms have as many weeks',
  'other-length': 'the terms differ in length',
}
const becauseText = computed(() => (props.comparison ? because[props.comparison.because] : ''))
const suggested = computed(() => props.comparison?.suggested === props.method.name)
</script>

<template>
  <div class="method">
    <ElRadio
      :model-value="chosen ?? undefined"
      :value="method.name"
      :disabled="!mayEdit"
      @change="$emit('choose', method.name)"
      >{{ method.title }}</ElRadio
    >
    <p class="small soft">
      {{ method.line }}
      <template v-if="settles !== undefined">
        · <span :class="{ settle: settles > 0 }">{{ settles }} to settle</span></template
      ><template v-if="suggested"> · suggested: {{ becauseText }}</template>
    </p>
    <slot />
  </div>
</template>

<style scoped>
.method {
  margin-bottom: 3px;
}
.method p {
  margin: -1px 0 0 23px;
}
</style>
