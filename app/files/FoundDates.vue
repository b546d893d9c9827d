<script setup lang="ts">
import type { UploadReply } from '~~/shared/api/uploads'

/** The days of a calendar; where they can be taken in, each with a box. */
type Day = NonNullable<UploadReply['report']>['events'][number]
defineProps<{ events: Day[]; left: number; choose: boolean }>()
const chosen = defineModel<Set<number>>('chosen', { required: true })
function mark(at: number, on: boolean): void {
  const next = new Set(chosen.value)
  if (on) next.add(at)
  else next.delete(at)
  chosen.value = next
}
const year = (date: string): string => `${dayText(date)} ${date.slice(0, 4)}`
</script>

<template>
  <section>
    <h2>
      Its days
      <button
        v-if="choose && events.length"
        class="link"
        type="button"
        @click="chosen = chosen.size === events.length ? new Set() : new Set(events.keys())"
      >
        {{ chosen.size === events.length ? 'Mark none' : `Mark all ${numberText(events.length)}` }}
      </button>
    </h2>
    <p v-if="!events.length" class="soft">The file holds no event that can be read.</p>
    <table v-else class="ruled">
      <thead>
        <tr>
          <th v-if="choose" scope="col"><span class="visually-hidden">Add</span></th>
          <th scope="col">Name</th>
          <th scope="col">First day</th>
          <th scope="col">Last day</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(event, at) in events" :key="at">
          <td v-if="choose" class="box">
            <ElCheckbox
              :model-value="chosen.has(at)"
              :aria-label="`Add ${event.title}`"
              @change="value => mark(at, Boolean(value))"
            />
          </td>
          <td>
            <bdi>{{ event.title }}</bdi>
          </td>
          <td class="day">{{ year(event.firstDay) }}</td>
          <td class="day">{{ event.lastDay === event.firstDay ? '' : year(event.lastDay) }}</td>
        </tr>
      </tbody>
    </table>
    <p v-if="left" class="soft">and {{ numberText(left) }} more, read and not listed here.</p>
  </section>
</template>

<style scoped>
h2 .link {
  font: 400 12.5px var(--sans);
  margin-left: 8px;
}
.box {
  width: 26px;
}
.day {
  white-space: nowrap;
  width: 150px;
}
td {
  overflow-wrap: anywhere;
}
</style>
