<script setup lang="ts">
import type { Desk, MissingReason } from '~~/core/pairing/missing'
import type { MissingReply, RequestsReply } from '~~/shared/api/requests'
import type { GuardReply } from '~~/shared/api/shells'

/** Why a shell is not there, a request to the desk that can help, and what became of earlier ones. */
const { data, problem, refresh } = useLoaded(() => api.get<RequestsReply>('/requests'))
const { data: about, refresh: fetchTerms } = useLoaded(() => api.get<GuardReply>('/courses/guard'))
onMounted(() => {
  void refresh()
  void fetchTerms()
})
const [term, code, section, words] = [ref(''), ref(''), ref(''), ref('')]
watch(about, found => {
  if (!term.value) term.value = found?.terms[0]?.code ?? ''
})
const found = shallowRef<MissingReply | null>(null)
const sent = ref(false)
const { run: act, busy, problem: actProblem } = useAction((work: () => Promise<void>) => work())
/** The code is asked for all the same, though no course has it. */
const isMeant = ref(false)
watch([term, code, section], () => {
  found.value = null
  sent.value = false
  isMeant.value = false
})
async function ask(other: string): Promise<void> {
  code.value = other
  await nextTick()
  await why()
}
const why = (): Promise<boolean> =>
  act(async () => {
    found.value = await api.get<MissingReply>(
      `/requests/why?${new URLSearchParams({ term: term.value, code: code.value, section: section.value })}`,
    )
  })
const send = (): Promise<boolean> =>
  act(async () => {
    await api.post('/requests', {
      term: term.value,
      code: code.value,
      section: section.value,
      words: words.value,
    })
    sent.value = true
    words.value = ''
    await refresh()
  })
const change = (id: string, body: { do: string; answer?: string }): Promise<boolean> =>
  act(async () => {
    await api.put(`/requests/${id}`, body)
    answering.value = null
    await refresh()
  })
const answering = ref<{ id: string; text: string } | null>(null)
const deskName: Record<Desk, string> = {
  registrar: 'the registrar',
  school: 'the school office',
  help: 'the help desk',
}
const deskTask: Record<Desk, string> = {
  registrar: 'The registrar makes shells.',
  school: 'The school office says who teaches what.',
  help: 'The help desk looks after the connection.',
}
/** How the mail of a request goes. */
function mailText(mail: RequestsReply['requests'][number]['mail']): string {
  if (!mail) return 'no mail'
  if (mail.state === 'sent') return 'mail sent'
  if (mail.state === 'failed') return 'the mail could not be sent'
  return mail.problem ? 'mail is tried again' : 'mail is on its way'
}
/** The desk that can help with what was found. */
const desk = computed(() => {
  const which = found.value?.desk ?? 'help'
  return { name: deskName[which], task: deskTask[which] }
})
const reasons: Record<MissingReason, string> = {
  'not-made': 'The registrar has not made it yet.',
  fault: 'The registrar’s list could not be read last time, so Northtide does not know.',
  cancelled: 'The registrar no longer lists it.',
  'not-listed': 'It exists, but you are not listed on it.',
  'not-main': 'You are listed on it, but not as its main instructor.',
  hidden: 'It is there. You have hidden it.',
  there: 'It is there, and you are its main instructor.',
}
const states = { open: 'open', arrived: 'the shell has come', answered: 'answered', closed: 'closed' }
</script>

