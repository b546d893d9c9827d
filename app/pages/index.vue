<script setup lang="ts">
import { useVirtualizer } from '@tanstack/vue-virtual'
import { watchDebounced } from '@vueuse/core'
import type { ShellLine, ShellsReply } from '~~/shared/api/shells'
import { findable, rowsOf, termOf, viewNames, views, type Row, type View } from '~/shells/index-filter'
import NoShells from '~/shells/NoShells.vue'
import PastRule from '~/shells/PastRule.vue'
import ShellRow from '~/shells/ShellRow.vue'

useHead({ title: 'Shells · Northtide' })
const route = useRoute()
const { data, problem, refresh } = useLoaded(() => api.get<ShellsReply>('/shells'))
onMounted(refresh)

const text = ref(String(route.query.q ?? ''))
const view = ref<View>(views.find(name => name === route.query.view) ?? 'now')
watch(
  [text, view],
  () =>
    void navigateTo(
      { query: { ...(text.value && { q: text.value }), ...(view.value !== 'now' && { view: view.value }) } },
      { replace: true },
    ),
  { flush: 'post' },
)
const all = computed(() => (data.value ? findable(data.value) : []))
const listed = computed(() =>
  data.value
    ? rowsOf(all.value, data.value, view.value, text.value.toLowerCase().split(/\s+/).filter(Boolean))
    : { rows: [], shown: [], counts: { now: 0, past: 0, archived: 0, hidden: 0 } },
)
const rows = computed(() => listed.value.rows)

const rowAt = (at: number): Row => present(rows.value[at])

const list = ref<HTMLElement>()
const virtual = useVirtualizer(
  computed(() => ({
    count: rows.value.length,
    getScrollElement: () => list.value ?? null,
    estimateSize: (at: number) => ('head' in rowAt(at) ? 44 : 88),
    overscan: 4,
    getItemKey: (at: number) => rowAt(at).key,
  })),
)

const sourcesText = (sources: ShellsReply['waiting'][number]['sources']): string =>
  sources.map(source => `${codeText(source)}, ${source.term.name}`).join(' and ')
/** The term of a course and how far off its classes are: `Spring 2027, in 3 days`. */
function whenOf(at: number): string {
  const term = termOf(present(data.value), at)
  return term.when === 'past' || term.when === 'archived'
    ? term.name
    : `${term.name}, ${term.daysToClasses > 0 ? 'begins' : 'began'} ${daysText(term.daysToClasses)}`
}
const drawn = computed(() =>
  virtual.value.getVirtualItems().flatMap(item => {
    const row = rows.value[item.index]
    return row ? [{ item, row }] : []
  }),
)

const measure = (row: unknown): void => {
  if (row instanceof HTMLElement) virtual.value.measureElement(row)
}
// Only rows in sight are looked up in full; what has been looked up stays until the list is fetched again.
const lines = shallowRef(new Map<string, ShellLine>())
const inSight = computed(() => drawn.value.flatMap(({ row }) => ('line' in row ? [row.line.id] : [])))
const { refresh: lookUp, problem: lookProblem } = useLoaded(async () => {
  const wanted = inSight.value.filter(id => !lines.value.has(id)).slice(0, 40)
  if (wanted.length === 0) return
  const { shells } = await api.get<{ shells: ShellLine[] }>(`/shells/lines?ids=${wanted.join(',')}`)
  lines.value = new Map([...lines.value, ...shells.map(shell => [shell.course.id, shell] as const)])
})
watchDebounced(inSight, () => void lookUp(), { debounce: () => (lines.value.size === 0 ? 0 : 90) })
// A run that goes on is followed where it is in sight.
const written = computed(() => inSight.value.filter(id => lines.value.get(id)?.writing))
useRefreshWhile(
  computed(() => written.value.length > 0),
  async () => {
    lines.value = new Map([...lines.value].filter(([id]) => !written.value.includes(id)))
    await lookUp()
  },
  1500,
)
async function again(): Promise<void> {
  lines.value = new Map()
  await refresh()
  await lookUp()
}

