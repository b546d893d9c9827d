<script setup lang="ts">
import { codePattern, type CodePattern } from '~~/core/pairing/codes'
import type { CodesReply } from '~~/shared/api/codes'
import CodeRead from '~/codes/CodeRead.vue'
import { useCodesDraft } from '~/codes/draft'
import { spellingsOf, tryCode } from '~/codes/reading'
import TypedCode from '~/codes/TypedCode.vue'

useHead({ title: 'Codes · Northtide' })
const { data, problem, refresh } = useLoaded(() => api.get<CodesReply>('/codes'))
onMounted(refresh)

const session = useSession()
const { draft, rules, changed, isRestored, forget } = useCodesDraft(data, session.person?.id ?? '')
const patterns = computed(() => draft.value.patterns)
const mapped = computed(() => draft.value.mapped)
const compiled = computed(() =>
  patterns.value.map(entry => {
    const spellings = spellingsOf(entry.spellings)
    return 'problem' in spellings ? spellings : codePattern(entry.text, spellings.seasons)
  }),
)
const good = computed(() => compiled.value.filter((pattern): pattern is CodePattern => 'tokens' in pattern))
const saveFault = (field: string): string | undefined =>
  saveProblem.value?.errors.find(error => error.field.startsWith(field))?.message
function faultOf(at: number): string | undefined {
  const made = compiled.value[at]
  return made && 'problem' in made ? made.problem : saveFault(`patterns.${at}`)
}
const trial = computed(
  () =>
    data.value?.codes.map(entry => ({ ...entry, tried: tryCode(entry.code, entry.term, good.value) })) ?? [],
)
const unread = computed(() => trial.value.filter(({ tried }) => tried.says === null).length)

const saved = ref(false)
const {
  run: save,
  busy,
  problem: saveProblem,
} = useAction(async () => {
  saved.value = false
  await api.put('/codes', rules.value, draft.value.revision)
  forget()
  await refresh()
  saved.value = true
})
async function loadTheirs(): Promise<void> {
  saveProblem.value = null
  forget()
  await refresh()
}
const savedText = computed(() => {
  if (isRestored.value) return 'These are your rules as you left them. They are not saved yet.'
  if (changed.value) return 'Not saved yet. What you write waits here if you leave the page.'
  if (saved.value) return 'Saved. Suggestions follow these rules from now on.'
  const last = data.value?.saved
  return last ? `As ${last.by} saved them, ${instantText(last.at)}.` : 'None saved yet.'
})
const addPattern = (): unknown => patterns.value.push({ text: '{subject} {number}', spellings: '' })
</script>

