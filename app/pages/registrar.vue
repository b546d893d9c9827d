<script setup lang="ts">
import type { RegistrarReply } from '~~/shared/api/registrar'

useHead({ title: 'Registrar · Northtide' })
const { data, problem, refresh } = useLoaded(() => api.get<RegistrarReply>('/registrar'))
onMounted(refresh)
const latest = computed(() => data.value?.fetches[0])
const waiting = computed(() => latest.value?.state === 'waiting')
useRefreshWhile(waiting, refresh, 700)
const { run: ask, problem: actProblem } = useAction(async () => {
  await api.post('/registrar', {})
  await refresh()
})
const states = {
  waiting: 'under way …',
  new: 'brought changes',
  same: 'nothing new',
  failed: 'could not be had',
}
const lastGood = computed(() =>
  data.value?.fetches.find(entry => entry.state === 'new' || entry.state === 'same'),
)
</script>

<template>
  <main class="page">
    <header>
      <h1>Registrar</h1>
      <p class="soft">
        What the registrar’s list says about shells, rosters and meeting times, and what it changed. Nothing
        is deleted because the list leaves it out.
      </p>
    </header>
    <ProblemNote v-if="problem" :problem="problem" @retry="refresh" />
    <LoadingLines v-else-if="!data" what="Fetching what the registrar said …" />
    <div v-else-if="!data.configured" class="note">
      <h3>No registrar is set up here</h3>
      <p>
        The academic office brings rosters in as OneRoster files on the page
        <NuxtLink to="/files">Files</NuxtLink>.
      </p>
    </div>
    <div v-else class="beside">
      <div>
        <div v-if="latest?.state === 'failed'" class="note buoy failed" role="alert">
          <h3>The registrar’s list could not be read</h3>
          <p>{{ latest.problem }}</p>
          <p class="small soft">
            {{
              lastGood
                ? `This page shows the list of ${instantText(lastGood.finishedAt!)}.`
                : 'No list has been read yet.'
            }}
            Northtide checks again within {{ data.minutes }} minutes.
          </p>
        </div>
        <h2>What changed <span class="soft small">in your courses, over the last 30 days</span></h2>
        <table v-if="data.changes.length" class="ruled">
          <thead>
            <tr>
              <th scope="col">Course</th>
              <th scope="col">What</th>
              <th scope="col">When</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="change in data.changes" :key="change.id">
              <td>
                <NuxtLink :to="`/courses/${change.course.id}`">{{ codeText(change.course) }}</NuxtLink>,
                {{ change.course.term.name }}
              </td>
              <td>{{ changeText(change) }}</td>
              <td class="soft when">{{ instantText(change.at) }}</td>
            </tr>
          </tbody>
        </table>
        <p v-else class="soft">Nothing has changed.</p>
      </div>
      <aside>
        <button class="act" type="button" :disabled="waiting" @click="ask">
          {{ waiting ? 'Checking the registrar …' : 'Check the registrar now' }}
        </button>
        <p class="soft small">Northtide checks every {{ data.minutes }} minutes.</p>
        <ActionProblem :problem="actProblem" />
        <h2>Checked lately</h2>
        <ul aria-label="Checked lately">
          <li v-for="entry in data.fetches" :key="entry.id">
            <span :class="{ settle: entry.state === 'failed', kept: entry.state === 'new' }">{{
              states[entry.state]
            }}</span>
            <span class="soft small"
              >{{ instantText(entry.finishedAt ?? entry.startedAt) }}{{ entry.by ? `, ${entry.by}` : ''
              }}{{
                entry.counts.enrollments ? ` · ${numberText(entry.counts.enrollments)} enrolments` : ''
              }}</span
            >
            <p v-if="entry.problem && entry !== latest" class="small soft">{{ entry.problem }}</p>
            <details v-if="entry.findings.length" class="small">
              <summary>{{ counted(entry.findings.length, 'finding') }}</summary>
              <p v-for="finding in entry.findings.slice(0, 20)" :key="finding.where + finding.message">
                {{ finding.where }}: {{ finding.message }}
              </p>
            </details>
          </li>
        </ul>
        <p v-if="!data.fetches.length" class="soft">Not yet.</p>
      </aside>
    </div>
  </main>
</template>

<style scoped>
.beside {
  --aside: 290px;
}
.failed {
  margin-bottom: 18px;
}
.failed p {
  margin: 0 0 4px;
}
h2 {
  margin-bottom: 4px;
}
h2 .small {
  font: 400 12.5px var(--sans);
  margin-left: 8px;
}
aside {
  display: grid;
  gap: 10px;
  justify-items: start;
}
aside h2 {
  margin-top: 8px;
}
ul {
  list-style: none;
  width: 100%;
}
li {
  padding: 6px 0;
  border-bottom: 1px solid var(--rule);
}
li p {
  margin: 2px 0 0;
}
.when {
  white-space: nowrap;
}
</style>
