<script setup lang="ts">
import RunPage from '~/runs/RunPage.vue'
import { studentDataWords } from '~~/core/student-data/student-data'
import type { UndoReply } from '~~/shared/api/undo'

const route = useRoute()
const id = computed(() => String(route.params.id))
const { data, problem, refresh } = useLoaded(() => api.get<UndoReply>(`/runs/${id.value}/undo`))
onMounted(refresh)
const shell = computed(() => (data.value ? codeText(data.value.course) : ''))
const isUndo = computed(() => data.value?.does === 'undo')
const title = computed(() =>
  isUndo.value ? `Undo the run into ${shell.value}` : `Put back the run into ${shell.value}`,
)
useHead({ title: () => (data.value ? `${title.value} · Northtide` : 'Undo · Northtide') })
const heldText = ({ units, items }: UndoReply['now']): string =>
  units + items === 0 ? 'nothing' : `${counted(units, 'unit')} and ${counted(items, 'item')}`
const thenText = computed(() => {
  const { then } = present(data.value)
  if (!isUndo.value) return `Once the run is put back it holds ${heldText(then)}, as the run left it.`
  return `Once the run is undone it holds ${heldText(then)}, as before.`
})
const aside = ref(false)
const hasWork = computed(() => (data.value?.since.work.length ?? 0) > 0)
const may = computed(
  () => data.value?.mayRun && data.value.barred === null && (!hasWork.value || aside.value),
)
const act = useAction(async () => {
  const { fingerprint, planId } = present(data.value)
  await api.post(`/runs/${id.value}/undo`, { fingerprint, keepAside: aside.value })
  await navigateTo(`/plans/${planId}/run`)
})
async function lookAgain(): Promise<void> {
  act.problem.value = null
  aside.value = false
  await refresh()
}
const kindsText = (kinds: UndoReply['since']['work'][number]['kinds']): string =>
  kinds.map(({ kind, rows }) => counted(rows, ...studentDataWords(kind))).join(', ')
const clearedText = computed(() => {
  const { cleared, days } = present(data.value)
  if (cleared === null)
    return 'Some of what the run cleared about students is kept no longer. It does not come back.'
  if (cleared === 0) return ''
  return isUndo.value
    ? `${counted(cleared, 'record')} about students that the run cleared ${cleared === 1 ? 'comes' : 'come'} back.`
    : `What the run cleared about students is cleared again, and kept aside for ${counted(days, 'day')}.`
})
const backText = computed(() =>
  data.value?.since.edits.length === 1
    ? 'Put the run back, and it is there again.'
    : 'Put the run back, and they are there again.',
)
const historyWords = { undo: 'undone', redo: 'put back' }
</script>

<template>
  <RunPage :data="data" :problem="problem" waits="Looking what happened there since …" @retry="refresh">
    <template #above="{ data: { course } }">{{ course.term.name }} · {{ shell }}</template>
    <template #title>{{ title }}</template>
    <template #head="{ data: { now, sections } }">
      <p class="lead">{{ shell }} holds {{ heldText(now) }} now. {{ thenText }}</p>
      <p v-if="sections.length">
        {{ listText(sections) }} {{ sections.length === 1 ? 'shows' : 'show' }} this content, so what students
        see there changes as well.
      </p>
    </template>
    <template #default="{ data: undo }">
      <div v-if="undo.barred" class="note buoy" role="status">
        <h2>{{ undo.barred.title }}</h2>
        <p>{{ undo.barred.detail }}</p>
        <p v-if="undo.later">
          <NuxtLink :to="`/runs/${undo.later.id}`"
            >The record of the later run, {{ instantBeside(undo.course, undo.later.at) }} by
            {{ undo.later.by }}</NuxtLink
          >
        </p>
      </div>
      <template v-else>
        <section aria-labelledby="since-head">
          <h2 id="since-head">What happened there since</h2>
          <p v-if="!undo.since.edits.length && !hasWork" class="soft">
            Nothing. Nobody changed the course, and no student has done anything on what goes.
          </p>
          <template v-if="undo.since.edits.length">
            <p>
              {{ counted(undo.since.edits.length, 'change goes', 'changes go') }} with it.
              {{ isUndo ? backText : '' }}
            </p>
            <ul class="plain">
              <li v-for="edit in undo.since.edits" :key="edit.id">
                {{ edit.by }} {{ edit.words }}
                <span class="soft small">{{ instantBeside(undo.course, edit.at) }}</span>
              </li>
            </ul>
          </template>
          <div v-if="hasWork" class="note buoy">
            <h3>
              {{ counted(undo.since.work.length, 'item that goes has', 'items that go have') }} students’ work
            </h3>
            <ul class="plain">
              <li v-for="item in undo.since.work" :key="item.lineage">
                <b
                  ><bdi>{{ item.title }}</bdi></b
                >: {{ kindsText(item.kinds) }}
              </li>
            </ul>
            <p class="small">Of {{ undo.since.students.join(', ') }}.</p>
            <ElCheckbox v-model="aside" :disabled="!undo.mayRun">
              Keep their work aside for {{ counted(undo.days, 'day') }}. The course’s page can put it back.
            </ElCheckbox>
          </div>
        </section>
        <p v-if="clearedText">{{ clearedText }}</p>
        <p class="soft small">
          <template v-if="isUndo">
            The plan becomes a draft again: you can change it and run it once more. The old course stays as it
            is.
          </template>
          <template v-else>The plan counts as run again. The old course stays as it is.</template>
          All of it happens in one step, or nothing does.
        </p>
        <ProblemNote v-if="act.problem.value" :problem="act.problem.value">
          <button class="act plain" type="button" @click="lookAgain">Look again</button>
        </ProblemNote>
        <p class="ways">
          <button
            v-if="undo.mayRun"
            class="act"
            type="button"
            :disabled="!may || act.busy.value"
            @click="act.run()"
          >
            {{ title }}
          </button>
          <span v-else class="soft">An instructor of the course does this, or the academic office.</span>
          <NuxtLink :to="`/runs/${id}`">Back to the record</NuxtLink>
        </p>
      </template>
      <p v-if="undo.history.length" class="soft small">
        <template v-for="(each, at) in undo.history" :key="at">
          {{ at ? 'Before that' : 'This run was' }} {{ historyWords[each.kind] }}
          {{ instantBeside(undo.course, each.at) }} by {{ each.by }}.
        </template>
      </p>
    </template>
  </RunPage>
</template>

<style scoped>
.lead {
  max-width: 62ch;
  font-size: 15px;
}
.note {
  max-width: 720px;
  margin: 12px 0;
}
.plain {
  list-style: none;
  margin: 6px 0;
}
.ways {
  display: flex;
  gap: 22px;
  align-items: center;
  margin: 16px 0;
}
.note :deep(.el-checkbox) {
  height: auto;
}
.note :deep(.el-checkbox__label) {
  white-space: normal;
}
</style>
