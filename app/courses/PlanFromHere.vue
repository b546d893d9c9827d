<script setup lang="ts">
import type { WaysReply } from '~~/shared/api/shells'

/** One looks at what a shell could be filled from: a plan begins only when one asks for it. */
const props = defineProps<{ source: string; shell: string }>()
const { data, refresh } = useLoaded(() => api.get<WaysReply>(`/shells/${props.shell}/ways`))
onMounted(refresh)
const name = computed(() => (data.value ? codeText(data.value.shell.course) : ''))
const begin = useAction(async () => {
  const { id } = await api.post<{ id: string }>('/plans', { sources: [props.source], target: props.shell })
  await navigateTo(`/plans/${id}/pair`)
})
</script>

<template>
  <div v-if="data" class="note">
    <h2>For {{ name }}, {{ data.shell.course.term.name }}</h2>
    <p class="small">You are only looking: no plan has begun.</p>
    <p v-if="data.shell.mayPlan">
      <button class="act" type="button" :disabled="begin.busy.value" @click="begin.run()">
        Plan from it into {{ name }}
      </button>
    </p>
    <ActionProblem :problem="begin.problem.value" />
    <p class="small">
      <NuxtLink :to="`/fill/${shell}`">Other ways to fill {{ name }}</NuxtLink>
    </p>
  </div>
</template>
