<script setup lang="ts">
import WritingNote from './WritingNote.vue'
import type { IndexLine, ShellLine } from '~~/shared/api/shells'

/** A shell in the list: what it is, where it stands, the next thing to do. `shell` is looked up once the row is in sight. */
const props = defineProps<{
  line: IndexLine
  shell: ShellLine | null
  when: string
  current: boolean
  busy: boolean
  past: boolean
}>()
defineEmits<{
  fast: [source: string]
  plan: [source: string]
  attach: [planId: string]
  prefer: [preferences: { pinned?: boolean; hidden?: boolean }]
}>()
const name = computed(() => codeText(props.line))
const change = computed(() => props.shell?.changes[0] ?? null)
const originText = (course: ShellLine['course']): string => {
  if (course.origin === 'registrar') return `${counted(course.students, 'student')} on the roster`
  if (course.origin === 'snapshot') return 'a snapshot, kept as it was'
  return `made by hand, ${course.students ? counted(course.students, 'student') : 'no roster'}`
}
const holdsText = (course: ShellLine['course']): string => {
  if (course.sharesWith) return `shows ${counted(course.items, 'item')} of another section`
  return course.items ? `holds ${counted(course.items, 'item')}` : 'empty'
}
const roster = computed(() => {
  const course = props.shell?.course
  if (!course) return ' '
  const meets = meetingText(course.meetings) || 'no meeting times known'
  return [meets, originText(course), holdsText(course)].join(' · ')
})
/** `begins in 3 days · you assist · taught by …` */
const whoText = computed(() =>
  [
    props.when,
    props.line.role === 'assistant' && 'you assist',
    props.line.people ? `taught by ${props.line.people}` : 'nobody teaches it yet',
  ]
    .filter(Boolean)
    .join(' · '),
)
/** What the last run wrote; in place nothing is added, and the dates are new. */
const writtenText = computed(() => {
  const { items = 0, dates = 0 } = props.shell?.lastRun ?? {}
  return items > 0 ? `${counted(items, 'item')} added` : `${counted(dates, 'date')} written`
})
/** Whether something may be put into it at all. */
const isOpen = computed(
  () => props.shell !== null && props.shell.mayPlan && !props.past && !props.shell.course.sharesWith,
)
const mayGoStepwise = computed(() => isOpen.value && !props.shell?.plan && !props.shell?.lastRun)
</script>

