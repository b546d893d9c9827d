<script setup lang="ts">
import type { CourseReply } from '~~/shared/api/courses'

const route = useRoute()
const id = computed(() => String(route.params.id))
const { data, problem, refresh } = useLoaded(() => api.get<CourseReply>(`/courses/${id.value}`))
watch(id, () => void refresh(), { immediate: true })
useHead({ title: () => data.value ? `${codeText(data.value.course)} · Northtide` : 'Course · Northtide' })
const added = computed(() => new Set(data.value?.lastRun?.added ?? []))
const weights = computed(() => data.value?.categories.reduce((sum, category) => sum + (category.weight ?? 0), 0) ?? 0)
const units = computed(() => data.value?.nodes.filter(node => node.type === 'unit').length ?? 0)
</script>

<template>
  <main class="page">
    <ProblemNote v-if="problem" :problem="problem" @retry="refresh"><NuxtLink v-if="problem.status === 404" to="/">Back to the shells</NuxtLink></ProblemNote>
    <LoadingLines v-else-if="!data" what="Fetching the course …" />
    <template v-else>
      <header>
        <p class="caps">{{ codeText(data.course) }} · {{ courseFacts(data.course) }}</p>
        <h1>{{ data.course.title }}</h1>
        <p class="soft">{{ data.course.instructors.join(', ') || 'nobody teaches it yet' }} · {{ counted(data.course.students, 'student') }} on the roster · {{ counted(units, 'unit') }}, {{ counted(data.course.items, 'item') }} · deadlines as <a :href="`/api/v1/courses/${id}/deadlines.ics`">iCalendar</a>, dates as <a :href="`/api/v1/courses/${id}/dates.csv`">CSV</a> or <a :href="`/api/v1/courses/${id}/dates.xlsx`">XLSX</a></p>
        <p v-if="data.package" class="soft small">Read from <a :href="`/api/v1/courses/${id}/package`">{{ data.package.name }}</a>, {{ sizeText(data.package.size) }}, kept here as it came.</p>
      </header>
      <div class="beside">
        <div>
          <table v-if="data.nodes.length" class="ruled outline">
            <thead><tr><th scope="col">Unit or item</th><th scope="col" class="number">Points</th><th scope="col">Opens</th><th scope="col">Due</th><th scope="col">Closes</th></tr></thead>
            <tbody>
              <tr v-for="node in data.nodes" :key="node.lineage" :class="node.type" :data-item="node.title">
                <td v-if="node.type === 'unit'" colspan="5">{{ node.title }}</td>
                <template v-else>
                  <td :style="{ paddingLeft: `${8 + 18 * node.depth}px` }">
                    <span class="title"><KindMark :kind="node.kind!" :exam="node.exam" /><b v-if="node.kind === 'heading'">{{ node.title }}</b><NuxtLink v-else :to="`/courses/${id}/items/${node.lineage}`">{{ node.title }}</NuxtLink><span v-if="data.lastRun && !added.has(node.lineage)" class="soft small">was here before the run</span></span>
                  </td>
                  <td class="number">{{ node.points === null ? '' : pointsText(node.points) }}</td>
                  <td v-for="slot in (['opens', 'due', 'closes'] as const)" :key="slot" class="date" :data-slot="slot" :data-at="node[slot] ?? ''"><template v-if="node[slot]">{{ dayText(node[slot]!) }} <span class="soft">{{ node[slot]!.slice(11) }}</span></template></td>
                </template>
              </tr>
            </tbody>
          </table>
          <div v-else class="note empty"><h3>This shell is empty</h3><p>Nothing has been rolled into it yet.</p><NuxtLink class="act" to="/">Find what could fill it</NuxtLink></div>
        </div>
        <aside>
          <div v-if="data.lastRun" class="note">
            <h3>Rolled {{ instantText(data.lastRun.at, data.course.term.timeZone) }}</h3>
            <p class="small">from {{ codeText(data.lastRun.source) }}, {{ data.lastRun.source.term.name }}, by {{ data.lastRun.by }}.</p>
            <p class="small"><NuxtLink :to="`/runs/${data.lastRun.id}`">Read the record</NuxtLink> · <NuxtLink :to="`/courses/${data.lastRun.source.id}`">Open the old course</NuxtLink></p>
          </div>
          <template v-if="data.categories.length">
            <h2>Grade categories</h2>
            <table class="ruled"><tbody><tr v-for="category in data.categories" :key="category.lineage"><td>{{ category.title }}</td><td class="number">{{ category.weight === null ? '' : `${pointsText(category.weight)} %` }}</td></tr><tr><td><b>Together</b></td><td class="number"><b>{{ pointsText(weights) }} %</b></td></tr></tbody></table>
          </template>
          <template v-if="data.nodes.length">
            <h2>Students’ work here</h2>
            <p class="small">{{ counted(data.studentData.submissions, 'submission') }}, {{ counted(data.studentData.grades, 'grade') }}, {{ counted(data.studentData.attempts, 'quiz attempt') }}, {{ counted(data.studentData.posts, 'post') }}, {{ counted(data.studentData.extensions, 'extension') }}.</p>
          </template>
        </aside>
      </div>
    </template>
  </main>
</template>

<style scoped>
.outline .unit td { font: 600 16.5px var(--serif); padding-top: 18px; border-bottom-color: #c4b99b; }
.title { display: flex; gap: 8px; align-items: center; }
.title a { color: var(--ink); text-decoration-color: var(--rule); }
.title a:hover { color: var(--tide-text); }
.date { white-space: nowrap; }
.number { text-align: right; padding-right: 18px; }
aside h2 { margin: 20px 0 8px; }
aside .number { padding-right: 0; }
.empty { max-width: 420px; }
b { font-weight: 600; }
</style>
