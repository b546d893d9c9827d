<script setup lang="ts">
import { batchStateWords, pairCountsText } from '~/batches/words'
import MakeBatch from '~/batches/MakeBatch.vue'
import type { BatchesReply } from '~~/shared/api/batches'

/** For the academic office: courses that are rolled together. */
useHead({ title: 'Batches · Northtide' })
const { data, problem, refresh } = useLoaded(() => api.get<BatchesReply>('/batches'))
onMounted(refresh)
useRefreshWhile(
  computed(() => data.value?.batches.some(({ state }) => state === 'trying' || state === 'running') ?? false),
  refresh,
  1500,
)
</script>

<template>
  <main class="page">
    <header>
      <h1>Batches</h1>
      <p class="soft">
        Many shells filled with one set of decisions. First a dry run tries every pair and writes nothing.
        Then you see what it would do, and run it.
      </p>
    </header>
    <ProblemNote v-if="problem" :problem="problem" @retry="refresh" />
    <LoadingLines v-else-if="!data" what="Fetching the batches …" />
    <div v-else class="beside">
      <div>
        <p v-if="!data.batches.length" class="soft">No batch has been made yet.</p>
        <table v-else class="ruled">
          <thead>
            <tr>
              <th scope="col">Batch</th>
              <th scope="col">Shells of</th>
              <th scope="col">State</th>
              <th scope="col">Pairs</th>
              <th scope="col">Made</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="batch in data.batches" :key="batch.id">
              <td>
                <NuxtLink :to="`/batches/${batch.id}`"
                  ><bdi>{{ batch.name }}</bdi></NuxtLink
                >
              </td>
              <td>{{ batch.term.name }}</td>
              <td :class="{ settle: batch.state === 'stopped', kept: batch.state === 'done' }">
                {{ batchStateWords[batch.state] }}
              </td>
              <td>{{ pairCountsText(batch) }}</td>
              <td class="soft">{{ instantText(batch.madeAt) }}, {{ batch.by }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <aside><MakeBatch /></aside>
    </div>
  </main>
</template>

<style scoped>
.beside {
  --aside: 320px;
}
</style>
