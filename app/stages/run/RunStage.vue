<script setup lang="ts">
import type { EffectReply, RunReply } from '~~/shared/api/plans'
import type { ApiProblem } from '~/composables/api'
import FootBar from '../FootBar.vue'
import StageFrame from '../StageFrame.vue'
import EffectTable from './EffectTable.vue'
import { usePlan } from '../plan'
import { useLedger } from '../date/ledger'

const store = usePlan()
const plan = computed(() => store.plan!)
const consent = ref(false)
const running = ref(false)
const runProblem = shallowRef<ApiProblem | null>(null)
const { data, problem, loading, refresh } = useLoaded(async () => {
  await store.save()
  return api.get<EffectReply>(`/plans/${plan.value.id}/effect`)
})
const { data: record, refresh: fetchRecord } = useLoaded(() =>
  api.get<RunReply>(`/runs/${plan.value.run!.id}`),
)
watch(
  () => plan.value.run?.id,
  id => {
    if (id) void fetchRecord()
  },
  { immediate: true },
)
const found = computed(() => record.value?.audit.reduce((sum, line) => sum + line.onNewItems, 0))
onMounted(() => {
  if (plan.value.state === 'draft') void refresh()
})
const { items } = useLedger(ref(true))
const toSettle = computed(() => items.value.filter(item => item.settle))
const inPlace = computed(() => plan.value.mode === 'in-place')
const awaited = computed(() => plan.value.target.course.origin === 'awaited' && !inPlace.value)
const shell = computed(() =>
  inPlace.value && plan.value.state === 'draft' ? plan.value.source.course : plan.value.target.course,
)
/** What the run changes in the shell itself: its names and windows. */
const facts = computed(() => {
  const { names, windows } = store.document!
  const is = shell.value.windows
  const days = (from: string | null, to: string | null): string =>
    from || to
      ? `${from ? dayText(from) : 'any day'} to ${to ? `${dayText(to)} ${to.slice(0, 4)}` : 'no end'}`
      : 'not limited'
  return [
    names.title !== null &&
      names.title !== shell.value.title && { what: 'Title', before: shell.value.title, after: names.title },
    names.label !== null &&
      names.label !== (shell.value.label ?? '') && {
        what: 'Section label',
        before: shell.value.label ?? 'none',
        after: names.label || 'none',
      },
    windows &&
      (windows.enrolFrom !== is.enrolFrom || windows.enrolTo !== is.enrolTo) && {
        what: 'Students may enrol',
        before: days(is.enrolFrom, is.enrolTo),
        after: days(windows.enrolFrom, windows.enrolTo),
      },
    windows &&
      (windows.openFrom !== is.openFrom || windows.openTo !== is.openTo) && {
        what: 'Students may enter',
        before: days(is.openFrom, is.openTo),
        after: days(windows.openFrom, windows.openTo),
      },
  ].filter(entry => entry !== false && entry !== null)
})
const others = computed(() => plan.value.set.filter(entry => entry.state === 'draft'))
/** What running would do to them, and that this is what one consents to: their own marks. */
const {
  data: otherEffects,
  problem: othersProblem,
  refresh: fetchOthers,
} = useLoaded(async () =>
  Promise.all(
    others.value.map(async entry => ({
      entry,
      ...(await api.get<EffectReply>(`/plans/${entry.id}/effect`)),
    })),
  ),
)
// They may become known only after this stage has been opened.
watch(
  () => others.value.map(entry => entry.id).join(),
  ids => {
    if (ids && plan.value.state === 'draft') void fetchOthers()
  },
  { immediate: true },
)
const also = ref(false)
const outcomes = ref<{ name: string; text: string; good: boolean }[]>([])
/** The same plan’s other shells, one after the other: each is all or nothing by itself. */
async function runOthers(): Promise<void> {
  for (const { entry, fingerprint, effect } of otherEffects.value ?? []) {
    const name = codeText(entry.course)
    try {
      await api.post(`/plans/${entry.id}/run`, { fingerprint })
      outcomes.value = [
        ...outcomes.value,
        { name, text: `${counted(effect.added.items, 'item')} added`, good: true },
      ]
    } catch (error) {
      outcomes.value = [
        ...outcomes.value,
        { name, text: `${asProblem(error).title}. Nothing was written into it.`, good: false },
      ]
    }
  }
}
const nothing = computed(() =>
  data.value ? data.value.effect.added.items + data.value.effect.added.units === 0 : false,
)
const blocked = computed(
  () =>
    !consent.value ||
    awaited.value ||
    plan.value.writing !== null ||
    running.value ||
    loading.value ||
    !data.value ||
    nothing.value ||
    store.saving === 'conflict' ||
    store.saving === 'failed',
)
async function run(): Promise<void> {
  if (blocked.value) return
  running.value = true
  runProblem.value = null
  try {
    await api.post<{ id: string }>(`/plans/${plan.value.id}/run`, { fingerprint: data.value!.fingerprint })
    if (also.value) await runOthers()
    await store.load(plan.value.id)
  } catch (error) {
    runProblem.value = asProblem(error)
    consent.value = false
  } finally {
    running.value = false
  }
}
async function again(): Promise<void> {
  runProblem.value = null
  await store.load(plan.value.id)
  await refresh()
}
const sentence = computed(() => {
  const effect = data.value?.effect
  if (effect && inPlace.value)
    return `Writes ${counted(effect.dates.dates, 'date')} into the course itself, after a snapshot of it. Adds nothing. Clears nothing.`
  return (
    effect &&
    `Adds ${counted(effect.added.items, 'item')} in ${counted(effect.added.units, 'unit')}. Replaces ${effect.replaced || 'nothing'}. Clears ${effect.cleared || 'nothing'}.`
  )
})
</script>

