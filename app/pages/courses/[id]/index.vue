<script setup lang="ts">
import type { CourseReply } from '~~/shared/api/courses'
import CourseAside from '~/courses/CourseAside.vue'
import CourseFacts from '~/courses/CourseFacts.vue'
import CourseHead from '~/courses/CourseHead.vue'
import CourseOutline from '~/courses/CourseOutline.vue'
import ShellLedger from '~/courses/ledger/ShellLedger.vue'

const route = useRoute()
const id = computed(() => String(route.params.id))
const { data, problem, refresh } = useLoaded(() => api.get<CourseReply>(`/courses/${id.value}`))
watch(id, () => void refresh(), { immediate: true })
/** The shell that one looks for something to fill it with. */
const forShell = computed(() => (typeof route.query.for === 'string' ? route.query.for : null))
useHead({ title: () => (data.value ? `${codeText(data.value.course)} · Northtide` : 'Course · Northtide') })
useRefreshWhile(
  computed(() => Boolean(data.value?.writing)),
  refresh,
  1500,
)
/** Who may change it goes on in its ledger, unless one wants to read. */
const mayUseLedger = computed(() => Boolean(data.value?.may.ledger && data.value.nodes.length))
const isLedger = computed(() => mayUseLedger.value && route.query.view !== 'read' && !forShell.value)
const shown = computed({
  get: () => present(data.value),
  set: (next: CourseReply) => {
    data.value = next
  },
})
const refetch = async (): Promise<void> => {
  await refresh()
}
</script>

<template>
  <ShellLedger v-if="data && isLedger" :key="id" v-model="shown" :refresh="refetch">
    <template #head>
      <CourseHead :course="data" compact @changed="refresh">
        <nav class="choice-line" aria-label="How it is shown">
          <NuxtLink class="on" :to="{ query: {} }" aria-current="true">Ledger</NuxtLink>
          <NuxtLink :to="{ query: { view: 'read' } }">Contents, to read</NuxtLink>
        </nav>
      </CourseHead>
    </template>
    <template #side>
      <CourseFacts :course="data" @changed="refresh" />
      <CourseAside :course="data" :for-shell="forShell" @changed="refresh" />
    </template>
  </ShellLedger>
  <main v-else class="page">
    <ProblemNote v-if="problem" :problem="problem" @retry="refresh">
      <NuxtLink v-if="problem.status === 404" to="/">Back to the shells</NuxtLink>
    </ProblemNote>
    <LoadingLines v-else-if="!data" what="Fetching the course …" />
    <template v-else>
      <CourseHead :course="data" @changed="refresh">
        <nav v-if="mayUseLedger" class="choice-line" aria-label="How it is shown">
          <NuxtLink :to="{ query: {} }">Ledger</NuxtLink>
          <NuxtLink class="on" :to="{ query: { view: 'read' } }" aria-current="true"
            >Contents, to read</NuxtLink
          >
        </nav>
      </CourseHead>
      <div class="beside">
        <div>
          <CourseOutline v-if="data.nodes.length" :course="data" />
          <div v-else class="note empty">
            <h2>This shell is empty</h2>
            <p>Nothing has been rolled into it yet.</p>
            <NuxtLink class="act" :to="`/fill/${id}`">Find what could fill it</NuxtLink>
          </div>
        </div>
        <aside><CourseAside :course="data" :for-shell="forShell" @changed="refresh" /></aside>
      </div>
    </template>
  </main>
</template>

<style scoped>
.empty {
  max-width: 420px;
}
</style>
