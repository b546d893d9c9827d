<script setup lang="ts">
import type { PlanReply } from '~~/shared/api/plans'
import { usePlan } from './plan/store'
import { stageNotes } from './stage-notes'
import { stageAt, stages } from './stages'

/** Where one is among the stages, with a count under each. The line breaks after Run: that is where writing happens. */
const props = defineProps<{ plan: PlanReply }>()
const store = usePlan()
const route = useRoute()
const at = computed(() => stages.findIndex(stage => stage === stageAt(route.path)))
const isRun = computed(() => props.plan.state === 'run')
const notes = computed(() =>
  stageNotes(props.plan, {
    ...store.counts,
    dates: store.summary?.dates ?? 0,
    toSettle: store.toSettle,
    isSearching: store.isSearchingTraces,
  }),
)
const links = computed(() =>
  stages.map((stage, index) => ({
    ...stage,
    to: `/plans/${props.plan.id}/${stage.key}`,
    note: notes.value[stage.key],
    current: index === at.value,
    past: index < at.value || isRun.value,
  })),
)
</script>

<template>
  <nav class="line" aria-label="Stages">
    <NuxtLink
      v-for="{ key, name, to, note, current, past } in links"
      :key="key"
      :to="to"
      class="stage"
      :class="{ current, past }"
      :aria-current="current ? 'step' : undefined"
    >
      <i aria-hidden="true" />
      <span
        ><b>{{ name }}</b> <em :class="{ settle: note.settle }">{{ note.text }}</em></span
      >
    </NuxtLink>
    <span class="gap" aria-hidden="true" />
    <NuxtLink v-if="isRun" :to="`/courses/${plan.target.course.id}`" class="stage last">
      <i aria-hidden="true" /><span><b>Open</b> <em>the shell</em></span>
    </NuxtLink>
    <span v-else class="stage last off">
      <i aria-hidden="true" /><span><b>Open</b> <em>after the run</em></span>
    </span>
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
  background: var(--stage-line);
}
.stage i {
  position: absolute;
  left: 0;
  top: 3px;
  width: 12px;
  height: 12px;
  border-radius: 50%;
  border: 2px solid var(--stage-line);
  background: var(--paper);
}
.stage.past i {
  background: var(--stage-line);
}
.stage.current i {
  background: var(--tide);
  border-color: var(--tide);
  box-shadow: 0 0 0 4px var(--tide-ring);
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
  border-left: 2px solid var(--stage-line);
  margin-top: 5px;
  height: 8px;
}
@media (max-width: 620px) {
  .stage {
    font-size: 13px;
  }
  em,
  .gap {
    display: none;
  }
}
</style>
