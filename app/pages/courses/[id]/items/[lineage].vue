<script setup lang="ts">
import { settingWords } from '~~/core/course/settings'
import type { ItemReply } from '~~/shared/api/courses'

const route = useRoute()
const id = computed(() => String(route.params.id))
const lineage = computed(() => String(route.params.lineage))
const { data, problem, refresh } = useLoaded(() =>
  api.get<ItemReply>(`/courses/${id.value}/items/${lineage.value}`),
)
watch([id, lineage], () => void refresh(), { immediate: true })
useHead({ title: () => (data.value ? `${data.value.title} · Northtide` : 'Item · Northtide') })
const dates = computed(() =>
  data.value
    ? (
        [
          ['Opens', data.value.opens],
          ['Due', data.value.due],
          ['Closes', data.value.closes],
        ] as const
      ).filter(([, at]) => at)
    : [],
)
const word = computed(() => (data.value ? (data.value.exam ? 'exam' : kindWords(data.value.kind)[0]) : ''))
const fixing = useAction(async () => {
  await api.put(`/courses/${id.value}/items/${lineage.value}/fixed`, { fixed: !data.value?.fixed })
  await refresh()
})
const releaseText = ({ needs, least }: ItemReply['release'][number]): string =>
  ({ seen: 'was seen', 'handed-in': 'was handed in', points: `has ${least ?? 'some'} points` })[needs]
/** Links inside the content stay inside the application. */
function follow(event: MouseEvent): void {
  const link = (event.target as HTMLElement).closest('a')
  const href = link?.getAttribute('href') ?? ''
  if (!href.startsWith('/courses/') || event.ctrlKey || event.metaKey || event.shiftKey || event.button !== 0)
    return
  event.preventDefault()
  void navigateTo(href)
}
useKeys([
  {
    key: 'j',
    does: 'next item',
    run: () => {
      if (data.value?.next) void navigateTo(`/courses/${id.value}/items/${data.value.next}`)
    },
  },
  {
    key: 'k',
    does: 'item before',
    run: () => {
      if (data.value?.previous) void navigateTo(`/courses/${id.value}/items/${data.value.previous}`)
    },
  },
])
</script>

