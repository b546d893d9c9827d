<script setup lang="ts">
import type { PlanReply } from '~~/shared/api/plans'
import type { ApiProblem } from '~/composables/api'
import { usePlan } from '../plan'

/** The same sources into further shells: each has a plan of its own with the same decisions and the dates of its own meetings. */
const props = defineProps<{ plan: PlanReply }>()
const store = usePlan()
const chosen = ref<string[]>([])
const busy = ref(false)
const problem = shallowRef<ApiProblem | null>(null)
const told = ref('')
const there = computed(() => new Set(props.plan.set.map(entry => entry.course.id)))
const others = computed(() => props.plan.siblings.filter(course => !there.value.has(course.id) && ['instructor', 'assistant', 'office'].includes(course.role ?? '') && ![props.plan.source, ...props.plan.more].some(side => side.course.id === course.id)))
async function act(work: () => Promise<string>): Promise<void> {
  busy.value = true
  problem.value = null
  try { await store.save(); told.value = await work(); await store.load(props.plan.id) }
  catch (error) { problem.value = asProblem(error) }
  finally { busy.value = false }
}
const add = (): Promise<void> => act(async () => {
  const { made, there } = await api.post<{ made: number, there: number }>(`/plans/${props.plan.id}/also`, { shells: chosen.value })
  chosen.value = []
  return `${counted(made, 'plan')} made${there ? `; ${there} had one of these sources already and keep${there === 1 ? 's' : ''} it` : ''}.`
})
const give = (): Promise<void> => act(async () => `The decisions here were given to ${counted((await api.post<{ made: number }>(`/plans/${props.plan.id}/set`, {})).made, 'plan')}.`)
</script>

<template>
  <section v-if="others.length || plan.set.length" class="also">
    <h2>Also into</h2>
    <ul v-if="plan.set.length"><li v-for="entry in plan.set" :key="entry.id"><NuxtLink :to="`/plans/${entry.id}/date`">{{ codeText(entry.course) }}</NuxtLink> <span class="soft small">{{ meetingText(entry.course.meetings) || 'no meeting times' }} · {{ entry.state === 'run' ? 'run' : 'a draft' }}</span></li></ul>
    <p v-if="plan.set.some(entry => entry.state === 'draft')" class="small"><button class="link" type="button" :disabled="busy" @click="give">Give these decisions to {{ plan.set.length === 1 ? 'it' : 'them' }}</button></p>
    <template v-if="others.length">
      <p class="small soft">Other sections of this class. Each stays a shell of its own, with its own roster; the decisions are shared now, the dates follow its own meetings.</p>
      <ElCheckboxGroup v-model="chosen"><ElCheckbox v-for="course in others" :key="course.id" :value="course.id">{{ codeText(course) }} <span class="soft small">{{ meetingText(course.meetings) || 'no meeting times' }}, {{ counted(course.students, 'student') }}</span></ElCheckbox></ElCheckboxGroup>
      <button class="act plain" type="button" :disabled="busy || !chosen.length" @click="add">{{ chosen.length ? `Plan for ${counted(chosen.length, 'more shell', 'more shells')}` : 'Choose shells' }}</button>
    </template>
    <p v-if="told" class="small kept" role="status">{{ told }}</p>
    <p v-if="problem" class="small settle" role="alert">{{ problem.title }}. {{ problem.detail }}</p>
  </section>
</template>

<style scoped>
.also { margin-top: 22px; display: grid; gap: 6px; justify-items: start; }
.also h2, .also p { margin: 0; }
ul { list-style: none; }
li { padding: 3px 0; }
.also :deep(.el-checkbox) { display: flex; margin: 0; height: auto; padding: 3px 0; }
.also :deep(.el-checkbox__label) { white-space: normal; }
</style>
