<script setup lang="ts">
import { useStagePlan } from './plan/store'
import { keepPlace } from './last-place'
import { stageAt } from './stages'

/** A stage: the work in the middle, decisions and reasons at the right, the foot below. */
defineProps<{ flush?: boolean }>()
const { plan } = useStagePlan()
const route = useRoute()
watch(
  () => route.fullPath,
  path => keepPlace(plan.value.id, path),
  { immediate: true },
)
/** What the page is about, for those who hear it; a run that is done has a heading of its own. */
const heading = computed(() => {
  const stage = stageAt(route.path)
  if (!stage || (stage.key === 'run' && plan.value.state === 'run')) return ''
  return `${stage.name}: ${codeText(plan.value.target.course)}, ${plan.value.target.course.term.name}`
})
</script>

<template>
  <div class="stage-frame">
    <main class="middle" :class="{ flush }">
      <h1 v-if="heading" class="visually-hidden">{{ heading }}</h1>
      <slot />
    </main>
    <aside class="side"><slot name="side" /></aside>
  </div>
  <slot name="foot" />
</template>

<style scoped>
.stage-frame {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr) var(--side);
}
.middle {
  min-height: 0;
  overflow: auto;
  padding: 14px var(--gutter);
  display: flex;
  flex-direction: column;
}
.middle.flush {
  padding-bottom: 0;
  overflow: hidden;
}
.side {
  border-left: 1px solid var(--rule);
  padding: 14px 18px;
  overflow: auto;
}
.side :deep(h2) {
  margin-bottom: 8px;
}
/* Where there is no room beside, what is decided and why stands below; the page scrolls as one. */
@media (max-width: 900px) {
  .stage-frame {
    grid-template-columns: minmax(0, 1fr);
    flex: none;
  }
  .middle,
  .middle.flush {
    overflow: visible;
    padding-bottom: 14px;
  }
  .side {
    border-left: 0;
    border-top: 1px solid var(--rule);
    overflow: visible;
  }
}
</style>
