<script setup lang="ts">
import type { AnyMethod, MethodName } from '~~/core/dates/rule'
import type { Comparison } from '~~/core/plan/compare'

/** One way in which dates cross, with what it would move and leave to settle. */
const props = defineProps<{
  method: AnyMethod
  isChosen: boolean
  mayEdit: boolean
  comparison: Comparison | null
  /** The method that is laid over the chosen one in the crossing. */
  over: MethodName | null
  /** How many dates land elsewhere by it than by the chosen one; null: not known. */
  elsewhere: number | null
}>()
defineEmits<{ choose: [method: MethodName]; lay: [method: MethodName | null] }>()
const isOver = computed(() => props.over === props.method.name)
const told = computed(() => props.comparison?.told[props.method.name])
/** What it would put elsewhere than it is now; nothing is said of the one in force. */
const movesText = computed(() => {
  const { moves } = told.value ?? { moves: 0 }
  if (!told.value || props.isChosen) return ''
  const same = (props.comparison?.items ?? 0) - moves
  if (moves === 0) return 'the same dates as now'
  return same > 0
    ? `the same as now for ${counted(same, 'item')}, other dates for ${moves}`
    : `other dates than now for ${counted(moves, 'item')}`
})
/** Why the best is the best, as words that follow `suggested`. */
const because: Readonly<Record<Comparison['because'], string>> = {
  'fewest-to-settle': 'the least is left to settle',
  'same-length': 'both terms have as many weeks',
  'other-length': 'the terms differ in length',
  'already-dated': 'most dates are in the new term already',
}
const becauseText = computed(() => (props.comparison ? because[props.comparison.because] : ''))
const suggested = computed(() => props.comparison?.suggested === props.method.name)
</script>

<template>
  <div class="method">
    <ElRadio
      :model-value="isChosen ? method.name : undefined"
      :value="method.name"
      :disabled="!mayEdit"
      @change="$emit('choose', method.name)"
      >{{ method.title }}</ElRadio
    >
    <p class="small soft">
      {{ method.line }}
      <template v-if="movesText"> · {{ movesText }}</template
      ><template v-if="told">
        · <span :class="{ settle: told.settles > 0 }">{{ told.settles }} to settle</span></template
      ><template v-if="suggested"> · suggested: {{ becauseText }}</template>
      <template v-if="!isChosen">
        ·
        <button
          class="link"
          type="button"
          :aria-pressed="isOver"
          :aria-label="
            isOver ? `Take ${method.title} off the crossing` : `Lay ${method.title} over the crossing`
          "
          @click="$emit('lay', isOver ? null : method.name)"
        >
          {{ isOver ? 'take off' : 'lay over' }}
        </button></template
      >
    </p>
    <p v-if="isOver && elsewhere !== null" class="small soft" role="status">
      dotted in the crossing:
      {{ elsewhere === 0 ? 'no item lands' : counted(elsewhere, 'item lands', 'items land') }}
      elsewhere
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
