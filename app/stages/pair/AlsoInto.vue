<script setup lang="ts">
import { sectionLabels } from '~~/core/pairing/names'
import { looksAtMeetings } from '~~/core/plan/sections'
import type { PlanReply } from '~~/shared/api/plans'
import LeavingList from '~/ui/LeavingList.vue'
import { usePlan } from '../plan/store'
import { differenceLines } from '../differences'
import SectionFacts from './SectionFacts.vue'

/** The same sources into further shells: each with a plan and content of its own, or sections that show this shell's content. */
const props = defineProps<{ plan: PlanReply }>()
const store = usePlan()
const chosen = ref<string[]>([])
const told = ref('')
const planned = computed(() => new Set(props.plan.set.map(entry => entry.course.id)))
/** Sections that show this shell’s content, or will once it is run. */
const shown = computed(() => props.plan.sections.filter(entry => entry.joined || entry.chosen))
const could = computed(() =>
  props.plan.sections.filter(entry => !entry.joined && !planned.value.has(entry.course.id)),
)
const datesText = computed(() =>
  store.document && looksAtMeetings(store.document.dates)
    ? 'Its dates follow its own meetings, where the rule looks at meetings: see them in Run.'
    : 'All get the same dates: the rule counts days and weeks, not meetings.',
)
/** A label for every section from its meeting times. */
const proposed = computed(() =>
  sectionLabels([
    props.plan.target.course,
    ...props.plan.siblings.filter(course => course.origin !== 'awaited'),
  ]),
)
const others = computed(() =>
  props.plan.siblings.filter(
    course =>
      course.sharesWith === null &&
      !shown.value.some(entry => entry.course.id === course.id) &&
      !planned.value.has(course.id) &&
      ['instructor', 'assistant', 'office'].includes(course.role ?? '') &&
      ![props.plan.source, ...props.plan.more].some(side => side.course.id === course.id),
  ),
)
/** What is not yet saved goes first, so that it is shared too; `work` answers what to tell. */
const {
  run: act,
  busy,
  problem,
} = useAction(async (work: () => Promise<string>) => {
  await store.save()
  told.value = await store.changeBeside(work)
  await store.load(props.plan.id)
})
const join = (id: string, chosen: boolean): Promise<boolean> =>
  act(async () => {
    const sections = props.plan.sections
      .filter(entry => entry.chosen && entry.course.id !== id)
      .map(entry => entry.course.id)
    await api.put(`/plans/${props.plan.id}/sections`, { sections: chosen ? [...sections, id] : sections })
    return ''
  })
const add = (): Promise<boolean> =>
  act(async () => {
    const shells = chosen.value
    const path = `/plans/${props.plan.id}/further`
    const { made, there } = await api.post<{ made: number; there: number }>(path, { shells })
    chosen.value = []
    const kept = `; ${there} had one of these sources already and keep${there === 1 ? 's' : ''} it`
    return `${counted(made, 'plan')} made${there ? kept : ''}.`
  })
const give = (): Promise<boolean> =>
  act(async () => {
    const { made } = await api.post<{ made: number }>(`/plans/${props.plan.id}/set`, {})
    return `The decisions here were given to ${counted(made, 'plan')}.`
  })
</script>

<template>
  <section v-if="others.length || plan.set.length || plan.sections.length" class="also">
    <h2>Also into</h2>
    <ul v-if="plan.set.length">
      <li v-for="entry in plan.set" :key="entry.id">
        <NuxtLink :to="`/plans/${entry.id}/date`">{{ codeText(entry.course) }}</NuxtLink>
        <span class="soft small"
          >{{ meetingText(entry.course.meetings) || 'no meeting times' }} ·
          {{ entry.state === 'run' ? 'run' : 'a draft' }}</span
        >
        <p v-for="line in differenceLines(entry, store.nodes)" :key="line" class="small settle">{{ line }}</p>
      </li>
    </ul>
    <p v-if="plan.set.some(entry => entry.state === 'draft')" class="small">
      <button class="link" type="button" :disabled="busy" @click="give">
        Give these decisions to {{ plan.set.length === 1 ? 'it' : 'them' }}
      </button>
    </p>
    <template v-if="others.length">
      <h3>As shells of their own</h3>
      <p class="small soft">
        Each has its own content and roster. It takes these decisions now, with dates from its own meetings.
        After the run, you edit each one separately.
      </p>
      <ElCheckboxGroup v-model="chosen" aria-label="Shells of their own"
        ><ElCheckbox v-for="course in others" :key="course.id" :value="course.id"
          >{{ codeText(course) }}
          <span class="soft small"
            >{{ meetingText(course.meetings) || 'no meeting times' }},
            {{ counted(course.students, 'student') }}</span
          ></ElCheckbox
        ></ElCheckboxGroup
      >
      <button class="act plain" type="button" :disabled="busy || !chosen.length" @click="add">
        {{
          chosen.length ? `Plan for ${counted(chosen.length, 'more shell', 'more shells')}` : 'Choose shells'
        }}
      </button>
    </template>
    <template v-if="could.length || shown.length">
      <h3>As sections of one content</h3>
      <p class="small soft">
        One content for all: an edit reaches every section. Each keeps its own roster. {{ datesText }} Rosters
        are not merged: teaching staff could see students of the other sections.
      </p>
      <div
        v-for="entry in plan.sections.filter(each => shown.includes(each) || could.includes(each))"
        :key="entry.course.id"
        class="one"
      >
        <ElCheckbox
          :model-value="entry.joined || entry.chosen"
          :disabled="busy || entry.joined || (entry.faults.length > 0 && !entry.chosen)"
          @change="value => join(entry.course.id, Boolean(value))"
          >Share this content with {{ codeText(entry.course) }}
          <span class="soft small"
            >{{ meetingText(entry.course.meetings) || 'no meeting times' }},
            {{ counted(entry.course.students, 'student') }}</span
          ></ElCheckbox
        >
        <p v-if="entry.faults.length" class="small settle">
          It cannot share this content: {{ entry.faults.join(', ') }}.
        </p>
        <p v-else-if="entry.joined" class="small soft">It shares this content already.</p>
        <LeavingList v-if="!entry.faults.length" :name="codeText(entry.course)" :leaves="entry.leaves" />
        <SectionFacts
          v-if="!entry.faults.length && (entry.joined || entry.chosen) && plan.state === 'draft'"
          :plan="plan"
          :section="entry.course"
          :proposed="proposed.get(entry.course.id) ?? ''"
        />
      </div>
    </template>
    <p v-if="told" class="small kept" role="status">{{ told }}</p>
    <ActionProblem :problem="problem" line />
  </section>
</template>

<style scoped>
.also {
  margin-top: 22px;
  display: grid;
  gap: 6px;
  justify-items: start;
}
.also h2,
.also p {
  margin: 0;
}
h3 {
  margin-top: 8px;
}
ul {
  list-style: none;
}
li {
  padding: 3px 0;
}
.also :deep(.el-checkbox) {
  display: flex;
  margin: 0;
  height: auto;
  padding: 3px 0;
}
.also :deep(.el-checkbox__label) {
  white-space: normal;
}
</style>
