<script setup lang="ts">
import type { PlanReply } from '~~/shared/api/plans'
import type { ApiProblem } from '~/composables/api'
import { writtenText } from './effect'

/** Consent to a run, or why it cannot be given. */
const props = defineProps<{
  plan: PlanReply
  problem: ApiProblem | null
  /** There is nothing to add. */
  nothing: boolean
  /** The shell is still to come. */
  awaited: boolean
  busy: boolean
  further: PlanReply['set']
  furtherReady: boolean
}>()
defineEmits<{ again: [] }>()
const consent = defineModel<boolean>('consent', { required: true })
const withFurther = defineModel<boolean>('withFurther', { required: true })

const shell = computed(() => writtenText(props.plan))
/** A single code is not parted at its hyphen. */
const isShort = computed(() => shell.value.length < 20)
const furtherText = computed(() => props.further.map(entry => codeText(entry.course)).join(', '))
const stayText = computed(() => {
  const { plan } = props
  if (plan.mode === 'in-place') return 'A snapshot of it is kept first.'
  const sides = [plan.source, ...plan.more].map(
    side => `${codeText(side.course)} of ${side.course.term.name}`,
  )
  const stay = sides.length > 1 ? 'stay as they are' : 'stays as it is'
  return `${sides.join(' and ')} ${stay}.`
})
const waitText = computed(() => {
  const [come] = props.plan.fits
  return come ? `Attach ${codeText(come)} in` : 'This plan waits for one. See'
})
</script>

<template>
  <h2>Before you run</h2>
  <p class="small">
    Everything is written in one step, or nothing is. Then an audit counts student data in the shell, and a
    record of the run is kept.
  </p>
  <div :class="['note', problem ? 'buoy' : 'tide']">
    <template v-if="problem">
      <h3 role="alert">{{ problem.title }}</h3>
      <p class="small">{{ problem.detail }}</p>
      <button class="act plain" type="button" @click="$emit('again')">Show the new effect</button>
    </template>
    <template v-else-if="nothing">
      <h3>There is nothing to add</h3>
      <p class="small">
        Everything you carry is in the shell already, or you carry nothing. Choose in
        <NuxtLink :to="`/plans/${plan.id}/carry`">Carry</NuxtLink>.
      </p>
    </template>
    <template v-else-if="awaited">
      <h3>{{ plan.fits.length ? 'The shell has come' : 'There is no shell yet' }}</h3>
      <p class="small">{{ waitText }} <NuxtLink :to="`/plans/${plan.id}/pair`">Pair</NuxtLink>.</p>
    </template>
    <template v-else-if="plan.may.run">
      <ElCheckbox v-model="consent" :disabled="busy"
        >I have seen what changes in <span :class="{ whole: isShort }">{{ shell }}</span></ElCheckbox
      >
      <ElCheckbox v-if="furtherText" v-model="withFurther" :disabled="busy || !furtherReady"
        >Then run into {{ furtherText }} as well</ElCheckbox
      >
      <p class="small soft">{{ stayText }}</p>
    </template>
    <template v-else>
      <h3>You may prepare this plan</h3>
      <p class="small">An instructor of the shell runs it, or allows you to.</p>
    </template>
  </div>
</template>

<style scoped>
.note {
  margin-top: 12px;
}
.note :deep(.el-checkbox) {
  height: auto;
  margin-bottom: 8px;
}
.note :deep(.el-checkbox__label) {
  white-space: normal;
}
.note .whole {
  white-space: nowrap;
}
.note p {
  text-wrap: pretty;
}
</style>
