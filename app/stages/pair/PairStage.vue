<script setup lang="ts">
import { codePatterns, readCode, termDisagreement } from '~~/core/pairing/codes'
import type { CodesReply } from '~~/shared/api/codes'
import type { CoursesReply } from '~~/shared/api/courses'
import type { ApiProblem } from '~/composables/api'
import FootBar from '../FootBar.vue'
import StageFrame from '../StageFrame.vue'
import { usePlan } from '../plan'

const store = usePlan()
const plan = computed(() => store.plan!)
const text = ref('')
const problem = shallowRef<ApiProblem | null>(null)
const changing = ref(false)
const { data, problem: findProblem, refresh } = useLoaded(() => api.get<CoursesReply>(`/courses?q=${encodeURIComponent(text.value)}`))
let timer: ReturnType<typeof setTimeout> | undefined
watch(text, () => { clearTimeout(timer); timer = setTimeout(() => void refresh(), 150) })
onMounted(refresh)
const others = computed(() => data.value?.courses.filter(course => course.id !== plan.value.target.course.id && course.items > 0) ?? [])
async function choose(id: string): Promise<void> {
  if (id === plan.value.source.course.id) return
  changing.value = true
  problem.value = null
  try { await store.changeSource(id) }
  catch (error) { problem.value = asProblem(error) }
  finally { changing.value = false }
}
// A code that names another term than its course is in: the wrong course may have been taken. Without the rules the page works too.
const { data: codes, refresh: fetchCodes } = useLoaded(() => api.get<CodesReply>('/codes'))
onMounted(fetchCodes)
const patterns = computed(() => codePatterns(codes.value?.rules.patterns ?? []))
const sides = computed(() => [
  { course: plan.value.source.course, whole: plan.value.source, head: 'Rolls from', fate: 'It is read, never written. It stays whole, with its students and their work.' },
  { course: plan.value.target.course, whole: plan.value.target, head: 'Rolls into', fate: plan.value.target.nodes.length ? `It holds ${counted(plan.value.target.course.items, 'item')} already. They stay where they are; what is carried goes below them.` : 'It is empty. Its roster is the registrar’s and is not touched.' },
])
</script>

<template>
  <StageFrame>
    <div class="two">
      <section v-for="side in sides" :key="side.head">
        <p class="caps">{{ side.head }}</p>
        <h2>{{ codeText(side.course) }} {{ side.course.title }}</h2>
        <table class="ruled facts">
          <tbody>
            <tr><th scope="row">Term</th><td>{{ side.course.term.name }}, classes {{ dayText(side.course.term.classesFrom) }} to {{ dayText(side.course.term.classesTo) }} {{ side.course.term.classesTo.slice(0, 4) }}</td></tr>
            <tr><th scope="row">Meets</th><td>{{ meetingText(side.course.meetings) || 'no meeting times known' }}{{ side.course.meetings[0]?.room ? `, ${side.course.meetings[0].room}` : '' }}</td></tr>
            <tr><th scope="row">Taught by</th><td>{{ side.course.instructors.join(', ') || 'nobody yet' }}</td></tr>
            <tr><th scope="row">Roster</th><td>{{ counted(side.course.students, 'student') }}</td></tr>
            <tr><th scope="row">Holds</th><td>{{ counted(side.whole.nodes.filter(node => node.type === 'unit').length, 'unit') }}, {{ counted(side.course.items, 'item') }}</td></tr>
          </tbody>
        </table>
        <p v-for="wrong in [termDisagreement(readCode(side.course.code, patterns), side.course.term)].filter(each => each !== null)" :key="wrong.code" class="note brass" role="status">Its code {{ side.course.code }} says {{ wrong.code }}; the course is in {{ wrong.term }}. Make sure that this is the one you mean.</p>
        <p class="soft">{{ side.fate }}</p>
      </section>
    </div>
    <template #side>
      <h2>Another source</h2>
      <template v-if="plan.may.edit">
        <ElInput v-model="text" placeholder="code, title or term" clearable aria-label="Find another course to roll from" />
        <ProblemNote v-if="problem ?? findProblem" :problem="(problem ?? findProblem)!" @retry="refresh" />
        <LoadingLines v-else-if="!data" what="Looking for courses …" :rows="3" />
        <ul v-else class="others">
          <li v-for="course in others" :key="course.id">
            <ElRadio :model-value="plan.source.course.id" :value="course.id" :disabled="changing" @change="choose(course.id)">{{ codeText(course) }} · {{ course.term.name }}</ElRadio>
            <p class="soft small">{{ course.title }}, {{ counted(course.items, 'item') }}</p>
          </li>
          <li v-if="!others.length" class="soft">No course of yours with anything in it has these words. Try fewer.</li>
        </ul>
        <p class="soft small">Choosing another takes decisions about single items back; the rules for dates stay.</p>
      </template>
      <p v-else class="soft">{{ plan.state === 'run' ? 'This plan has been run; its pair is kept as it was.' : 'You may see this plan, not change it.' }}</p>
    </template>
    <template #foot><FootBar><NuxtLink class="act on-deep" :to="`/plans/${plan.id}/carry`">On to Carry ⟶</NuxtLink></FootBar></template>
  </StageFrame>
</template>

<style scoped>
.two { display: grid; grid-template-columns: 1fr 1fr; gap: 40px; }
.facts { margin: 10px 0 12px; }
.facts th { border-bottom: 1px solid var(--rule); text-transform: none; letter-spacing: 0; font-size: 13px; width: 86px; padding-top: 8px; }
.facts tr:first-child > * { border-top: 1.5px solid var(--rule-strong); }
.others { list-style: none; margin: 10px 0; }
.others li { padding: 8px 0; border-bottom: 1px solid var(--rule); }
.others p { margin: 0 0 0 23px; }
</style>