<template>
  <article class="shell" :class="{ current }" :aria-label="`${name} ${line.title}`">
    <div class="cell">
      <h3>
        <NuxtLink :to="`/courses/${line.id}`"
          >{{ name }} <bdi>{{ line.title }}</bdi></NuxtLink
        ><em v-if="line.label" class="soft">{{ line.label }}</em
        ><span v-if="shell?.course.label" class="small soft">{{ shell.course.label }}</span>
      </h3>
      <p class="soft line">{{ roster }}</p>
      <p class="soft small line">
        <b v-if="line.missing" class="settle">no longer on the registrar’s list · </b>{{ whoText }}
      </p>
    </div>
    <div v-if="shell" class="cell">
      <WritingNote v-if="shell.writing" :writing="shell.writing" />
      <p v-else-if="shell.course.sharesWith" class="line">
        <b class="kept">Shares its content</b> with
        <NuxtLink :to="`/courses/${shell.course.sharesWith}`">another section</NuxtLink>
      </p>
      <template v-else-if="past"
        ><p class="line soft">
          {{ shell.course.items ? `${counted(shell.course.items, 'item')} to roll from` : 'holds nothing' }}
        </p></template
      >
      <template v-else-if="shell.plan || shell.lastRun">
        <p v-if="shell.lastRun" class="line">
          <b class="kept">Rolled</b> {{ instantBeside(shell.course, shell.lastRun.at) }} by
          {{ shell.lastRun.by }}: {{ writtenText }} ·
          <NuxtLink :to="`/runs/${shell.lastRun.id}`">record</NuxtLink>
        </p>
        <p v-if="shell.plan" class="line">
          <b>A plan is under way</b> from {{ codeText(shell.plan.source) }}, {{ shell.plan.source.term.name }}
          <span class="soft small">
            · saved {{ instantBeside(shell.course, shell.plan.updatedAt) }} by {{ shell.plan.by }}
          </span>
        </p>
        <p v-if="shell.plan?.outcome?.state === 'failed'" class="line small">
          <b class="fault">The last run wrote nothing.</b>
          <NuxtLink :to="`/plans/${shell.plan.id}/run`">Read why, and what to do</NuxtLink>
        </p>
      </template>
      <template v-else-if="shell.suggestion"
        ><p class="line">
          From <b>{{ codeText(shell.suggestion.course) }}, {{ shell.suggestion.course.term.name }}</b>
        </p>
        <p
          class="soft small line"
          :title="`${shell.suggestion.reasons.join(', ')}; ${chanceText(shell.suggestion.chance)}`"
        >
          <span>{{ counted(shell.suggestion.course.items, 'item') }} · {{ shell.suggestion.sureness }}</span
          >: {{ shell.suggestion.reasons.join(', ') }}
        </p></template
      >
      <p v-else class="soft line">No earlier course has this code or title.</p>
      <p v-if="change && !shell.writing" class="small line changed">
        Registrar: {{ changeText(change)
        }}<template v-if="shell.changes.length > 1">
          · <NuxtLink to="/registrar">{{ shell.changes.length - 1 }} more</NuxtLink></template
        >
      </p>
    </div>
    <div v-else class="cell"><p class="soft line">…</p></div>
    <div class="acts">
      <template v-if="shell">
        <template v-if="past"
          ><NuxtLink v-if="shell.course.items" class="act plain" :to="`/no-shell?way=term&from=${line.id}`"
            >Use it again …</NuxtLink
          ></template
        >
        <NuxtLink v-else-if="shell.course.sharesWith" class="act plain" :to="`/courses/${line.id}`"
          >Open the section</NuxtLink
        >
        <NuxtLink v-else-if="shell.plan" class="act" :to="`/plans/${shell.plan.id}`"
          >Go on with the plan</NuxtLink
        >
        <button
          v-else-if="shell.fits[0] && shell.mayPlan"
          class="act"
          type="button"
          :disabled="busy"
          @click="$emit('attach', shell.fits[0].planId)"
        >
          Attach your plan
        </button>
        <NuxtLink v-else-if="shell.lastRun" class="act plain" :to="`/courses/${line.id}`"
          >Go to the shell</NuxtLink
        >
        <button
          v-else-if="shell.suggestion && shell.mayPlan"
          class="act"
          type="button"
          :disabled="busy"
          @click="$emit('fast', shell.suggestion.course.id)"
        >
          {{ busy ? 'Planning …' : 'Go straight to the summary' }}
        </button>
        <NuxtLink v-else-if="shell.mayPlan" class="act plain" :to="`/fill/${line.id}`"
          >Choose a source</NuxtLink
        >
        <span v-else class="soft small">you can look but not plan</span>
      </template>
      <span class="small links">
        <button
          v-if="shell?.suggestion && mayGoStepwise"
          class="link"
          type="button"
          :disabled="busy"
          @click="$emit('plan', shell.suggestion.course.id)"
        >
          Go step by step
        </button>
        <NuxtLink v-if="isOpen && shell?.lastRun" :to="`/courses/${line.id}#bring-more`">Bring more</NuxtLink>
        <NuxtLink v-if="isOpen" :to="`/fill/${line.id}`">See other ways</NuxtLink>
        <button
          class="link"
          type="button"
          :aria-pressed="line.pinned"
          :aria-label="`${line.pinned ? 'Unpin' : 'Pin'} ${name}`"
          @click="$emit('prefer', { pinned: !line.pinned })"
        >
          {{ line.pinned ? 'Unpin' : 'Pin' }}
        </button>
        <button
          class="link"
          type="button"
          :aria-label="line.hidden ? `Put ${name} back on my list` : `Take ${name} off my list`"
          @click="$emit('prefer', { hidden: !line.hidden })"
        >
          {{ line.hidden ? 'Put it back on my list' : 'Take it off my list' }}
        </button>
      </span>
    </div>
  </article>
</template>

<style scoped>
.shell {
  display: grid;
  grid-template-columns: minmax(0, 1.2fr) minmax(0, 1fr) 330px;
  gap: 0 24px;
  padding: 10px 10px 8px;
  min-height: 88px;
  border-bottom: 1px solid var(--rule);
  border-left: 3px solid transparent;
  align-items: start;
}
.shell.current {
  border-left-color: var(--tide);
  background: color-mix(in srgb, var(--tide-wash) 45%, transparent);
}
.cell {
  min-width: 0;
}
h3 {
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
h3 a {
  color: var(--ink);
  text-decoration: none;
}
h3 a:hover {
  text-decoration: underline;
}
h3 em,
h3 span {
  margin-left: 8px;
  font: italic 400 13px var(--sans);
}
.line {
  margin: 2px 0 0;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.changed {
  color: var(--brass-text);
}
b {
  font-weight: 600;
}
.acts {
  display: grid;
  gap: 6px;
  justify-items: end;
}
.links {
  display: flex;
  gap: 12px;
  white-space: nowrap;
}
@media (max-width: 900px) {
  .shell {
    grid-template-columns: minmax(0, 1fr);
    row-gap: 4px;
  }
  h3,
  .line {
    white-space: normal;
  }
  .acts {
    justify-items: start;
  }
  .links {
    flex-wrap: wrap;
  }
}
</style>
