<script setup lang="ts">
import type { SectionsReply } from '~~/shared/api/sections'
import LeavingList from '~/ui/LeavingList.vue'

/** Sections that show this content, and those that could: each is linked or unlinked here, and what goes is listed first. */
const props = defineProps<{ id: string; mayEdit: boolean }>()
const emit = defineEmits<{ changed: [] }>()
const { data, refresh } = useLoaded(() => api.get<SectionsReply>(`/courses/${props.id}/sections`))
onMounted(refresh)
const isContent = computed(() => data.value?.content.id === props.id)
/** The section that one is asked about. */
const asking = ref<string | null>(null)
const act = useAction(async (work: () => Promise<SectionsReply>) => {
  data.value = await work()
  asking.value = null
  emit('changed')
})
type Could = SectionsReply['could'][number]
const link = ({ course, leaves }: Could): Promise<boolean> =>
  act.run(() =>
    api.put<SectionsReply>(`/courses/${props.id}/sections/${course.id}`, {
      agreed: leaves.map(({ lineage }) => lineage),
    }),
  )
const unlink = (section: string): Promise<boolean> =>
  act.run(() => api.delete<SectionsReply>(`/courses/${present(data.value).content.id}/sections/${section}`))
async function lookAgain(): Promise<void> {
  act.problem.value = null
  await refresh()
}
const linkText = ({ course, leaves }: Could): string =>
  leaves.length
    ? `Remove ${counted(leaves.length, 'thing')} and link ${codeText(course)}`
    : `Link ${codeText(course)}`
</script>

<template>
  <section v-if="data && (data.shown.length || (data.could.length && mayEdit))">
    <h2>Sections of this content</h2>
    <p v-for="{ course, mayUnlink } in data.shown" :key="course.id" class="small">
      <NuxtLink v-if="course.id !== id" :to="`/courses/${course.id}`">{{ codeText(course) }}</NuxtLink>
      <template v-else>{{ codeText(course) }}</template>
      {{ ' ' }}<span class="soft">{{ meetingText(course.meetings) || 'no meeting times' }}</span>
      shows it, with dates of its own.
      <button v-if="mayUnlink && asking !== course.id" class="link" type="button" @click="asking = course.id">
        Unlink {{ codeText(course) }} …
      </button>
      <template v-if="asking === course.id">
        <br />It keeps a copy of all it shows, with its dates. From then on, an edit in
        {{ codeText(data.content) }} no longer reaches it.
        <span class="ways">
          <button class="act plain" type="button" :disabled="act.busy.value" @click="unlink(course.id)">
            Unlink {{ codeText(course) }}
          </button>
          <button class="link" type="button" @click="asking = null">Leave it linked</button>
        </span>
      </template>
    </p>
    <template v-if="isContent && mayEdit">
      <div v-for="one in data.could" :key="one.course.id" class="small">
        <button
          v-if="asking !== one.course.id"
          class="link"
          type="button"
          :disabled="one.faults.length > 0"
          @click="asking = one.course.id"
        >
          Show this content in {{ codeText(one.course) }} too …
        </button>
        <p v-if="one.faults.length" class="settle">It cannot: {{ one.faults.join(', ') }}.</p>
        <div v-if="asking === one.course.id" class="note">
          <p>
            One content for both: an edit reaches both. Each keeps its own roster and its own dates. Teaching
            staff could see students of the other sections.
          </p>
          <LeavingList :name="codeText(one.course)" :leaves="one.leaves" keeps-dates />
          <span class="ways">
            <button class="act plain" type="button" :disabled="act.busy.value" @click="link(one)">
              {{ linkText(one) }}
            </button>
            <button class="link" type="button" @click="asking = null">Leave it as it is</button>
          </span>
        </div>
      </div>
    </template>
    <ProblemNote v-if="act.problem.value" :problem="act.problem.value">
      <button class="act plain" type="button" @click="lookAgain">Look again</button>
    </ProblemNote>
  </section>
</template>

<style scoped>
p {
  margin: 4px 0;
}
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: center;
  margin-top: 6px;
}
</style>
