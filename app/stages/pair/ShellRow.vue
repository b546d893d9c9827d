<script setup lang="ts">
import type { CoursesReply, ShellLine } from '~~/shared/api/courses'

/** A shell in the list: what it is, what could fill it and why, where its plan and last run stand, the next thing to do. */
const props = defineProps<{ shell: ShellLine, current: boolean, starting: boolean }>()
const emit = defineEmits<{ start: [source: string], point: [] }>()
const choosing = ref(false)
const text = ref('')
const { data, problem, refresh } = useLoaded(() => api.get<CoursesReply>(`/courses?q=${encodeURIComponent(text.value)}`))
const sources = computed(() => data.value?.courses.filter(course => course.id !== props.shell.course.id && course.items > 0) ?? [])
let timer: ReturnType<typeof setTimeout> | undefined
watch(text, () => { clearTimeout(timer); timer = setTimeout(() => void refresh(), 150) })
function choose(): void {
  choosing.value = !choosing.value
  if (choosing.value && !data.value) void refresh()
}
const sureness = { sure: 'sure', likely: 'likely', possible: 'possible' }
</script>

<template>
  <article class="shell" :class="{ current }" @click="emit('point')">
    <div>
      <h3><NuxtLink :to="`/courses/${shell.course.id}`">{{ codeText(shell.course) }} {{ shell.course.title }}</NuxtLink></h3>
      <p class="soft">{{ meetingText(shell.course.meetings) || 'no meeting times known' }} · {{ counted(shell.course.students, 'student') }} on the roster · {{ shell.course.items ? `holds ${counted(shell.course.items, 'item')}` : 'empty' }}{{ shell.course.role === 'assistant' ? ' · you assist' : shell.course.role && shell.course.role !== 'instructor' ? ` · taught by ${shell.course.instructors.join(', ')}` : '' }}</p>
    </div>
    <div>
      <template v-if="shell.plan"><p><b>A plan is under way</b> from {{ codeText(shell.plan.source) }}, {{ shell.plan.source.term.name }}</p><p class="soft small">saved {{ instantText(shell.plan.updatedAt, shell.course.term.timeZone) }}</p></template>
      <template v-else-if="shell.lastRun"><p><b class="kept">Rolled</b> {{ instantText(shell.lastRun.at, shell.course.term.timeZone) }} by {{ shell.lastRun.by }}</p><p class="soft small">{{ counted(shell.lastRun.items, 'item') }} added · <NuxtLink :to="`/runs/${shell.lastRun.id}`">record</NuxtLink></p></template>
      <template v-else-if="shell.suggestion"><p>From <b>{{ codeText(shell.suggestion.course) }}, {{ shell.suggestion.course.term.name }}</b></p><p class="soft small"><span :title="`Of a hundred suggestions like this, ${Math.round(100 * shell.suggestion.chance)} are right.`">{{ sureness[shell.suggestion.sureness] }}</span>: {{ shell.suggestion.reasons.join(', ') }} · {{ counted(shell.suggestion.course.items, 'item') }}</p></template>
      <p v-else class="soft">No earlier course has this code or title.</p>
    </div>
    <div class="acts">
      <NuxtLink v-if="shell.plan" class="act" :to="`/plans/${shell.plan.id}/pair`">Go on with the plan</NuxtLink>
      <NuxtLink v-else-if="shell.lastRun" class="act plain" :to="`/courses/${shell.course.id}`">Open the shell</NuxtLink>
      <button v-else-if="shell.suggestion && shell.mayPlan" class="act" type="button" :disabled="starting" @click="emit('start', shell.suggestion.course.id)">{{ starting ? 'Starting …' : 'Plan from this' }}</button>
      <button v-if="shell.mayPlan" class="link small" type="button" :aria-expanded="choosing" @click.stop="choose">{{ shell.plan || shell.lastRun ? 'plan from a course' : 'another course' }} …</button>
      <span v-else class="soft small">you may look, not plan</span>
    </div>
    <div v-if="choosing" class="choose">
      <ElInput v-model="text" placeholder="code, title or term of the course to roll from" clearable :aria-label="`Find a course to roll into ${codeText(shell.course)}`" />
      <ProblemNote v-if="problem" :problem="problem" @retry="refresh" />
      <ul><li v-for="course in sources" :key="course.id"><button class="link" type="button" :disabled="starting" @click="emit('start', course.id)">{{ codeText(course) }} {{ course.title }}, {{ course.term.name }}</button> <span class="soft small">{{ counted(course.items, 'item') }} · {{ course.instructors.join(', ') }}</span></li></ul>
      <p v-if="data && !sources.length" class="soft small">No course of yours with anything in it has these words.</p>
    </div>
  </article>
</template>

<style scoped>
.shell { display: grid; grid-template-columns: minmax(0, 1.25fr) minmax(0, 1fr) 170px; gap: 4px 26px; padding: 12px 10px; border-bottom: 1px solid var(--rule); border-left: 3px solid transparent; align-items: start; }
.shell.current { border-left-color: var(--tide); background: color-mix(in srgb, var(--tide-wash) 45%, transparent); }
h3 a { color: var(--ink); text-decoration: none; }
h3 a:hover { text-decoration: underline; }
p { margin: 2px 0 0; }
b { font-weight: 600; }
.acts { display: grid; gap: 6px; justify-items: end; }
.choose { grid-column: 1 / -1; max-width: 640px; padding: 8px 0 4px; }
.choose ul { list-style: none; }
.choose li { padding: 5px 0; border-bottom: 1px solid var(--rule); }
</style>
