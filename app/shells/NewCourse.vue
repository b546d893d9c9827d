<script setup lang="ts">
import { watchDebounced } from '@vueuse/core'
import type { GuardReply } from '~~/shared/api/shells'
import type { ApiProblem } from '~/composables/api'

/** A course that no registrar knows. Says first which shells with a roster it would stand beside. */
const [term, code, section, title] = [ref(''), ref(''), ref(''), ref('')]
const { data, problem, refresh } = useLoaded(() =>
  api.get<GuardReply>(
    `/courses/guard?${new URLSearchParams({ term: term.value, code: code.value, section: section.value, title: title.value })}`,
  ),
)
watchDebounced([term, code, section, title], () => void refresh(), { debounce: 200 })
onMounted(refresh)
watch(data, found => {
  if (!term.value) term.value = found?.terms[0]?.code ?? ''
})
const busy = ref(false)
const actProblem = shallowRef<ApiProblem | null>(null)
const fault = (field: string): string | undefined =>
  actProblem.value?.errors.find(error => error.field === field)?.message ??
  data.value?.faults.find(entry => entry.field === field)?.message
async function make(): Promise<void> {
  busy.value = true
  actProblem.value = null
  try {
    await navigateTo(
      `/fill/${(await api.post<{ id: string }>('/courses', { term: term.value, code: code.value, section: section.value, title: title.value })).id}`,
    )
  } catch (error) {
    actProblem.value = asProblem(error)
  } finally {
    busy.value = false
  }
}
const shells = computed(() => (code.value.trim() ? (data.value?.shells ?? []) : []))
</script>

<template>
  <div class="beside">
    <form @submit.prevent="make">
      <ProblemNote v-if="problem" :problem="problem" @retry="refresh" />
      <label
        >Term<ElSelect v-model="term" aria-label="Term"
          ><ElOption
            v-for="entry in data?.terms ?? []"
            :key="entry.code"
            :value="entry.code"
            :label="entry.name" /></ElSelect
        ><span v-if="fault('term')" class="fault">{{ fault('term') }}</span></label
      >
      <div class="two">
        <label
          >Course code<ElInput v-model="code" placeholder="as HYD 240" maxlength="60" /><span
            v-if="fault('code')"
            class="fault"
            >{{ fault('code') }}</span
          ></label
        ><label>Section<ElInput v-model="section" maxlength="20" /></label>
      </div>
      <label
        >Title that students see<ElInput v-model="title" maxlength="200" /><span
          v-if="fault('title')"
          class="fault"
          >{{ fault('title') }}</span
        ><span v-if="fault('label')" class="settle small">{{ fault('label') }}</span></label
      >
      <div v-if="shells.length" class="note brass guard" role="status">
        <h3>The registrar has {{ shells.length === 1 ? 'a shell' : 'shells' }} for this class</h3>
        <p class="small">
          A fresh course has no students on its roster. Roll into the registrar’s shell instead:
        </p>
        <p v-for="shell in shells" :key="shell.id">
          <NuxtLink :to="`/fill/${shell.id}`">{{ codeText(shell) }} {{ shell.title }}</NuxtLink>
          <span class="soft small"
            >{{ meetingText(shell.meetings) }} · {{ counted(shell.students, 'student') }}</span
          >
        </p>
      </div>
      <div v-if="actProblem && !actProblem.errors.length" class="note buoy" role="alert">
        <h3>{{ actProblem.title }}</h3>
        <p>{{ actProblem.detail }}</p>
      </div>
      <button
        class="act"
        :class="{ plain: shells.length }"
        type="submit"
        :disabled="busy || !term || !code.trim() || !title.trim()"
      >
        {{ shells.length ? 'Make a course without students all the same' : 'Make the course' }}
      </button>
    </form>
    <aside>
      <div class="note">
        <h3>Without a registrar</h3>
        <p class="small">
          You are its instructor; nobody is on its roster, and the registrar will not put anybody there. It is
          right for a draft, a workshop or a course outside the timetable.
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
label {
  display: grid;
  gap: 3px;
  font-size: 12.5px;
  color: var(--ink-soft);
  width: 100%;
}
.two {
  display: grid;
  grid-template-columns: 1fr 110px;
  gap: 14px;
  width: 100%;
}
.fault {
  color: var(--buoy);
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
