<script setup lang="ts">
import { itemKinds } from '~~/core/course/model'
import type { CourseReply } from '~~/shared/api/courses'
import CourseShares from '~/courses/CourseShares.vue'
import CourseStaff from '~/courses/CourseStaff.vue'

const route = useRoute()
const id = computed(() => String(route.params.id))
const { data, problem, refresh } = useLoaded(() => api.get<CourseReply>(`/courses/${id.value}`))
watch(id, () => void refresh(), { immediate: true })
useHead({ title: () => (data.value ? `${codeText(data.value.course)} · Northtide` : 'Course · Northtide') })
const added = computed(() => new Set(data.value?.lastRun?.added ?? []))
const weights = computed(
  () => data.value?.categories.reduce((sum, category) => sum + (category.weight ?? 0), 0) ?? 0,
)
const kinds = computed(() => itemKinds.filter(kind => data.value?.nodes.some(node => node.kind === kind)))
const works = computed(() => data.value !== null && data.value.course.role !== 'shared')
const label = ref<string | null>(null)
async function mark(marks: { pinned?: boolean; hidden?: boolean; label?: string | null }): Promise<void> {
  await api.put(`/courses/${id.value}/mark`, marks)
  label.value = null
  await refresh()
}
const origins = {
  registrar: '',
  hand: 'made by hand',
  awaited: 'the place of a shell that is still to come',
  template: 'a template',
  snapshot: 'a snapshot, kept as it was',
}
const windows = computed(() => {
  const is = data.value?.course.windows
  const days = (from: string | null, to: string | null): string =>
    `${from ? dayText(from) : 'any day'} to ${to ? `${dayText(to)} ${to.slice(0, 4)}` : 'no end'}`
  return [
    is && (is.enrolFrom || is.enrolTo) && `Students may enrol ${days(is.enrolFrom, is.enrolTo)}.`,
    is && (is.openFrom || is.openTo) && `They may enter ${days(is.openFrom, is.openTo)}.`,
  ]
    .filter(Boolean)
    .join(' ')
})
const units = computed(() => data.value?.nodes.filter(node => node.type === 'unit').length ?? 0)
</script>

