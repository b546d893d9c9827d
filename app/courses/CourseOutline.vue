<script setup lang="ts">
import { dateFields } from '~~/core/course/dates'
import type { CourseReply } from '~~/shared/api/courses'

/** Units and items of a course in their order, with points and dates; an item opens. */
const props = defineProps<{ course: CourseReply }>()
const years = computed(() => yearsOfClasses(props.course.course.term))
const came = computed(() => new Set(props.course.lastRun?.came ?? []))
const hasPeriods = computed(() => props.course.nodes.some(node => node.gradingPeriod !== null))
const wasThere = (lineage: string): boolean => props.course.lastRun !== null && !came.value.has(lineage)
</script>

<template>
  <table class="ruled">
    <thead>
      <tr>
        <th scope="col">Unit or item</th>
        <th scope="col" class="number">Points</th>
        <th v-if="hasPeriods" scope="col">Grading period</th>
        <th v-for="field in dateFields" :key="field" scope="col">{{ fieldName(field) }}</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="node in course.nodes" :key="node.lineage" :class="node.type" :data-item="node.title">
        <td v-if="node.type === 'unit'" :colspan="(hasPeriods ? 3 : 2) + dateFields.length">
          <bdi>{{ node.title }}</bdi>
          <span v-if="node.opens" class="opens" data-field="opens" :data-at="node.opens">
            opens {{ momentText(node.opens, years) }}
          </span>
          <span v-if="node.state !== 'visible'" class="opens">{{ node.state }}</span>
        </td>
        <template v-else>
          <td :style="{ paddingLeft: `${8 + 18 * node.depth}px` }">
            <span class="title">
              <KindMark :kind="node.kind" :exam="node.exam" />
              <b v-if="node.kind === 'heading'"
                ><bdi>{{ node.title }}</bdi></b
              >
              <NuxtLink v-else :to="`/courses/${course.course.id}/items/${node.lineage}`">
                <bdi>{{ node.title }}</bdi>
              </NuxtLink>
              <span v-if="node.holds" class="soft small">an empty place</span>
              <span v-if="node.fixed" class="soft small">fixed by the institution</span>
              <span v-if="node.state !== 'visible' && !node.holds" class="soft small">{{ node.state }}</span>
              <span v-if="wasThere(node.lineage)" class="soft small">was here before the run</span>
            </span>
          </td>
          <td class="number">{{ node.points === null ? '' : pointsText(node.points) }}</td>
          <td v-if="hasPeriods" class="small soft">
            <bdi>{{ node.gradingPeriod }}</bdi>
          </td>
          <td
            v-for="field in dateFields"
            :key="field"
            class="date"
            :data-field="field"
            :data-at="node[field] ?? ''"
          >
            <template v-if="node[field]">
              {{ dayText(node[field], years) }} <span class="soft">{{ node[field].slice(11) }}</span>
            </template>
          </td>
        </template>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.unit td {
  font: 600 16.5px var(--serif);
  padding-top: 18px;
  border-bottom-color: var(--rule-middle);
}
.opens {
  font: 400 13px var(--sans);
  color: var(--ink-soft);
  margin-left: 12px;
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
b {
  font-weight: 600;
}
</style>
