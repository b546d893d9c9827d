<script setup lang="ts">
import { betterWay } from '~~/core/plan/better'
import { wholeCourse, withRuleAt } from '~~/core/dates/levels'
import { ruleToBegin } from '~~/core/dates/fit'
import type { MethodName } from '~~/core/dates/rule'
import { betterText, methodText } from '../pair/begun'
import { useStagePlan } from '../plan/store'

/** The better way to move dates, where one leaves far fewer to settle: that the plan began with it, or that it could be taken; with one press to the other. */
const emit = defineEmits<{ taken: [] }>()
const { store, plan, document } = useStagePlan()
const isOpen = computed(() => plan.value.state === 'draft' && plan.value.may.edit)
/** What the plan began with, as long as that is in force; else what would be better now. */
const told = computed(() => {
  const begun = plan.value.begunWith?.better
  if (begun && document.value.dates.rule.method === begun.method) {
    // Told as it is now: what is carried may have changed since.
    const { scope, told: ways } = store.comparison ?? { scope: null, told: {} }
    const [taken, usual] = [ways[begun.method], ways[begun.instead.method]]
    if (scope?.level !== 'course' || !taken || !usual) return null
    const instead = { method: begun.instead.method, settles: usual.settles }
    const better = { method: begun.method, settles: taken.settles, instead }
    return { better, isTaken: true, other: instead.method }
  }
  const better = store.datesInput && betterWay(store.datesInput)
  return better ? { better, isTaken: false, other: better.method } : null
})
function take(method: MethodName): void {
  const { dates } = document.value
  const rule = store.terms && ruleToBegin(method, dates.rule, store.terms)
  if (!rule) return
  store.over = null
  store.changeIn('dates', withRuleAt(dates, wholeCourse, rule))
  emit('taken')
}
</script>

<template>
  <p v-if="told && isOpen" :class="['better small', told.isTaken ? 'soft' : 'settle']">
    {{ betterText(told.better, told.isTaken) }}
    <button class="link" type="button" @click="take(told.other)">
      Move dates by {{ methodText(told.other) }}
    </button>
  </p>
</template>

<style scoped>
.better {
  margin: 4px 0 10px;
}
</style>