<template>
  <main class="page">
    <ProblemNote v-if="problem" :problem="problem" @retry="refresh"
      ><NuxtLink v-if="problem.status === 404" to="/">Back to the shells</NuxtLink></ProblemNote
    >
    <LoadingLines v-else-if="!data" what="Fetching the course …" />
    <template v-else>
      <header>
        <p class="caps">
          {{ codeText(data.course) }} · {{ courseFacts(data.course)
          }}{{ origins[data.course.origin] ? ` · ${origins[data.course.origin]}` : ''
          }}{{ data.course.role === 'shared' ? ' · shared with you, to take from' : '' }}
        </p>
        <h1>
          {{ data.course.title }}<span v-if="data.course.label" class="label">{{ data.course.label }}</span>
        </h1>
        <p class="soft">
          {{ data.course.instructors.join(', ') || 'nobody teaches it yet' }} ·
          {{ works ? `${counted(data.course.students, 'student')} on the roster · ` : ''
          }}{{ counted(units, 'unit') }}, {{ counted(data.course.items, 'item')
          }}<template v-if="works">
            · deadlines as <a :href="`/api/v1/courses/${id}/deadlines.ics`">iCalendar</a>, dates as
            <a :href="`/api/v1/courses/${id}/dates.csv`">CSV</a> or
            <a :href="`/api/v1/courses/${id}/dates.xlsx`">XLSX</a></template
          >
        </p>
        <p v-if="data.course.sharesWith" class="kept">
          It shows the content of
          <NuxtLink :to="`/courses/${data.course.sharesWith}`">another section</NuxtLink>, with dates of its
          own.
        </p>
        <p v-if="windows" class="soft">{{ windows }}</p>
        <p v-if="data.course.missing" class="settle">
          The registrar does not list this course any more. It is kept here.
        </p>
        <div v-if="works" class="small own">
          <template v-if="label === null"
            ><span v-if="data.mark.label" class="soft">You call it “{{ data.mark.label }}”.</span
            ><button class="link" type="button" @click="label = data.mark.label ?? ''">
              {{ data.mark.label ? 'Change' : 'Give it a label of your own' }}
            </button></template
          >
          <form v-else @submit.prevent="mark({ label })">
            <ElInput v-model="label" maxlength="200" aria-label="Your own label" /><button
              class="link"
              type="submit"
            >
              Keep it
            </button>
          </form>
          <button class="link" type="button" @click="mark({ pinned: !data.mark.pinned })">
            {{ data.mark.pinned ? 'Unpin' : 'Pin' }}</button><button
            class="link"
            type="button"
            @click="mark({ hidden: !data.mark.hidden })"
          >
            {{ data.mark.hidden ? 'Show it again' : 'Hide' }}
          </button>
        </div>
        <p v-if="data.package" class="soft small">
          Read from <a :href="`/api/v1/courses/${id}/package`">{{ data.package.name }}</a>,
          {{ sizeText(data.package.size) }}, kept here as it came.
        </p>
      </header>
      <div class="beside">
        <div>
          <table v-if="data.nodes.length" class="ruled outline">
            <thead>
              <tr>
                <th scope="col">Unit or item</th>
                <th scope="col" class="number">Points</th>
                <th scope="col">Opens</th>
                <th scope="col">Due</th>
                <th scope="col">Closes</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="node in data.nodes" :key="node.lineage" :class="node.type" :data-item="node.title">
                <td v-if="node.type === 'unit'" colspan="5">{{ node.title }}</td>
                <template v-else>
                  <td :style="{ paddingLeft: `${8 + 18 * node.depth}px` }">
                    <span class="title"
                      ><KindMark :kind="node.kind!" :exam="node.exam" /><b v-if="node.kind === 'heading'">{{
                        node.title
                      }}</b
                      ><NuxtLink v-else :to="`/courses/${id}/items/${node.lineage}`">{{
                        node.title
                      }}</NuxtLink
                      ><span v-if="data.lastRun && !added.has(node.lineage)" class="soft small"
                        >was here before the run</span
                      ></span
                    >
                  </td>
                  <td class="number">{{ node.points === null ? '' : pointsText(node.points) }}</td>
                  <td
                    v-for="slot in ['opens', 'due', 'closes'] as const"
                    :key="slot"
                    class="date"
                    :data-slot="slot"
                    :data-at="node[slot] ?? ''"
                  >
                    <template v-if="node[slot]"
                      >{{ dayText(node[slot]!) }}
                      <span class="soft">{{ node[slot]!.slice(11) }}</span></template
                    >
                  </td>
                </template>
              </tr>
            </tbody>
          </table>
          <div v-else class="note empty">
            <h3>This shell is empty</h3>
            <p>Nothing has been rolled into it yet.</p>
            <NuxtLink class="act" :to="`/fill/${id}`">Find what could fill it</NuxtLink>
          </div>
        </div>
        <aside>
          <div v-if="data.lastRun" class="note">
            <h3>Rolled {{ instantText(data.lastRun.at, data.course.term.timeZone) }}</h3>
            <p class="small">
              from {{ codeText(data.lastRun.source) }}, {{ data.lastRun.source.term.name }}, by
              {{ data.lastRun.by }}.
            </p>
            <p class="small">
              <NuxtLink :to="`/runs/${data.lastRun.id}`">Read the record</NuxtLink> ·
              <NuxtLink :to="`/courses/${data.lastRun.source.id}`">Open the old course</NuxtLink>
            </p>
          </div>
          <template v-if="data.categories.length">
            <h2>Grade categories</h2>
            <table class="ruled">
              <tbody>
                <tr v-for="category in data.categories" :key="category.lineage">
                  <td>{{ category.title }}</td>
                  <td class="number">
                    {{ category.weight === null ? '' : `${pointsText(category.weight)} %` }}
                  </td>
                </tr>
                <tr>
                  <td><b>Together</b></td>
                  <td class="number">
                    <b>{{ pointsText(weights) }} %</b>
                  </td>
                </tr>
              </tbody>
            </table>
          </template>
          <template v-if="data.nodes.length && works">
            <h2>Students’ work here</h2>
            <p class="small">
              {{ counted(data.studentData.submissions, 'submission') }},
              {{ counted(data.studentData.grades, 'grade') }},
              {{ counted(data.studentData.attempts, 'quiz attempt') }},
              {{ counted(data.studentData.posts, 'post') }},
              {{ counted(data.studentData.extensions, 'extension') }}.
            </p>
          </template>
          <CourseStaff v-if="works" :id="id" :may="data.may.delegate" />
          <CourseShares v-if="data.may.share" :course="data.course" :kinds="kinds" />
        </aside>
      </div>
    </template>
  </main>
</template>

<style scoped>
.outline .unit td {
  font: 600 16.5px var(--serif);
  padding-top: 18px;
  border-bottom-color: #c4b99b;
}
.title {
  display: flex;
  gap: 8px;
  align-items: center;
}
.title a {
  color: var(--ink);
  text-decoration-color: var(--rule);
}
.title a:hover {
  color: var(--tide-text);
}
.date {
  white-space: nowrap;
}
.number {
  text-align: right;
  padding-right: 18px;
}
aside :deep(h2) {
  margin: 20px 0 8px;
}
.label {
  font: 400 16px var(--sans);
  color: var(--ink-soft);
  margin-left: 12px;
}
.own,
.own form {
  display: flex;
  gap: 14px;
  align-items: center;
}
aside .number {
  padding-right: 0;
}
.empty {
  max-width: 420px;
}
b {
  font-weight: 600;
}
</style>
