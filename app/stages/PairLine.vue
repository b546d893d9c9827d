<script setup lang="ts">
import type { PlanReply } from '~~/shared/api/plans'
import { usePlan } from './plan'

/** The two courses, always in sight: which one stays as it is and which one changes. */
const props = defineProps<{ plan: PlanReply }>()
const inPlace = computed(() => props.plan.mode === 'in-place')
const awaited = computed(() => props.plan.target.course.origin === 'awaited')
const store = usePlan()
const saved = computed(() => {
  const { plan, saving } = store
  if (!plan) return ''
  if (plan.state === 'run')
    return `Run ${instantText(plan.run?.at ?? plan.savedAt, plan.target.course.term.timeZone)} by ${plan.run?.by ?? plan.savedBy}.`
  return saving === 'saved'
    ? `Draft saved ${instantText(plan.savedAt, plan.target.course.term.timeZone)}`
    : saving === 'failed' || saving === 'conflict'
      ? 'Not saved yet'
      : 'Saving …'
})
</script>

<template>
  <div class="pair">
    <section :aria-label="inPlace ? 'Now, a snapshot is kept' : 'From, stays as it is'">
      <p class="caps">
        {{
          inPlace
            ? plan.state === 'run'
              ? 'The snapshot · stays as it was'
              : 'Now · a snapshot of it is kept'
            : 'From · stays as it is'
        }}
      </p>
      <h2>
        {{ plan.source.course.title
        }}<span v-if="plan.more.length" class="more">
          and {{ plan.more.map(side => codeText(side.course)).join(', ') }}</span
        >
      </h2>
      <p class="facts">{{ codeText(plan.source.course) }} · {{ courseFacts(plan.source.course) }}</p>
    </section>
    <svg class="arrow" width="36" height="14" viewBox="0 0 36 14" aria-label="into" role="img">
      <path d="M0 7H34M27 1.5L34 7L27 12.5" fill="none" stroke="var(--tide)" stroke-width="2" />
    </svg>
    <section aria-label="Into, this shell changes">
      <p class="caps into">
        {{
          inPlace
            ? plan.state === 'run'
              ? 'In place · this course was changed'
              : 'In place · this same course changes'
            : awaited
              ? 'Into · the shell is still to come'
              : plan.state === 'run'
                ? 'Into · this shell was changed'
                : 'Into · this shell changes'
        }}
      </p>
      <h2>{{ plan.target.course.title }}</h2>
      <p class="facts">{{ codeText(plan.target.course) }} · {{ courseFacts(plan.target.course) }}</p>
    </section>
    <p class="state soft small">
      <span v-if="plan.state === 'draft'">Nothing is written until you run it.<br /></span>{{ saved
      }}{{ awaited ? '' : ` · ${plan.target.course.students} on the roster` }}
    </p>
  </div>
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
</style>
