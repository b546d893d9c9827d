<script setup lang="ts">
import type { WaysReply } from '~~/shared/api/shells'
import TemplateList from '~/shells/TemplateList.vue'

const route = useRoute()
const id = computed(() => String(route.params.id))
const { data, problem, refresh } = useLoaded(() => api.get<WaysReply>(`/shells/${id.value}/ways`))
watch(id, () => void refresh(), { immediate: true })
useHead({
  title: () =>
    data.value ? `Fill ${codeText(data.value.shell.course)} · Northtide` : 'Fill a shell · Northtide',
})
const ways = [
  { key: 'suggested', name: 'What is suggested' },
  { key: 'course', name: 'A course of yours' },
  { key: 'template', name: 'A template' },
  { key: 'code', name: 'A share code' },
  { key: 'department', name: 'Shared with you' },
  { key: 'file', name: 'A package file' },
] as const
type Way = (typeof ways)[number]['key']
const way = computed<Way>(
  () =>
    ways.find(entry => entry.key === route.query.way)?.key ??
    (data.value?.suggestions.length ? 'suggested' : 'course'),
)
const shell = computed(() => data.value?.shell.course)
const acting = useAction((work: () => Promise<unknown>) => work())
const { busy, problem: actProblem } = acting
async function plan(source: string, stage: 'pair' | 'run'): Promise<void> {
  const { id: planId } = await api.post<{ id: string }>('/plans', {
    sources: [source],
    target: id.value,
    decisions: stage === 'run' ? 'as-before' : 'recommended',
  })
  await navigateTo(`/plans/${planId}/${stage}`)
}
const start = (source: string, stage: 'pair' | 'run' = 'pair'): Promise<boolean> =>
  acting.run(() => plan(source, stage))
const code = ref('')
const enter = (): Promise<boolean> =>
  acting.run(async () => {
    const { courseId } = await api.post<{ courseId: string }>('/shares', { code: code.value })
    await plan(courseId, 'pair')
  })
const registrars = computed(() => shell.value?.origin === 'registrar')
const students = computed(() => counted(shell.value?.students ?? 0, 'student'))
const shellText = computed(() =>
  shell.value
    ? [
        courseFacts(shell.value),
        registrars.value
          ? `${shell.value.students ? students.value : 'nobody'} on the registrar’s roster`
          : `made by hand, ${shell.value.students ? students.value : 'nobody'} on its roster`,
        shell.value.items ? `holds ${counted(shell.value.items, 'item')}` : 'empty',
      ].join(' · ')
    : '',
)
const onRoster = computed(() => {
  const n = shell.value?.students ?? 0
  if (n === 0) return 'Nobody is on its roster yet; the registrar puts students there.'
  return `${students.value} ${n === 1 ? 'is' : 'are'} on its roster and ${n === 1 ? 'stays' : 'stay'} there.`
})
const rosterText = computed(() =>
  registrars.value
    ? `This is the registrar’s shell. ${onRoster.value} A fresh course beside it would have none.`
    : 'It was made by hand. If the registrar makes a shell for this class, roll into that one: its students will be there.',
)
</script>

