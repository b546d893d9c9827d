<script setup lang="ts">
import { useDropZone } from '@vueuse/core'
import type { UploadsReply } from '~~/shared/api/uploads'
import { ApiProblem } from '~/composables/api'
import { sendFile, type Sending } from '~/files/send'
import { stateWords } from '~/files/words'

useHead({ title: 'Files · Northtide' })
const { data, problem, refresh } = useLoaded(() => api.get<UploadsReply>('/uploads'))
onMounted(refresh)
const moving = computed(
  () =>
    data.value?.uploads.some(upload => ['waiting', 'reading', 'importing'].includes(upload.state)) ?? false,
)
useRefreshWhile(moving, refresh, 1000)

/** A file is looked at for the shell, if any, for which one came here. */
const route = useRoute()
const fileAddress = (id: string) => ({ path: `/files/${id}`, query: route.query })
const sending = ref<Sending[]>([])
const refused = shallowRef<{ name: string; problem: ApiProblem } | null>(null)
const tooLarge = (size: number, limit: number): ApiProblem =>
  new ApiProblem(
    413,
    'The file is too large',
    `It has ${sizeText(size)}; at most ${sizeText(limit)} are taken. Nothing was sent.`,
  )
/** Sends what was dropped or chosen. A single file is shown at once; of several, each comes to the list. */
async function send(file: File, isAlone: boolean): Promise<void> {
  refused.value = null
  if (data.value && file.size > data.value.limit) {
    refused.value = { name: file.name, problem: tooLarge(file.size, data.value.limit) }
    return
  }
  const entry: Sending = reactive(
    sendFile(file, sent => {
      entry.sent = sent
    }),
  )
  sending.value.push(entry)
  try {
    const id = await entry.done
    if (isAlone && sending.value.length === 1) await navigateTo(fileAddress(id))
  } catch (error) {
    refused.value = { name: file.name, problem: asProblem(error) }
  }
  sending.value = sending.value.filter(other => other !== entry)
  await refresh()
}
function sendAll(files: readonly File[] | null): void {
  for (const file of files ?? []) void send(file, files?.length === 1)
}
function choose(event: Event): void {
  const input = event.target
  if (!(input instanceof HTMLInputElement)) return
  sendAll([...(input.files ?? [])])
  input.value = ''
}
const page = ref<HTMLElement>()
const { isOverDropZone: isOver } = useDropZone(page, { onDrop: sendAll, multiple: true })
const dropText = computed(() => (isOver.value ? 'Let go to send it.' : 'or drop it anywhere on this page.'))
</script>

<template>
  <main ref="page" class="page" :class="{ over: isOver }">
    <header>
      <h1>Files</h1>
      <p class="soft">
        A course package, a roster bundle, a calendar or a table of dates. Northtide reads it first. Nothing
        goes into a course until you have seen what the file holds.
      </p>
    </header>
    <div class="beside">
      <div>
        <p class="way">
          <label class="act">
            Choose a file
            <input class="visually-hidden" type="file" multiple aria-label="Choose a file" @change="choose" />
          </label>
          <span>{{ dropText }}</span>
        </p>
        <p class="soft small">
          Common Cartridge 1.0 – 1.3, OneRoster 1.1, iCalendar, CSV, XLSX, and Northtide’s own JSON of a
          course or a calendar<template v-if="data">. At most {{ sizeText(data.limit) }}</template>
        </p>
        <div v-for="(entry, at) in sending" :key="at" class="sending" role="status">
          <span>{{ entry.name }}</span><progress
            :value="entry.sent"
            :max="entry.size"
            :aria-label="`Sending ${entry.name}`"
          /><span class="soft">{{ sizeText(entry.sent) }} of {{ sizeText(entry.size) }} sent</span
          ><button class="link" type="button" @click="entry.stop()">Stop</button>
        </div>
        <div v-if="refused" class="note buoy" role="alert">
          <h2>{{ refused.problem.title }}</h2>
          <p>{{ refused.name }}: {{ refused.problem.detail }}</p>
          <button class="link" type="button" @click="refused = null">Close this note</button>
        </div>
        <ProblemNote v-if="problem" :problem="problem" @retry="refresh" />
        <LoadingLines v-if="!data && !problem" what="Fetching your files …" :rows="3" />
        <table v-if="data?.uploads.length" class="ruled list">
          <thead>
            <tr>
              <th scope="col">File</th>
              <th scope="col" class="number">Size</th>
              <th scope="col">State</th>
              <th scope="col">Came</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="upload in data.uploads" :key="upload.id">
              <td>
                <NuxtLink :to="fileAddress(upload.id)">{{ upload.name }}</NuxtLink>
              </td>
              <td class="number">{{ sizeText(upload.size) }}</td>
              <td
                :class="{
                  settle: upload.state === 'read',
                  kept: upload.state === 'imported',
                  lost: ['refused', 'failed'].includes(upload.state),
                }"
              >
                {{ stateWords[upload.state] }}
              </td>
              <td class="soft">{{ instantText(upload.arrivedAt) }}</td>
            </tr>
          </tbody>
        </table>
        <p v-else-if="data && !sending.length" class="soft none">
          You have no files here. A file you bring in stays for a day, and only you see it. After that it is
          deleted unless you have used it.
        </p>
      </div>
      <aside>
        <h2>What a file becomes</h2>
        <p class="small">
          <b>A course package</b> becomes a course of its own, fills a class that holds nothing yet, or is
          compared with the course it is of. Its line items, a course JSON or a table of its items and dates
          come in with it: send them too.
        </p>
        <p class="small">
          <b>A roster bundle</b> adds people, classes and enrolments: for the academic office. Its line items
          and results go to the courses you teach.
        </p>
        <p class="small">
          <b>A table of items and dates</b>, or a course JSON, gives its dates to a course that is here.
        </p>
        <p class="small">
          <b>A calendar or a table of closures</b> adds days without classes: for the academic office.
        </p>
        <p class="small soft">No page, picture or link in a file is opened or fetched while it is read.</p>
      </aside>
    </div>
  </main>
</template>

<style scoped>
/* The page itself takes a file: as tall as the window, so that no place of it refuses one. */
main {
  min-height: 100%;
}
.over {
  background: var(--tide-wash);
}
.way {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 14px;
  align-items: baseline;
}
.way label:has(:focus-visible) {
  outline: 2px solid var(--tide);
  outline-offset: 2px;
}
.sending {
  display: grid;
  grid-template-columns: 1fr 220px auto auto;
  gap: 14px;
  align-items: center;
  border-bottom: 1px solid var(--rule);
  padding: 9px 0;
}
@media (max-width: 620px) {
  .sending {
    grid-template-columns: minmax(0, 1fr);
  }
}
progress {
  width: 100%;
  accent-color: var(--tide);
}
.buoy {
  margin-top: 16px;
  max-width: 640px;
}
.list {
  margin-top: 22px;
}
.list .number {
  text-align: right;
  padding-right: 22px;
  white-space: nowrap;
}
.none {
  margin-top: 18px;
  max-width: 560px;
}
.lost {
  color: var(--buoy);
  font-weight: 600;
}
b {
  font-weight: 600;
}
</style>
