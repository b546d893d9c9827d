<script setup lang="ts">
import type { PlanReply } from '~~/shared/api/plans'
import { usePlan } from './plan/store'

/** The two courses, always in sight: which one stays as it is and which one changes. */
const props = defineProps<{ plan: PlanReply }>()
const store = usePlan()
const inPlace = computed(() => props.plan.mode === 'in-place')
const isRun = computed(() => props.plan.state === 'run')
const awaited = computed(() => props.plan.target.course.origin === 'awaited')

const fromText = computed(() => {
  if (!inPlace.value) return 'From · stays as it is'
  return isRun.value ? 'The snapshot · stays as it was' : 'Now · a snapshot of it is kept'
})
const intoText = computed(() => {
  if (inPlace.value)
    return isRun.value ? 'In place · this course was changed' : 'In place · this same course changes'
  if (awaited.value) return 'Into · the shell is still to come'
  return isRun.value ? 'Into · this shell was changed' : 'Into · this shell changes'
})
const further = computed(() => props.plan.more.map(side => codeText(side.course)).join(', '))
const factsText = (course: PlanReply['target']['course']): string =>
  `${codeText(course)} · ${courseFacts(course)}`

const stateText = computed(() => {
  const { run, savedAt, savedBy } = props.plan
  if (isRun.value)
    return `Run ${instantBeside(props.plan.target.course, run?.at ?? savedAt)} by ${run?.by ?? savedBy}`
  if (store.saving === 'saved') return `Draft saved ${instantBeside(props.plan.target.course, savedAt)}`
  return store.saving === 'failed' || store.saving === 'conflict' ? 'Not saved yet' : 'Saving …'
})
const rosterText = computed(() =>
  awaited.value ? '' : ` · ${props.plan.target.course.students} on the roster`,
)
</script>

<template>
  <section class="pair" aria-label="From and into">
    <div role="group" :aria-label="inPlace ? 'Now, a snapshot is kept' : 'From, stays as it is'">
      <p class="caps">{{ fromText }}</p>
      <h2>
        <bdi>{{ plan.source.course.title }}</bdi><span v-if="further" class="more"> and {{ further }}</span>
      </h2>
      <p class="facts">{{ factsText(plan.source.course) }}</p>
    </div>
    <svg class="arrow" width="36" height="14" viewBox="0 0 36 14" aria-label="into" role="img">
      <path d="M0 7H34M27 1.5L34 7L27 12.5" fill="none" stroke="var(--tide)" stroke-width="2" />
    </svg>
    <div role="group" aria-label="Into, this shell changes">
      <p class="caps into">{{ intoText }}</p>
      <h2>
        <bdi>{{ plan.target.course.title }}</bdi>
      </h2>
      <p class="facts">{{ factsText(plan.target.course) }}</p>
    </div>
    <p class="state soft small">
      <span v-if="!isRun">Nothing is written until you run it.<br /></span>{{ stateText }}{{ rosterText }}
    </p>
  </section>
</template>

<style scoped>
.pair {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 36px minmax(0, 1fr) auto;
  gap: 0 22px;
  align-items: center;
  padding: 9px var(--gutter) 4px;
  flex: none;
}
.caps {
  margin: 0;
  line-height: 1.2;
}
.into {
  color: var(--tide-text);
}
.facts {
  margin: 0;
  color: var(--ink-soft);
  font-size: 13px;
}
h2 {
  font-size: 20px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.more {
  font-size: 15px;
  color: var(--ink-soft);
}
.state {
  text-align: right;
  margin: 0;
}
@media (max-width: 900px) {
  .pair {
    grid-template-columns: minmax(0, 1fr);
    row-gap: 6px;
  }
  .arrow {
    display: none;
  }
  .state {
    text-align: left;
  }
  h2 {
    white-space: normal;
  }
}
@media (max-width: 620px) {
  h2 {
    font-size: 17px;
  }
  .facts {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
}
</style>
