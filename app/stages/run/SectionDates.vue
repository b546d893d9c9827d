<script setup lang="ts">
import type { EffectReply, PlanReply } from '~~/shared/api/plans'
import { fieldName } from '~/composables/words'
import LeavingList from '~/ui/LeavingList.vue'

/** What each section gets that shows this content, before anything is written. */
const props = defineProps<{ plan: PlanReply; sections: EffectReply['sections'] }>()
const shownAtMost = 6
const years = computed(() => yearsOfClasses(props.plan.target.course.term))
const shell = computed(() => codeText(props.plan.target.course))
const lines = computed(() =>
  props.sections.flatMap(section => {
    const found = props.plan.sections.find(entry => entry.course.id === section.course)
    if (!found) return []
    const { course } = found
    const differ = section.differences.length
    const same = section.byMeetings
      ? `the same dates as ${shell.value}: it meets when the rule looks at no other day`
      : `the same dates as ${shell.value}: the rule counts days and weeks, not meetings`
    return [
      {
        id: course.id,
        name: codeText(course),
        meets: meetingText(course.meetings) || 'no meeting times',
        text: [
          differ === 0 ? same : `${counted(differ, 'date')} of its own`,
          section.dates.settle > 0 && `${section.dates.settle} to settle`,
        ]
          .filter(Boolean)
          .join(', '),
        rows: section.differences.slice(0, shownAtMost),
        more: differ > shownAtMost ? counted(differ - shownAtMost, 'more date', 'more dates') : null,
        all: section.differences,
        leaves: section.leaves,
      },
    ]
  }),
)
const whole = ref<Set<string>>(new Set())
const at = (moment: string | null): string => (moment ? momentText(moment, years.value) : 'no date')
</script>

<template>
  <section class="sections">
    <h3>Sections that show this content</h3>
    <div v-for="line in lines" :key="line.id" class="one">
      <p>
        <b>{{ line.name }}</b> <span class="soft">{{ line.meets }}</span> · {{ line.text }}
      </p>
      <LeavingList :name="line.name" :leaves="line.leaves" open />
      <table v-if="line.rows.length" class="ruled">
        <thead>
          <tr>
            <th scope="col">Item</th>
            <th scope="col">Date</th>
            <th scope="col">{{ shell }}</th>
            <th scope="col">{{ line.name }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in whole.has(line.id) ? line.all : line.rows" :key="row.lineage + row.field">
            <td>
              <bdi>{{ row.title }}</bdi>
            </td>
            <td>{{ fieldName(row.field) }}</td>
            <td class="soft">{{ at(row.shell) }}</td>
            <td>{{ at(row.section) }}</td>
          </tr>
        </tbody>
      </table>
      <button
        v-if="line.more && !whole.has(line.id)"
        class="link small"
        type="button"
        @click="whole = new Set([...whole, line.id])"
      >
        Show {{ line.more }} of {{ line.name }}
      </button>
    </div>
  </section>
</template>

<style scoped>
.sections {
  margin-top: 22px;
  max-width: 860px;
}
.one {
  padding: 6px 0 10px;
}
.one p {
  margin: 0 0 4px;
}
b {
  font-weight: 600;
}
</style>
