<script setup lang="ts">
import { studentDataKinds } from '~~/core/clear/kinds'
import type { PlanReply } from '~~/shared/api/plans'
import { usePlan } from './plan'
import { stages, type StageKey } from './stages'

/** Where one is among the stages, with a count under each. The line breaks after Run: that is where writing happens. */
const props = defineProps<{ plan: PlanReply }>()
const store = usePlan()
const route = useRoute()
const current = computed(() => route.path.split('/').at(-1) as StageKey)
const at = computed(() => stages.findIndex(stage => stage.key === current.value))
const run = computed(() => props.plan.state === 'run')
const notes = computed((): Record<StageKey, { text: string; settle?: boolean }> => {
  const settle = store.ledger?.summary.settle ?? 0
  const held = [props.plan.source, ...props.plan.more].reduce(
    (all, side) => all + studentDataKinds.reduce((sum, kind) => sum + side.studentData[kind], 0),
    0,
  )
  return {
    pair:
      props.plan.target.course.origin === 'awaited' && props.plan.mode === 'roll'
        ? { text: props.plan.fits.length ? 'attach the shell' : 'no shell yet', settle: true }
        : {
            text:
              props.plan.mode === 'in-place'
                ? 'in place'
                : props.plan.more.length
                  ? counted(props.plan.more.length + 1, 'source')
                  : props.plan.source.course.code === props.plan.target.course.code
                    ? 'matched'
                    : 'different codes',
          },
    carry: {
      text: props.plan.mode === 'in-place' ? 'skipped' : `${store.counts.carried} of ${store.counts.items}`,
    },
    clear: {
      text:
        props.plan.mode === 'in-place'
          ? held
            ? 'stays in it'
            : 'nothing there'
          : held
            ? 'nothing crosses'
            : 'nothing there',
    },
    date: settle
      ? { text: `${settle} to settle`, settle: true }
      : { text: `${store.ledger?.summary.dates ?? 0} dates` },
    run: { text: run.value ? 'done' : 'writes' },
  }
})
</script>

<template>
  <nav class="line" aria-label="Stages">
    <NuxtLink
      v-for="(stage, index) in stages"
      :key="stage.key"
      :to="`/plans/${plan.id}/${stage.key}`"
      class="stage"
      :class="{ current: stage.key === current, past: index < at || run }"
      :aria-current="stage.key === current ? 'step' : undefined"
    >
      <i aria-hidden="true" />
      <span
        ><b>{{ stage.name }}</b>
        <em :class="{ settle: notes[stage.key].settle }">{{ notes[stage.key].text }}</em></span
      >
    </NuxtLink>
    <span class="gap" aria-hidden="true" />
    <NuxtLink v-if="run" :to="`/courses/${plan.target.course.id}`" class="stage last"
      ><i aria-hidden="true" /><span><b>Open</b> <em>the shell</em></span></NuxtLink
    >
    <span v-else class="stage last off"
      ><i aria-hidden="true" /><span><b>Open</b> <em>after the run</em></span></span
    >
  </nav>
</template>

<style scoped>
.line {
  display: flex;
  padding: 4px var(--gutter) 9px;
  border-bottom: 1px solid var(--rule);
  flex: none;
}
.stage {
  flex: 1;
  position: relative;
  padding-top: 18px;
  text-decoration: none;
  color: var(--ink);
  font-size: 14px;
}
.stage::before {
  content: '';
  position: absolute;
  left: 0;
  right: 0;
  top: 8px;
  height: 2px;
  background: var(--deep);
}
.stage i {
  position: absolute;
  left: 0;
  top: 3px;
  width: 12px;
  height: 12px;
  border-radius: 50%;
  border: 2px solid var(--deep);
  background: var(--paper);
}
.stage.past i {
  background: var(--deep);
}
.stage.current i {
  background: var(--tide);
  border-color: var(--tide);
  box-shadow: 0 0 0 4px #bfe0dd;
}
.stage.current b {
  color: var(--tide-text);
}
.stage:hover b {
  text-decoration: underline;
  text-underline-offset: 3px;
}
.stage.off {
  color: var(--ink-soft);
}
.stage.off:hover b {
  text-decoration: none;
}
b {
  font-weight: 600;
  margin-right: 4px;
}
em {
  font-style: normal;
  color: var(--ink-soft);
}
em.settle {
  color: var(--brass-text);
}
.gap {
  width: 26px;
  flex: none;
  border-left: 2px solid var(--deep);
  margin-top: 5px;
  height: 8px;
}
</style>