<template>
  <div class="beside">
    <div>
      <form class="ask" @submit.prevent="why">
        <label
          >Term<ElSelect v-model="term" aria-label="Term"
            ><ElOption
              v-for="entry in about?.terms ?? []"
              :key="entry.code"
              :value="entry.code"
              :label="entry.name" /></ElSelect
        ></label>
        <label>Course code<ElInput v-model="code" placeholder="as HYD 240" maxlength="60" /></label>
        <label>Section<ElInput v-model="section" placeholder="any" maxlength="20" /></label>
        <button class="act" type="submit" :disabled="busy || !term || !code.trim()">Find out why</button>
      </form>
      <ActionProblem :problem="actProblem" />
      <div v-if="found?.resembling && !isMeant" class="note why brass" role="status">
        <h3>
          {{
            found.resembling.length
              ? `The registrar has no course ${code.trim()}. Did you mean …`
              : `The registrar has no course ${code.trim()}, nor one with a code like it.`
          }}
        </h3>
        <p v-if="found.resembling.length" class="meant">
          <button
            v-for="other in found.resembling"
            :key="other"
            class="link"
            type="button"
            :disabled="busy"
            @click="ask(other)"
          >
            {{ other }}
          </button>
        </p>
        <p v-else>Read it once more before you ask a desk for it.</p>
        <button class="link" type="button" @click="isMeant = true">
          Ask for {{ code.trim() }} all the same
        </button>
      </div>
      <div v-else-if="found" :class="['note why', found.desk ? 'brass' : 'tide']" role="status">
        <h3>{{ reasons[found.reason] }}</h3>
        <template v-if="found.reason === 'hidden' || found.reason === 'there'"
          ><p>
            <NuxtLink v-if="found.courseId" :to="`/courses/${found.courseId}`">Go to the shell</NuxtLink
            >{{
              found.reason === 'hidden'
                ? ', or show it again among the hidden shells on the first page.'
                : '. Nobody needs to be asked.'
            }}
          </p></template
        >
        <template v-else-if="sent"
          ><p>
            Your request went to {{ desk.name }}. It is listed below and stays open until the shell comes.
          </p></template
        >
        <template v-else>
          <p>
            {{ desk.task }}
            A request goes to {{ desk.name }}{{ found.mails ? ' by mail' : '' }} and is tracked here.
            Meanwhile you can <NuxtLink to="/no-shell?way=term">plan for the term</NuxtLink>.
          </p>
          <label
            >Your words<ElInput
              v-model="words"
              type="textarea"
              autosize
              maxlength="2000"
              placeholder="What the desk should know; may stay empty"
          /></label>
          <p v-if="!found.mails" class="small">
            No mail is set up here: the request is tracked, and the academic office sees it.
          </p>
          <button class="act" type="button" :disabled="busy" @click="send">Send it to {{ desk.name }}</button>
        </template>
      </div>
      <h2>Requests</h2>
      <ProblemNote v-if="problem" :problem="problem" @retry="refresh" />
      <LoadingLines v-else-if="!data" what="Fetching requests …" :rows="3" />
      <table v-else-if="data.requests.length" class="ruled">
        <thead>
          <tr>
            <th scope="col">Shell</th>
            <th scope="col">To</th>
            <th scope="col">Why</th>
            <th scope="col">State</th>
            <th scope="col"><span class="visually-hidden">What can be done</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="request in data.requests" :key="request.id">
            <td>
              <b>{{ request.code }}{{ request.section && `-${request.section}` }}</b
              >, {{ request.term.name }}<br /><span class="soft small"
                >{{ request.own ? '' : `${request.by}, ` }}{{ instantText(request.createdAt) }}</span
              >
            </td>
            <td>
              {{ deskName[request.desk] }}<br /><span
                class="small"
                :class="request.mail?.state === 'failed' ? 'settle' : 'soft'"
                >{{ mailText(request.mail) }}</span
              >
            </td>
            <td>
              {{ reasons[request.reason]
              }}<span v-if="request.words" class="soft small"><br />“{{ request.words }}”</span>
            </td>
            <td>
              <span :class="{ kept: request.state === 'arrived' }">{{ states[request.state] }}</span><template
                v-if="request.answer"
                ><br /><span class="small">{{ request.answer }}</span></template
              >
            </td>
            <td class="do">
              <NuxtLink v-if="request.courseId && request.own" :to="`/fill/${request.courseId}`"
                >Fill it</NuxtLink
              >
              <template v-if="request.state === 'open'">
                <button
                  v-if="request.mail?.state === 'failed'"
                  class="link"
                  type="button"
                  :disabled="busy"
                  @click="change(request.id, { do: 'send-again' })"
                >
                  Send again
                </button>
                <button
                  v-if="data.may.answer && answering?.id !== request.id"
                  class="link"
                  type="button"
                  @click="answering = { id: request.id, text: '' }"
                >
                  Answer …
                </button>
                <form
                  v-if="answering?.id === request.id"
                  @submit.prevent="change(request.id, { do: 'answer', answer: answering!.text })"
                >
                  <ElInput v-model="answering.text" type="textarea" autosize aria-label="Answer" /><button
                    class="link"
                    type="submit"
                  >
                    Answer
                  </button>
                </form>
                <button
                  class="link"
                  type="button"
                  :disabled="busy"
                  @click="change(request.id, { do: 'close' })"
                >
                  Close
                </button>
              </template>
            </td>
          </tr>
        </tbody>
      </table>
      <p v-else class="soft">No request has been sent.</p>
    </div>
    <aside>
      <div class="note">
        <h3>Who does what</h3>
        <p class="small">
          The registrar makes shells and keeps rosters. The school office says who teaches a section. The help
          desk looks after faults.
        </p>
        <p class="small">
          Northtide checks the registrar regularly:
          <NuxtLink to="/registrar">see the registrar’s list</NuxtLink>.
        </p>
      </div>
    </aside>
  </div>
</template>

<style scoped>
.ask {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(100px, 190px));
  gap: 14px;
  align-items: end;
  margin-bottom: 14px;
  justify-content: start;
}
label {
  display: grid;
  gap: 3px;
  font-size: 12.5px;
  color: var(--ink-soft);
}
.why {
  max-width: 640px;
  margin-bottom: 18px;
  display: grid;
  gap: 8px;
  justify-items: start;
}
.why label {
  width: 100%;
}
.meant {
  display: flex;
  gap: 18px;
}
.why p,
.why h3 {
  margin: 0;
}
.buoy {
  max-width: 640px;
  margin-bottom: 14px;
}
h2 {
  margin: 18px 0 4px;
}
.do {
  white-space: nowrap;
  text-align: right;
}
.do > * + * {
  margin-left: 12px;
}
b {
  font-weight: 600;
}
</style>