const cursor = ref(0)
const current = computed(() => listed.value.shown[Math.min(cursor.value, listed.value.shown.length - 1)])
watch([text, view], () => {
  cursor.value = 0
  list.value?.scrollTo({ top: 0 })
})
/** The shell something is being done with, while it is done. */
const starting = ref<string | null>(null)
const {
  run: act,
  busy,
  problem: startProblem,
} = useAction((id: string, work: () => Promise<unknown>) => {
  starting.value = id
  return work()
})
const isBusy = (id: string): boolean => busy.value && starting.value === id
/** The fast road: the suggested source, decisions as last time (else the recommended ones), on to the summary before Run. */
const start = (target: string, source: string, stage: 'run' | 'pair'): Promise<boolean> =>
  act(target, async () => {
    const wanted = { sources: [source], target, decisions: 'as-before' }
    const { id } = await api.post<{ id: string }>('/plans', wanted)
    await navigateTo(`/plans/${id}/${stage}`)
  })
const attach = (shell: string, planId: string): Promise<boolean> =>
  act(shell, async () => {
    await api.put(`/plans/${planId}/shell`, { shell })
    await navigateTo(`/plans/${planId}/run`)
  })
const prefer = (id: string, preferences: { pinned?: boolean; hidden?: boolean }): Promise<boolean> =>
  act(id, async () => {
    await api.put(`/courses/${id}/preferences`, preferences)
    if (!data.value) return
    const courses = data.value.courses.map(course =>
      course.id === id ? { ...course, ...preferences } : course,
    )
    data.value = { ...data.value, courses }
  })
async function lookAgain(): Promise<void> {
  startProblem.value = null
  await again()
}
const field = ref<{ focus: () => void }>()
const move = (step: number): void => {
  cursor.value = Math.max(0, Math.min(listed.value.shown.length - 1, cursor.value + step))
  virtual.value.scrollToIndex(rows.value.findIndex(row => 'line' in row && row.line.id === current.value?.id))
}
/** What Enter does with a shell: whatever its row offers first. */
function goOn(shell: ShellLine): unknown {
  const { course, plan, suggestion } = shell
  if (shell.writing) return
  if (plan) return navigateTo(`/plans/${plan.id}`)
  if (shell.lastRun || !shell.mayPlan || view.value !== 'now') return navigateTo(`/courses/${course.id}`)
  return suggestion ? start(course.id, suggestion.course.id, 'run') : navigateTo(`/fill/${course.id}`)
}
useKeys([
  ...['j', 'ArrowDown'].map(key => ({ key, does: 'next shell', run: () => move(1) })),
  ...['k', 'ArrowUp'].map(key => ({ key, does: 'shell before', run: () => move(-1) })),
  { key: 'f', does: 'filter the shells', run: () => field.value?.focus() },
  {
    key: 'Enter',
    does: 'the next thing to do with this shell',
    run: () => {
      const shell = current.value && lines.value.get(current.value.id)
      if (shell) void goOn(shell)
    },
  },
])
/** When the registrar was asked last, and what came of it. */
const registrarText = computed(() => {
  const registrar = data.value?.registrar
  if (!registrar?.configured) return ''
  const when = registrar.at ? instantText(registrar.at) : ''
  const changes = registrar.changes ? counted(registrar.changes, 'change') : 'no changes'
  const asked = `Registrar checked ${when}, ${changes} in a week`
  const texts: Record<typeof registrar.state, string> = {
    none: 'The registrar has not been checked yet',
    waiting: 'Checking the registrar …',
    new: asked,
    same: asked,
    failed: `The registrar’s list could not be read, ${when}`,
  }
  return texts[registrar.state]
})
</script>

