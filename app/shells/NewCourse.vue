<script setup lang="ts">
import { watchDebounced } from '@vueuse/core'
import type { GuardReply } from '~~/shared/api/shells'

/** A course that no registrar knows. Says first which shells with a roster it would stand beside. */
const [term, code, section, title] = [ref(''), ref(''), ref(''), ref('')]
const asked = computed(() => ({
  term: term.value,
  code: code.value,
  section: section.value,
  title: title.value,
}))
const { data, problem, refresh } = useLoaded(() =>
  api.get<GuardReply>(`/courses/guard?${new URLSearchParams(asked.value)}`),
)
watchDebounced([term, code, section, title], () => void refresh(), { debounce: 200 })
onMounted(refresh)
watch(data, found => {
  if (!term.value) term.value = found?.terms[0]?.code ?? ''
})
const {
  run: make,
  busy,
  problem: actProblem,
} = useAction(async () => {
  const { id } = await api.post<{ id: string }>('/courses', asked.value)
  await navigateTo(`/fill/${id}`)
})
const fault = (field: string): string | undefined =>
  actProblem.value?.errors.find(error => error.field === field)?.message ??
  data.value?.faults.find(entry => entry.field === field)?.message
const shells = computed(() => (code.value.trim() ? (data.value?.shells ?? []) : []))
</script>

<template>
  <div class="beside">
    <form @submit.prevent="make">
      <ProblemNote v-if="problem" :problem="problem" @retry="refresh" />
      <FormField label="Term" :fault="fault('term')">
        <TermSelect v-model="term" :terms="data?.terms ?? []" label="Term" />
      </FormField>
      <div class="two">
        <FormField label="Course code" :fault="fault('code')">
          <ElInput v-model="code" placeholder="as HYD 240" maxlength="60" />
        </FormField>
        <FormField label="Section">
          <ElInput v-model="section" maxlength="20" />
        </FormField>
      </div>
      <FormField label="Title that students see" :fault="fault('title')">
        <ElInput v-model="title" maxlength="200" />
        <span v-if="fault('label')" class="settle small">{{ fault('label') }}</span>
      </FormField>
      <div v-if="shells.length" class="note brass guard" role="status">
        <h2>The registrar has {{ shells.length === 1 ? 'a shell' : 'shells' }} for this class</h2>
        <p class="small">
          A fresh course has no students on its roster. Roll into the registrar’s shell instead:
        </p>
        <p v-for="shell in shells" :key="shell.id">
          <NuxtLink :to="`/fill/${shell.id}`"
            >{{ codeOf(shell) }} <bdi>{{ shell.title }}</bdi></NuxtLink
          >
          <span class="soft small"
            >{{ meetingText(shell.meetings) }} · {{ counted(shell.students, 'student') }}</span
          >
        </p>
      </div>
      <ActionProblem :problem="actProblem?.errors.length ? null : actProblem" />
      <button
        class="act"
        :class="{ plain: shells.length }"
        type="submit"
        :disabled="busy || !term || !code.trim() || !title.trim()"
      >
        {{ shells.length ? 'Make a course without students anyway' : 'Make the course' }}
      </button>
    </form>
    <aside>
      <div class="note">
        <h2>Without a registrar</h2>
        <p class="small">
          You become its instructor. Its roster is empty, and the registrar will not add anyone. This suits a
          draft, a workshop or a course outside the timetable.
        </p>
        <p class="small">
          An empty course takes one row in the database. Filling it from another stores no text or file a
          second time.
        </p>
      </div>
    </aside>
  </div>
</template>

<style scoped>
form {
  display: grid;
  gap: 14px;
  max-width: 520px;
  justify-items: start;
}
form > label {
  width: 100%;
}
.two {
  display: grid;
  grid-template-columns: 1fr 110px;
  gap: 14px;
  width: 100%;
}
.guard {
  width: 100%;
}
.guard p {
  margin: 0 0 4px;
}
.act {
  white-space: normal;
}
</style>
