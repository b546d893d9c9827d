<script setup lang="ts">
import { useEventListener, useIntervalFn } from '@vueuse/core'
import ClosedSources from '~/stages/ClosedSources.vue'
import PairLine from '~/stages/PairLine.vue'
import StageLine from '~/stages/StageLine.vue'
import SavingNote from '~/stages/SavingNote.vue'
import { usePlan } from '~/stages/plan/store'
import { stages } from '~/stages/stages'

const route = useRoute()
const store = usePlan()
const id = computed(() => String(route.params.id))
watch(id, value => void store.load(value), { immediate: true })
useHead({
  title: () => (store.plan ? `${codeText(store.plan.target.course)} · Northtide` : 'Plan · Northtide'),
})
const session = useSession()
const elsewhereText = computed(() => {
  const by = store.elsewhere?.by
  return by === session.person?.name
    ? 'You changed this plan in another window.'
    : `${by} changed this plan meanwhile.`
})
useKeys([
  ...stages.map(stage => ({
    key: String(stage.number),
    does: `stage ${stage.name}`,
    run: () => void navigateTo(`/plans/${id.value}/${stage.key}`),
  })),
  {
    key: '7',
    does: 'open the shell, once run',
    run: () => {
      if (store.plan?.run) void navigateTo(`/courses/${store.plan.target.course.id}`)
    },
  },
  { key: 'ctrl+z', does: 'undo', run: () => store.undo() },
  { key: 'ctrl+shift+z', does: 'redo', run: () => store.redo() },
])
// A plan changed elsewhere is noticed: when one comes back to the page, and every few seconds while it is in sight.
const looking = useIntervalFn(() => {
  if (!document.hidden) void store.look()
}, 6000)
onMounted(() => looking.resume())
useEventListener('focus', () => void store.look())
onBeforeRouteLeave(() => {
  void store.save()
})
onMounted(() => window.addEventListener('beforeunload', warn))
onUnmounted(() => window.removeEventListener('beforeunload', warn))
function warn(event: BeforeUnloadEvent): void {
  if (store.saving !== 'saved') event.preventDefault()
}
</script>

<template>
  <div v-if="store.plan && store.document" class="plan">
    <PairLine :plan="store.plan" />
    <StageLine :plan="store.plan" />
    <ClosedSources v-if="store.plan.state === 'draft' && store.plan.closed.length" :plan="store.plan" />
    <SavingNote v-if="store.saving === 'conflict' || store.saving === 'failed'" />
    <p v-else-if="store.elsewhere" class="elsewhere" role="status">
      {{ elsewhereText }} This page now shows all changes together. Nothing was lost.
      <button class="link" type="button" @click="store.elsewhere = null">Close this note</button>
    </p>
    <NuxtPage />
  </div>
  <div v-else class="page">
    <ProblemNote v-if="store.problem" :problem="store.problem" @retry="store.load(id)"
      ><NuxtLink v-if="[400, 404].includes(store.problem.status)" to="/">Back to the shells</NuxtLink
      ><button v-else class="act plain" type="button" @click="store.load(id)">Try again</button></ProblemNote
    >
    <LoadingLines v-else what="Fetching the plan and both its courses …" />
  </div>
</template>

<style scoped>
p.elsewhere {
  margin: 0;
  padding: 7px var(--gutter);
  background: var(--tide-wash);
  border-bottom: 1px solid var(--tide);
  flex: none;
}
.plan {
  height: 100%;
  display: flex;
  flex-direction: column;
}
@media (max-width: 900px) {
  .plan {
    height: auto;
    min-height: 100%;
  }
}
</style>