<template>
  <main class="shells">
    <header>
      <div class="title">
        <h1>Shells</h1>
        <p class="soft">
          Courses that the registrar has made ready, and what could fill them.
          <NuxtLink to="/no-shell">Missing a shell?</NuxtLink>
        </p>
        <span class="spring" />
        <p v-if="registrarText" class="small" :class="data?.registrar.state === 'failed' ? 'settle' : 'soft'">
          <NuxtLink to="/registrar">{{ registrarText }}</NuxtLink>
        </p>
      </div>
      <div class="controls">
        <ElInput
          ref="field"
          v-model="text"
          class="filter"
          clearable
          placeholder="code, title, term or person"
          aria-label="Filter the shells"
        />
        <nav aria-label="Which courses">
          <button
            v-for="name in views"
            :key="name"
            type="button"
            class="view"
            :class="{ on: view === name }"
            :aria-pressed="view === name"
            @click="view = name"
          >
            {{ viewNames[name] }} <span v-if="data">{{ numberText(listed.counts[name]) }}</span>
          </button>
        </nav>
      </div>
      <PastRule
        v-if="data && (view === 'past' || view === 'archived')"
        :rule="data.pastRule"
        @saved="refresh"
      />
      <ProblemNote v-if="problem" :problem="problem" @retry="refresh" />
      <ProblemNote v-if="startProblem" :problem="startProblem">
        <button class="act plain" type="button" @click="lookAgain">Read the shells again</button>
      </ProblemNote>
      <p v-if="lookProblem" class="settle small" role="alert">
        {{ lookProblem.title }}: these rows show what was last known.
        <button class="link" type="button" @click="again">Try again</button>
      </p>
    </header>
    <LoadingLines v-if="!data && !problem" class="pad" what="Fetching your shells …" />
    <div v-if="view === 'now' && data?.waiting.length && !text" class="pad waiting">
      <h2>Waiting for a shell</h2>
      <p v-for="plan in data.waiting" :key="plan.planId" class="wait">
        <span>
          <b
            >{{ codeOf(plan.course) }} <bdi>{{ plan.course.title }}</bdi></b
          >, {{ plan.course.term.name }}
          <span class="soft">from {{ sourcesText(plan.sources) }}</span>
        </span>
        <NuxtLink :to="`/plans/${plan.planId}`">Go on with the plan</NuxtLink>
      </p>
    </div>
    <div v-if="rows.length" ref="list" class="list" tabindex="0" aria-label="Shells">
      <div :style="{ height: `${virtual.getTotalSize()}px`, position: 'relative' }">
        <div
          v-for="{ item, row } in drawn"
          :key="row.key"
          :ref="measure"
          class="row"
          :data-index="item.index"
          :style="{ transform: `translateY(${item.start}px)` }"
        >
          <h2 v-if="'head' in row" class="head">
            {{ row.head }} <span class="soft small">{{ row.note }}</span>
          </h2>
          <ShellRow
            v-else
            :line="row.line"
            :shell="lines.get(row.line.id) ?? null"
            :when="whenOf(row.line.term)"
            :current="current?.id === row.line.id"
            :busy="isBusy(row.line.id)"
            :past="view === 'past' || view === 'archived'"
            @click="cursor = listed.shown.findIndex(line => line.id === row.key)"
            @fast="source => start(row.key, source, 'run')"
            @plan="source => start(row.key, source, 'pair')"
            @attach="planId => attach(row.key, planId)"
            @prefer="preferences => prefer(row.key, preferences)"
          />
        </div>
      </div>
    </div>
    <div v-else-if="data" class="pad">
      <NoShells :text="text" :view="view" :counts="listed.counts" @view="name => (view = name)" />
    </div>
  </main>
</template>

<style scoped>
.shells {
  height: 100%;
  display: flex;
  flex-direction: column;
  max-width: 1400px;
}
header {
  padding: 20px var(--gutter) 8px;
  flex: none;
}
.title {
  display: flex;
  align-items: baseline;
  gap: 16px;
}
.title p {
  margin: 0;
}
.spring {
  flex: 1;
}
.controls {
  display: flex;
  align-items: center;
  gap: 22px;
  margin: 10px 0;
}
.filter {
  width: 270px;
}
nav {
  display: flex;
  gap: 18px;
}
.view {
  background: none;
  border: 0;
  border-bottom: 2px solid transparent;
  padding: 3px 0;
  cursor: pointer;
  color: var(--ink-soft);
}
.view span {
  font-size: 12px;
}
.view.on {
  color: var(--ink);
  border-bottom-color: var(--tide);
}
.list {
  flex: 1;
  min-height: 0;
  overflow: auto;
  padding: 0 var(--gutter);
  outline-offset: -2px;
}
.row {
  position: absolute;
  left: 0;
  right: 0;
}
.head {
  min-height: 44px;
  padding-top: 14px;
  border-bottom: 1.5px solid var(--rule-strong);
}
.head .small {
  font-family: var(--sans);
  font-weight: 400;
  margin-left: 10px;
}
.pad {
  padding: 6px var(--gutter) 14px;
}
.waiting {
  flex: none;
}
.waiting h2 {
  border-bottom: 1.5px solid var(--rule-strong);
  padding-bottom: 6px;
}
.wait {
  display: flex;
  justify-content: space-between;
  gap: 20px;
  padding: 8px 10px;
  border-bottom: 1px solid var(--rule);
  margin: 0;
}
b {
  font-weight: 600;
}
@media (max-width: 900px) {
  .shells {
    height: auto;
  }
  .title,
  .controls,
  nav,
  .wait {
    flex-wrap: wrap;
    gap: 4px 16px;
  }
  .filter {
    width: 100%;
  }
  .list {
    flex: none;
    height: max(300px, calc(100vh - 120px));
  }
}
</style>