<template>
  <main class="page">
    <ProblemNote v-if="problem" :problem="problem" @retry="refresh"
      ><NuxtLink v-if="problem.status === 404" to="/">Back to the shells</NuxtLink></ProblemNote
    >
    <LoadingLines v-else-if="!data" what="Looking for what could fill it …" />
    <template v-else-if="shell">
      <header>
        <p class="caps into">Into · this shell changes, once you run</p>
        <h1>
          {{ codeOf(shell) }} <bdi>{{ shell.title }}</bdi>
        </h1>
        <p class="soft">
          {{ shellText }}
        </p>
      </header>
      <div v-if="data.shell.plan" class="note brass under">
        <p>
          A plan for this shell is under way, from {{ codeText(data.shell.plan.source) }}
          {{ data.shell.plan.source.title }}, {{ data.shell.plan.source.term.name }}. It was saved
          {{ instantBeside(shell, data.shell.plan.updatedAt) }} by {{ data.shell.plan.by }}.
          <NuxtLink :to="`/plans/${data.shell.plan.id}`">Go on with the plan</NuxtLink>, or choose another
          source to begin a second plan.
        </p>
      </div>
      <p v-if="!data.shell.mayPlan" class="note">
        You can see this shell but not plan for it. Its instructors, its assistants and the academic office
        can.
      </p>
      <div v-else class="beside">
        <div>
          <p class="caps">From · stays as it is, whichever you choose</p>
          <nav aria-label="Ways in" class="choice-line">
            <NuxtLink
              v-for="entry in ways"
              :key="entry.key"
              :to="{ query: { way: entry.key } }"
              replace
              :class="{ on: way === entry.key }"
              :aria-current="way === entry.key ? 'true' : undefined"
              >{{ entry.name }}</NuxtLink
            >
          </nav>
          <ActionProblem :problem="actProblem" />
          <section v-if="way === 'suggested'">
            <ul v-if="data.suggestions.length" class="rows">
              <li v-for="(entry, at) in data.suggestions" :key="entry.course.id">
                <span
                  ><b
                    >{{ codeOf(entry.course) }} <bdi>{{ entry.course.title }}</bdi></b
                  >, {{ entry.course.term.name }}<br /><span class="soft small"
                    >{{ entry.sureness }} ({{ chanceText(entry.chance) }}): {{ entry.reasons.join(', ') }} ·
                    {{ counted(entry.course.items, 'item') }}</span
                  ></span
                >
                <span class="acts"
                  ><button
                    class="act"
                    :class="{ plain: at > 0 }"
                    type="button"
                    :disabled="busy"
                    @click="start(entry.course.id, 'run')"
                  >
                    Go straight to the summary</button
                  ><button class="link small" type="button" :disabled="busy" @click="start(entry.course.id)">
                    Go step by step
                  </button></span
                >
              </li>
            </ul>
            <p v-else class="soft">
              No earlier course has this code or title, and its instructors taught none like it. Choose
              another way.
            </p>
          </section>
          <section v-else-if="way === 'course'">
            <SourceChoice label="Find a course to roll from" :not="[id]"
              ><template #default="{ course }"
                ><span class="acts"
                  ><button class="act plain" type="button" :disabled="busy" @click="start(course.id)">
                    Plan from this course</button
                  ><NuxtLink class="small" :to="`/courses/${course.id}?for=${id}`"
                    >Look inside</NuxtLink
                  ></span
                ></template
              ></SourceChoice
            >
          </section>
          <section v-else-if="way === 'template'">
            <TemplateList
              ><template #default="{ template }"
                ><NuxtLink class="small" :to="`/courses/${template.course.id}?for=${id}`"
                  >Look inside</NuxtLink
                ><button class="act plain" type="button" :disabled="busy" @click="start(template.course.id)">
                  Plan from this template
                </button></template
              ></TemplateList
            >
          </section>
          <form v-else-if="way === 'code'" class="code" @submit.prevent="enter">
            <p>
              A colleague makes the code on the page of their course. The code opens the course’s content,
              without its students.
            </p>
            <label for="share-code">Share code</label>
            <div>
              <ElInput id="share-code" v-model="code" placeholder="as K7QM-4TXB" maxlength="40" /><button
                class="act"
                type="submit"
                :disabled="busy || !code.trim()"
              >
                Open it and plan
              </button>
            </div>
          </form>
          <section v-else-if="way === 'department'">
            <SourceChoice label="Find a course that is shared with you" shared
              ><template #default="{ course }"
                ><span class="acts"
                  ><button class="act plain" type="button" :disabled="busy" @click="start(course.id)">
                    Plan from this course</button
                  ><NuxtLink class="small" :to="`/courses/${course.id}?for=${id}`"
                    >Look inside</NuxtLink
                  ></span
                ></template
              ></SourceChoice
            >
          </section>
          <section v-else class="code">
            <p>
              Northtide reads the package (Common Cartridge 1.0 to 1.3), shows you what it holds and keeps it
              as a course. You then come back here, to a plan from it into this shell.
            </p>
            <p>
              <NuxtLink class="act" :to="{ path: '/files', query: { for: id } }">Bring the file in</NuxtLink>
            </p>
          </section>
        </div>
        <aside>
          <h2>Before you choose</h2>
          <div class="note" :class="{ brass: !registrars }">
            <h3>{{ registrars ? 'The place to roll into' : 'Nobody is on its roster' }}</h3>
            <p class="small">
              {{ rosterText }}
            </p>
          </div>
          <div>
            <h3>What it costs</h3>
            <p v-if="data.storage.suggestion && data.suggestions[0]" class="small">
              From {{ codeText(data.suggestions[0].course) }}: no text or file is stored a second time. Its
              {{ bytesText(data.storage.suggestion.bodies) }} are shared by both courses;
              {{ numberText(data.storage.suggestion.rows) }} short rows are added, about
              {{ bytesText(data.storage.suggestion.rowBytes) }}.
            </p>
            <p v-else class="small">
              Rolling from a course stores no text or file a second time: both courses share them.
            </p>
            <p class="small">
              A package file also takes its own size, since Northtide keeps it.{{
                data.storage.files ? ` Your waiting files take ${bytesText(data.storage.files)} now.` : ''
              }}
            </p>
          </div>
          <div v-if="data.sections.length">
            <h3>Other sections</h3>
            <p class="small">
              {{
                data.sections
                  .map(section => `${codeText(section)} (${meetingText(section.meetings) || 'no times'})`)
                  .join(', ')
              }}. One plan can fill them all, each with the dates of its own meetings: choose them in Pair.
            </p>
            <p class="small">
              Each stays a shell of its own with its own roster. After the run, you edit each one separately.
            </p>
          </div>
          <p class="small soft">
            To use several sources, such as a master and your own extras, add the others in Pair.
          </p>
        </aside>
      </div>
    </template>
  </main>
</template>

<style scoped>
.into {
  color: var(--tide-text);
  margin: 0 0 2px;
}
.beside {
  --aside: 290px;
}
.under {
  margin-bottom: 14px;
  max-width: 760px;
}
.under p {
  margin: 0;
}
.rows {
  list-style: none;
}
.rows li {
  display: flex;
  justify-content: space-between;
  gap: 20px;
  padding: 10px 0;
  border-bottom: 1px solid var(--rule);
  align-items: start;
}
@media (max-width: 620px) {
  .rows li {
    flex-wrap: wrap;
  }
}
.acts {
  display: grid;
  justify-items: end;
  gap: 5px;
  flex: none;
}
.code {
  max-width: 520px;
}
.code div {
  display: flex;
  gap: 12px;
  margin-top: 4px;
}
aside {
  display: grid;
  gap: 12px;
}
aside .note p:last-child {
  margin: 0;
}
b {
  font-weight: 600;
}
.buoy {
  margin-bottom: 12px;
  max-width: 620px;
}
</style>