<template>
  <main class="page" :data-shown="data?.lineage">
    <ProblemNote v-if="problem" :problem="problem" @retry="refresh"
      ><NuxtLink :to="`/courses/${id}`">Back to the course</NuxtLink></ProblemNote
    >
    <LoadingLines v-else-if="!data" what="Fetching the item …" />
    <template v-else>
      <header>
        <p class="caps">
          <NuxtLink :to="`/courses/${id}`">The course</NuxtLink>{{ data.unit ? ` · ${data.unit}` : '' }}
        </p>
        <h1>
          <bdi>{{ data.title }}</bdi>
        </h1>
        <p class="soft facts">
          <KindMark :kind="data.kind" :exam="data.exam" /> {{ word
          }}<template v-if="data.points !== null"> · {{ pointsCounted(data.points) }}</template
          ><template v-if="data.category"> · {{ data.category }}</template
          ><template v-if="data.gradingPeriod"> · {{ data.gradingPeriod }}</template
          ><template v-for="[name, at] in dates" :key="name">
            · {{ name.toLowerCase() }} <b>{{ momentInFull(at!) }}</b></template
          ><template v-for="words in settingWords(data.settings)" :key="words"> · {{ words }}</template
          ><template v-if="data.group"> · for {{ data.group }} only</template>
        </p>
        <p v-for="each in data.release" :key="each.title" class="small">
          Opens once <bdi>{{ each.title }}</bdi> {{ releaseText(each) }}.
        </p>
        <p v-if="data.holds" class="small">
          An empty place of a template. It can hold
          {{ data.holds.map(kind => kindWords(kind)[1]).join(' or ') }}. Nobody but staff sees it.
        </p>
        <p v-if="data.fixed || data.may.fix" class="small">
          <template v-if="data.fixed">Fixed by the institution: no rollover changes it. </template>
          <button
            v-if="data.may.fix"
            class="link"
            type="button"
            :disabled="fixing.busy.value"
            @click="fixing.run"
          >
            {{ data.fixed ? 'Let rollovers change this item' : 'Fix this item for the institution' }}
          </button>
        </p>
        <ActionProblem :problem="fixing.problem.value" />
      </header>
      <!-- Sanitised on the server, by an allow list; see server/courses/reading.ts. -->
      <SanitisedHtml v-if="data.html" :html="data.html" tag="article" class="content" @click="follow" />
      <ol v-if="data.questions" class="questions">
        <li v-for="(question, index) in data.questions" :key="index">
          <p class="soft small">{{ question.type }}, {{ counted(question.points / 10000, 'point') }}</p>
          <SanitisedHtml :html="question.prompt" @click="follow" />
          <ul class="answers">
            <li v-for="(answer, at) in question.answers" :key="at" :class="{ right: answer.right }">
              <SanitisedHtml :html="answer.html" tag="span" /><span v-if="answer.right" class="small">
                (right)</span
              >
            </li>
          </ul>
          <p v-for="(text, at) in question.feedback" :key="at" class="soft small">
            <span>Feedback:</span> <SanitisedHtml :html="text" tag="span" />
          </p>
        </li>
      </ol>
      <section v-if="data.rubric" class="rubric">
        <h2>
          Marked by: <bdi>{{ data.rubric.title }}</bdi>
        </h2>
        <table class="ruled">
          <tbody>
            <tr v-for="criterion in data.rubric.criteria" :key="criterion.title">
              <th scope="row">
                <bdi>{{ criterion.title }}</bdi>
              </th>
              <td v-for="level in criterion.levels" :key="level.title">
                <bdi>{{ level.title }}</bdi> <span class="soft small">{{ pointsText(level.points) }}</span>
              </td>
            </tr>
          </tbody>
        </table>
      </section>
      <section v-if="data.staffText" class="note">
        <h2>For staff</h2>
        <SanitisedHtml :html="data.staffText" @click="follow" />
      </section>
      <ul v-if="data.attachments.length > 0" class="plain" aria-label="Attached">
        <li v-for="entry in data.attachments" :key="entry.lineage">
          Attached:
          <a :href="entry.url"
            ><bdi>{{ entry.title }}</bdi></a
          >
        </li>
      </ul>
      <div v-if="data.tool">
        <p>
          {{ data.tool.launch ? 'Launches at' : 'It has no launch address.' }}
          <b v-if="data.tool.launch" class="breaks">{{ data.tool.launch }}</b>
        </p>
        <table v-if="data.tool.parameters.length > 0">
          <thead>
            <tr>
              <th scope="col">Parameter</th>
              <th scope="col">Value</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="entry in data.tool.parameters" :key="entry.name">
              <td>{{ entry.name }}</td>
              <td class="breaks">{{ entry.value }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <p v-if="data.file">
        <a class="act plain" :href="data.file.url">Get the file</a>
        <span class="soft small">{{ data.file.mediaType }}, {{ sizeText(data.file.size) }}</span>
      </p>
      <p v-if="data.url">
        Leads to <a :href="data.url" target="_blank" rel="noopener noreferrer">{{ data.url }}</a>
      </p>
      <p v-if="!data.html && !data.questions && !data.file && !data.url && !data.tool" class="soft">
        {{
          data.kind === 'heading' ? 'A heading: it holds nothing but its title.' : 'This item holds no text.'
        }}
      </p>
      <nav class="turn" aria-label="Items before and after">
        <NuxtLink v-if="data.previous" :to="`/courses/${id}/items/${data.previous}`">⟵ Previous item</NuxtLink
        ><NuxtLink v-if="data.next" :to="`/courses/${id}/items/${data.next}`">Next item ⟶</NuxtLink>
      </nav>
    </template>
  </main>
</template>

<style scoped>
.page {
  max-width: 860px;
}
.facts b {
  font-weight: 600;
  color: var(--ink);
}
.content {
  font: 17px/1.6 var(--serif);
  max-width: 66ch;
  border-top: 1.5px solid var(--rule-strong);
  padding-top: 14px;
}
.content :deep(h1) {
  font-size: 22px;
  margin-bottom: 10px;
}
.content :deep(p) {
  margin: 0 0 12px;
}
.content :deep(img) {
  max-width: 100%;
  height: auto;
  border: 1px solid var(--rule);
}
.content :deep(.left-behind) {
  text-decoration: line-through;
  text-decoration-color: var(--buoy);
}
.questions {
  border-top: 1.5px solid var(--rule-strong);
  padding: 14px 0 0 22px;
  max-width: 66ch;
}
.questions > li {
  padding-bottom: 14px;
}
.answers {
  padding-left: 18px;
  color: var(--ink-soft);
}
.answers .right {
  color: var(--tide-text);
}
.note {
  border-left: 2px solid var(--brass);
  padding-left: 12px;
  max-width: 66ch;
  margin: 14px 0;
}
.rubric {
  margin: 16px 0;
}
.rubric h2 {
  font-size: 16px;
}
.note h2 {
  font-size: 15px;
}
.breaks {
  overflow-wrap: anywhere;
}
.content :deep(.outside)::before {
  content: '↗ ';
}
.turn {
  display: flex;
  justify-content: space-between;
  margin-top: 30px;
  border-top: 1px solid var(--rule);
  padding-top: 10px;
}
</style>