<template>
  <main class="page">
    <header>
      <h1>Codes</h1>
      <p class="soft">
        How course codes are read, and which new code stands for an old one. Suggested sources depend on these
        rules.
      </p>
    </header>
    <ProblemNote v-if="problem" :problem="problem" @retry="refresh" />
    <LoadingLines v-else-if="!data" what="Fetching the rules …" />
    <div v-else class="beside">
      <div class="left">
        <section>
          <h2>Patterns <span class="soft small">the first that fits a code is used</span></h2>
          <table v-if="patterns.length" class="ruled">
            <thead>
              <tr>
                <th scope="col">Pattern</th>
                <th scope="col">How seasons are written</th>
                <th scope="col"><span class="visually-hidden">Remove</span></th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="(entry, at) in patterns" :key="at">
                <td>
                  <ElInput
                    v-model="entry.text"
                    :disabled="!data.may.edit"
                    :aria-label="`Pattern ${at + 1}`"
                  />
                  <p v-if="faultOf(at)" class="fault small" role="alert">{{ faultOf(at) }}</p>
                </td>
                <td>
                  <ElInput
                    v-model="entry.spellings"
                    :disabled="!data.may.edit"
                    placeholder="S spring, F autumn"
                    :aria-label="`Seasons of pattern ${at + 1}`"
                  />
                </td>
                <td class="act-cell">
                  <button v-if="data.may.edit" class="link" type="button" @click="patterns.splice(at, 1)">
                    Remove
                  </button>
                </td>
              </tr>
            </tbody>
          </table>
          <p v-else class="soft">
            There is no pattern yet. Codes are read by their letters and digits, like HYD 240.
          </p>
          <p v-if="data.may.edit">
            <button class="link" type="button" @click="addPattern">Add a pattern</button>
          </p>
        </section>
        <section>
          <h2>Old and new <span class="soft small">courses that were renumbered</span></h2>
          <table v-if="mapped.length" class="ruled">
            <thead>
              <tr>
                <th scope="col">Old code</th>
                <th scope="col">New code</th>
                <th scope="col"><span class="visually-hidden">Remove</span></th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="(entry, at) in mapped" :key="at">
                <td>
                  <ElInput
                    v-model="entry.from"
                    :disabled="!data.may.edit"
                    :aria-label="`Old code ${at + 1}`"
                  />
                  <p v-if="saveFault(`mapped.${at}`)" class="fault small">{{ saveFault(`mapped.${at}`) }}</p>
                </td>
                <td>
                  <ElInput v-model="entry.to" :disabled="!data.may.edit" :aria-label="`New code ${at + 1}`" />
                </td>
                <td class="act-cell">
                  <button v-if="data.may.edit" class="link" type="button" @click="mapped.splice(at, 1)">
                    Remove
                  </button>
                </td>
              </tr>
            </tbody>
          </table>
          <p v-else class="soft">No renumbered course has been named yet.</p>
          <p v-if="data.may.edit">
            <button class="link" type="button" @click="mapped.push({ from: '', to: '' })">
              Add a renumbered course
            </button>
          </p>
        </section>
        <TypedCode :patterns="good" :mapped="mapped" :terms="data.terms" :courses="data.codes" />
        <section>
          <h2>
            Tried on your courses
            <span class="soft small"
              >{{ counted(trial.length, 'code') }}, {{ unread }} not read by a pattern</span
            >
          </h2>
          <table v-if="trial.length" class="ruled">
            <thead>
              <tr>
                <th scope="col">Code</th>
                <th scope="col">Term</th>
                <th scope="col">Read as</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="entry in trial" :key="`${entry.code} ${entry.term.name}`">
                <td>{{ entry.code }}</td>
                <td>{{ entry.term.name }}</td>
                <td>
                  <CodeRead :tried="entry.tried" :has-patterns="patterns.length > 0" />
                </td>
              </tr>
            </tbody>
          </table>
          <p v-else class="soft">You have no course yet to try the patterns on.</p>
        </section>
      </div>
      <aside>
        <template v-if="data.may.edit">
          <button
            class="act"
            type="button"
            :disabled="busy || !changed || good.length < patterns.length"
            @click="save"
          >
            Save the rules
          </button>
          <p class="soft small" role="status">
            {{ savedText }}
          </p>
          <button
            v-if="changed && !saveProblem"
            class="link small"
            type="button"
            :disabled="busy"
            @click="forget"
          >
            Discard my changes
          </button>
          <div v-if="saveProblem" class="note buoy" role="alert">
            <h3>{{ saveProblem.title }}</h3>
            <p class="small">{{ saveProblem.detail }}</p>
            <button v-if="saveProblem.status === 409" class="link" type="button" @click="loadTheirs">
              Load theirs
            </button>
          </div>
        </template>
        <p v-else class="soft">The academic office makes these rules. Tell them if one is wrong.</p>
        <div>
          <h2>Writing a pattern</h2>
          <p class="small">
            {subject}, {number}, {section}, {year}, {season} and {reference} stand for the parts of a code.
            Other characters stand for themselves. A blank, hyphen, dot or slash matches any of these, or
            nothing.
          </p>
          <p class="small">{year}{season}-{subject}{number}-{section} reads 2027S-HYD240-01.</p>
        </div>
      </aside>
    </div>
  </main>
</template>

<style scoped>
.left {
  display: grid;
  gap: 26px;
  grid-template-columns: minmax(0, 1fr);
}
h2 .small {
  font: 400 12.5px var(--sans);
  margin-left: 8px;
}
.fault {
  color: var(--buoy);
  margin: 3px 0 0;
}
.act-cell {
  width: 80px;
  text-align: right;
}
section > p {
  margin-top: 8px;
}
aside {
  display: grid;
  gap: 14px;
}
aside > p {
  margin: 0;
}
.act {
  justify-self: start;
}
</style>