<template>
  <StageFrame>
    <template v-if="plan.state === 'run'">
      <p class="caps kept">
        Done {{ plan.run ? instantText(plan.run.at, plan.target.course.term.timeZone) : '' }}
      </p>
      <h1>{{ codeText(plan.target.course) }} {{ inPlace ? 'is rolled in place' : 'is filled' }}.</h1>
      <p v-if="inPlace" class="lead">
        It stands in {{ plan.target.course.term.name }} now, with its new dates.
        <NuxtLink :to="`/courses/${plan.source.course.id}`">The snapshot</NuxtLink> of
        {{ plan.source.course.term.name }} is as the course was, students and all.
      </p>
      <p v-else class="lead">
        {{ [plan.source, ...plan.more].map(side => side.course.title).join(' and ') }} of
        {{ plan.source.course.term.name }} now stands in the shell for {{ plan.target.course.term.name }}.
        {{ plan.more.length ? 'The old courses are as they were.' : 'The old course is as it was.' }}
      </p>
      <ul v-if="outcomes.length" class="outcomes">
        <li v-for="one in outcomes" :key="one.name" :class="one.good ? 'kept' : 'settle'">
          {{ one.name }}: {{ one.text }}
        </li>
      </ul>
      <p v-else-if="plan.set.length" class="small">
        The same plan for other shells:
        <template v-for="(entry, at) in plan.set" :key="entry.id"
          >{{ at ? ', ' : ''
          }}<NuxtLink :to="`/plans/${entry.id}/run`">{{ codeText(entry.course) }}</NuxtLink> ({{
            entry.state === 'run' ? 'run' : 'a draft'
          }})</template
        >.
      </p>
      <p class="ways">
        <NuxtLink class="act" :to="`/courses/${plan.target.course.id}`">Open the shell ⟶</NuxtLink
        ><NuxtLink v-if="plan.run" :to="`/runs/${plan.run.id}`">Read the record of the run</NuxtLink>
      </p>
      <template v-if="record">
        <EffectTable
          v-if="!inPlace"
          :effect="record.effect"
          :source="plan.source.course"
          :target="plan.target.course"
        />
        <p v-if="inPlace" class="audit">
          {{ counted(record.effect.dates.dates, 'date') }} written. What students did was counted before and
          after: nothing of it changed.
        </p>
        <p v-else class="audit">
          <b class="kept">{{ found === 0 ? 'The audit found nothing' : `The audit found ${found}` }}</b> of
          last term’s students on the {{ counted(record.effect.added.items, 'new item') }}: it looked for
          submissions, grades, attempts, posts and extensions.
        </p>
      </template>
    </template>
    <template v-else>
      <h2>What running does to {{ codeText(shell) }}</h2>
      <div v-if="plan.writing" class="note brass" role="status">
        <h3>{{ plan.writing.by }} is writing into {{ codeText(shell) }}</h3>
        <p class="small">
          Since {{ instantText(plan.writing.since, shell.term.timeZone) }}. Running waits until that is done;
          this page looks by itself.
        </p>
      </div>
      <ProblemNote v-if="problem" :problem="problem" @retry="refresh" />
      <LoadingLines v-else-if="!data" what="Working out the whole effect …" />
      <template v-else>
        <p class="effect-line">{{ sentence }}</p>
        <EffectTable
          v-if="!inPlace"
          :effect="data.effect"
          :source="plan.source.course"
          :target="plan.target.course"
        />
        <table v-else class="ruled place">
          <tbody>
            <tr>
              <td>Snapshot</td>
              <td>
                of {{ codeText(plan.source.course) }} as it stands in {{ plan.source.course.term.name }}:
                {{ counted(plan.source.course.items, 'item') }},
                {{ counted(plan.source.studentData.students, 'student') }} and all they did
              </td>
            </tr>
            <tr>
              <td>Term</td>
              <td>{{ plan.source.course.term.name }} becomes {{ plan.target.course.term.name }}</td>
            </tr>
            <tr>
              <td>Dates</td>
              <td>
                {{ counted(data.effect.dates.dates, 'date') }} written, {{ data.effect.dates.moved }} moved,
                {{ data.effect.dates.settle }} to settle
              </td>
            </tr>
            <tr>
              <td>Students</td>
              <td>
                {{ counted(plan.source.studentData.students, 'student') }} and what they did stay in the
                course; nothing of it is cleared
              </td>
            </tr>
          </tbody>
        </table>
        <p v-if="plan.sections.some(entry => entry.chosen || entry.joined)">
          {{
            plan.sections
              .filter(entry => entry.chosen || entry.joined)
              .map(entry => codeText(entry.course))
              .join(', ')
          }}
          will show the same content, with the dates of
          {{ plan.sections.filter(entry => entry.chosen || entry.joined).length === 1 ? 'its' : 'their' }} own
          meetings.
        </p>
        <table v-if="facts.length" class="ruled facts">
          <caption class="caps">
            The shell itself
          </caption>
          <tbody>
            <tr v-for="fact in facts" :key="fact.what">
              <td>{{ fact.what }}</td>
              <td class="soft">{{ fact.before }}</td>
              <td>{{ fact.after }}</td>
            </tr>
          </tbody>
        </table>
        <section v-if="others.length" class="settling">
          <h3>The same plan for {{ counted(others.length, 'more shell', 'more shells') }}</h3>
          <ProblemNote v-if="othersProblem" :problem="othersProblem" @retry="fetchOthers" />
          <ul v-else>
            <li v-for="one in otherEffects" :key="one.entry.id">
              <NuxtLink :to="`/plans/${one.entry.id}/run`">{{ codeText(one.entry.course) }}</NuxtLink>
              <span class="soft"
                >{{ meetingText(one.entry.course.meetings) || 'no meeting times' }} · adds
                {{ counted(one.effect.added.items, 'item') }}, replaces
                {{ one.effect.replaced || 'nothing' }}, {{ counted(one.effect.dates.dates, 'date') }},
                {{ one.effect.dates.settle }} to settle</span
              >
            </li>
          </ul>
        </section>
        <section v-if="toSettle.length" class="settling">
          <h3>{{ counted(toSettle.length, 'item has', 'items have') }} dates to settle</h3>
          <p class="small soft">
            They do not bar the way: each is written as the table says, and can be changed now or in the
            shell.
          </p>
          <ul>
            <li v-for="item in toSettle" :key="item.node.lineage">
              <KindMark :kind="item.node.kind!" :exam="item.node.exam" />
              <NuxtLink :to="`/plans/${plan.id}/date?item=${item.node.lineage}`">{{
                item.node.title
              }}</NuxtLink>
              <span class="soft"
                >{{
                  item.planned.due
                    ? `due ${momentText(item.planned.due)}`
                    : item.planned.opens
                      ? `opens ${momentText(item.planned.opens)}`
                      : ''
                }}
                · {{ item.planned.flags.join(', ').replaceAll('-', ' ') }}</span
              >
            </li>
          </ul>
        </section>
      </template>
    </template>
    <template #side>
      <template v-if="plan.state === 'draft'">
        <h2>Before you run</h2>
        <p class="small">
          It is all or nothing: everything is written in one step, or nothing is. Then an audit counts student
          data in the shell, and a record of the run is kept.
        </p>
        <div class="note" :class="{ buoy: runProblem }">
          <template v-if="runProblem">
            <h3 role="alert">{{ runProblem.title }}</h3>
            <p class="small">{{ runProblem.detail }}</p>
            <button class="act plain" type="button" @click="again">Look again</button>
          </template>
          <template v-else-if="nothing"
            ><h3>There is nothing to add</h3>
            <p class="small">
              All that is carried is in the shell already, or nothing is carried. Choose in
              <NuxtLink :to="`/plans/${plan.id}/carry`">Carry</NuxtLink>.
            </p></template
          >
          <template v-else-if="awaited"
            ><h3>There is no shell yet</h3>
            <p class="small">
              {{
                plan.fits.length
                  ? `${codeText(plan.fits[0]!)} has come: attach it in`
                  : 'This plan waits for one. See'
              }}
              <NuxtLink :to="`/plans/${plan.id}/pair`">Pair</NuxtLink>.
            </p></template
          >
          <template v-else-if="plan.may.run">
            <ElCheckbox v-model="consent" :disabled="!data || running"
              >I have seen what changes in {{ codeText(shell) }}</ElCheckbox
            >
            <ElCheckbox v-if="others.length" v-model="also" :disabled="running || !otherEffects"
              >Then run into {{ others.map(entry => codeText(entry.course)).join(', ') }} as well</ElCheckbox
            >
            <p class="small soft">
              {{
                inPlace
                  ? 'A snapshot of it is kept first.'
                  : `${[plan.source, ...plan.more].map(side => `${codeText(side.course)} of ${side.course.term.name}`).join(' and ')} ${plan.more.length ? 'stay' : 'stays'} as ${plan.more.length ? 'they are' : 'it is'}.`
              }}
            </p>
          </template>
          <template v-else
            ><h3>You may prepare this plan</h3>
            <p class="small">An instructor of the shell runs it, or allows you to.</p></template
          >
        </div>
      </template>
      <template v-else>
        <h2>What was decided</h2>
        <p class="small">
          This plan is kept as it was run. Its stages can be read; nothing in them changes the shell any more.
        </p>
      </template>
    </template>
    <template #foot>
      <FootBar
        v-if="plan.state === 'draft'"
        :totals="
          data
            ? [
                { count: data.effect.added.items, words: 'items added' },
                { count: data.effect.replaced, words: 'replaced' },
                { count: data.effect.cleared, words: 'cleared' },
                { count: data.effect.dates.dates, words: 'dates' },
                { count: data.effect.dates.settle, words: 'to settle', settle: true },
              ]
            : []
        "
      >
        <button class="act on-deep" type="button" :disabled="blocked || !plan.may.run" @click="run">
          {{
            running
              ? 'Writing …'
              : inPlace
                ? `Roll ${codeText(shell)} in place`
                : `Run into ${codeText(shell)}`
          }}
        </button>
      </FootBar>
      <FootBar v-else
        ><NuxtLink class="act on-deep" :to="`/courses/${plan.target.course.id}`"
          >Open the shell ⟶</NuxtLink
        ></FootBar
      >
    </template>
  </StageFrame>
</template>

<style scoped>
.effect-line {
  font: 500 22px/1.3 var(--serif);
  margin: 6px 0 14px;
}
.lead {
  max-width: 62ch;
  font-size: 15px;
}
.ways {
  display: flex;
  gap: 22px;
  align-items: center;
  margin: 14px 0 18px;
}
.audit {
  margin-top: 14px;
}
ul.outcomes {
  list-style: none;
  margin: 0 0 12px;
}
.place,
.facts {
  max-width: 860px;
  margin-top: 8px;
}
.place td:first-child,
.facts td:first-child {
  width: 190px;
  font-weight: 600;
}
.facts caption {
  text-align: left;
  padding-top: 12px;
}
.settling {
  margin-top: 22px;
}
.settling ul {
  list-style: none;
}
.settling li {
  padding: 5px 0;
  border-bottom: 1px solid var(--rule);
  max-width: 760px;
}
.note {
  margin-top: 12px;
}
.note :deep(.el-checkbox__label) {
  white-space: normal;
}
</style>
