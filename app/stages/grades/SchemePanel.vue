<script setup lang="ts">
import { plainRules, type GradeRules } from '~~/core/grading/rules'
import NumberCell from './NumberCell.vue'
import { useStagePlan } from '../plan/store'

/** How the course's result is made: by weights or points, what an ungraded item counts, and the letters. */
defineProps<{ mayEdit: boolean }>()
const { store, plan } = useStagePlan()
const grades = computed(() => store.carrying?.grades ?? null)
const rules = computed((): GradeRules => grades.value?.rules ?? plainRules)
const set = (changed: Partial<GradeRules>): void => {
  const { by, ungraded, decimals, scale } = { ...rules.value, ...changed }
  store.changeIn('grades', { rules: { by, ungraded, decimals, scale: scale.map(step => ({ ...step })) } })
}
const fromText = computed(() => {
  const words = {
    plan: 'You have set these.',
    shell: 'The shell has these already.',
    source: 'They come from the old course.',
    nobody: 'Nobody has set them: these are the usual ones.',
  }
  return words[grades.value?.rulesFrom ?? 'nobody']
})
const sourceRules = computed(
  () => [plan.value.source, ...plan.value.more].find(side => side.grading)?.grading,
)
const takeSource = (): void => {
  if (sourceRules.value) set(sourceRules.value)
}
const keepShell = (): void => {
  if (plan.value.target.grading) set(plan.value.target.grading)
}
const scale = computed(() => rules.value.scale)
const setStep = (at: number, changed: Partial<GradeRules['scale'][number]>): void =>
  set({ scale: sorted(scale.value.map((step, index) => (index === at ? { ...step, ...changed } : step))) })
const sorted = (steps: GradeRules['scale']): GradeRules['scale'] => [...steps].sort((a, b) => b.from - a.from)
const add = (): void => {
  const lowest = scale.value.at(-1)?.from ?? 1_000_000
  set({ scale: sorted([...scale.value, { from: lowest > 0 ? 0 : 500_000, letter: 'New' }]) })
}
const scaleFault = computed(() => {
  if (scale.value.length === 0) return ''
  if (scale.value.at(-1)?.from !== 0) return 'The last letter must begin at 0, or some results have none.'
  const twice = scale.value.some((step, at) => at > 0 && step.from === scale.value[at - 1]?.from)
  return twice ? 'Two letters begin at the same percentage.' : ''
})
</script>

<template>
  <h2>How it is reckoned</h2>
  <p class="small soft">{{ fromText }}</p>
  <p v-if="grades?.rulesSettle" class="small">
    <b class="settle">The old course and the shell differ.</b>
    <button class="link" type="button" :disabled="!mayEdit" @click="takeSource">Take the old course’s</button>
    ·
    <button class="link" type="button" :disabled="!mayEdit" @click="keepShell">Keep the shell’s</button>
  </p>
  <ElRadioGroup
    :model-value="rules.by"
    :disabled="!mayEdit"
    class="lines"
    aria-label="How the result is reckoned"
    @change="value => set({ by: value as GradeRules['by'] })"
  >
    <ElRadio value="weights">By weights: each category counts its weight</ElRadio>
    <ElRadio value="points">By points: all points added up, weights are not looked at</ElRadio>
  </ElRadioGroup>
  <h3>What is not graded</h3>
  <ElRadioGroup
    :model-value="rules.ungraded"
    :disabled="!mayEdit"
    class="lines"
    aria-label="What counts that is not graded"
    @change="value => set({ ungraded: value as GradeRules['ungraded'] })"
  >
    <ElRadio value="skip">is left out until it is</ElRadio>
    <ElRadio value="zero">counts as 0</ElRadio>
  </ElRadioGroup>
  <h3>Letters</h3>
  <p v-if="!scale.length" class="small soft">No letters: results stay percentages.</p>
  <ul class="scale">
    <li v-for="(step, at) in scale" :key="`${step.letter} ${at}`">
      <input
        class="letter"
        :value="step.letter"
        :disabled="!mayEdit"
        maxlength="40"
        :aria-label="`Letter from ${pointsText(step.from)}`"
        @change="
          event => setStep(at, { letter: (event.target as HTMLInputElement).value.trim() || step.letter })
        "
      />
      from
      <NumberCell
        :value="step.from"
        :label="`Where ${step.letter} begins`"
        :disabled="!mayEdit"
        @change="value => setStep(at, { from: value ?? 0 })"
      />
      %
      <button
        class="link small"
        type="button"
        :disabled="!mayEdit"
        :aria-label="`Delete the letter ${step.letter}`"
        @click="set({ scale: scale.filter((_, index) => index !== at) })"
      >
        Delete
      </button>
    </li>
  </ul>
  <p v-if="scaleFault" class="small settle" role="alert">{{ scaleFault }}</p>
  <p>
    <button class="link small" type="button" :disabled="!mayEdit" @click="add">Add a letter</button>
  </p>
</template>

<style scoped>
.lines {
  display: flex;
  flex-direction: column;
  align-items: flex-start;
  margin-bottom: 8px;
}
.lines :deep(.el-radio) {
  height: auto;
  min-height: 24px;
  white-space: normal;
  margin-right: 0;
}
.scale {
  list-style: none;
  margin-bottom: 6px;
}
.scale li {
  display: flex;
  gap: 6px;
  align-items: center;
  padding: 2px 0;
}
.letter {
  font: inherit;
  width: 58px;
  border: 1px solid var(--ink-soft);
  background: var(--paper-raised);
  color: var(--ink);
  padding: 1px 4px;
}
</style>
