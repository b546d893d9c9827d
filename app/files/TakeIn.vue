<script setup lang="ts">
import type { ImportRequest, UploadReply } from '~~/shared/api/uploads'
import type { ApiProblem } from '~/composables/api'
import { formatText } from './words'

/** What a person may do with a file that has been read. Says what will happen, in numbers, before it does. */
const props = defineProps<{
  file: UploadReply
  chosen: Extract<ImportRequest, { as: 'closures' }>['events']
  wantsColumns: boolean
}>()
const emit = defineEmits<{ taken: [] }>()
const report = computed(() => props.file.report!)
const guessed = /^(\p{Lu}{2,6}[ -]?\d{2,4}\p{Lu}?)[\s:–—-]+(.+)$/u.exec(report.value.title ?? '')
const code = ref(guessed?.[1] ?? '')
const section = ref('')
const title = ref((guessed?.[2] ?? report.value.title ?? '').slice(0, 500))
const term = ref(props.file.term ?? '')
const problem = shallowRef<ApiProblem | null>(null)
const busy = ref(false)
const fault = (field: string): string | undefined =>
  problem.value?.errors.find(error => error.field === field)?.message
const listed = ['term', 'code', 'section', 'title']
async function take(request: ImportRequest): Promise<void> {
  busy.value = true
  problem.value = null
  try {
    await api.post(`/uploads/${props.file.id}/import`, request)
    emit('taken')
  } catch (error) {
    problem.value = asProblem(error)
  } finally {
    busy.value = false
  }
}
const termName = computed(() => props.file.terms.find(entry => entry.code === term.value)?.name ?? '')
</script>

<template>
  <section>
    <form v-if="file.may.keepAsCourse" @submit.prevent="take({ as: 'course', term, code, section, title })">
      <h2>Keep it as a course</h2>
      <p class="small">
        Adds one course with everything listed here, with you as its instructor. No shell is touched, and no
        student is in it.
      </p>
      <label
        >Term it was taught in<ElSelect v-model="term" aria-label="Term it was taught in"
          ><ElOption
            v-for="entry in file.terms"
            :key="entry.code"
            :value="entry.code"
            :label="entry.name" /></ElSelect
        ><span v-if="fault('term')" class="fault">{{ fault('term') }}</span></label
      >
      <div class="pair">
        <label
          >Code<ElInput v-model="code" maxlength="40" placeholder="as HYD 240" /><span
            v-if="fault('code')"
            class="fault"
            >{{ fault('code') }}</span
          ></label
        ><label>Section<ElInput v-model="section" maxlength="40" /></label>
      </div>
      <label
        >Title<ElInput v-model="title" type="textarea" autosize maxlength="500" /><span
          v-if="fault('title')"
          class="fault"
          >{{ fault('title') }}</span
        ></label
      >
      <button class="act" type="submit" :disabled="busy">Keep as a course</button>
    </form>
    <div v-else-if="file.may.importRoster">
      <h2>Bring the roster in</h2>
      <p class="small">
        People, classes and enrolments that are new are added; those that are known are brought up to date.
        Nobody and nothing is deleted, whatever the bundle leaves out.
      </p>
      <button class="act" type="button" :disabled="busy" @click="take({ as: 'roster' })">
        Bring the roster in
      </button>
    </div>
    <div v-else-if="file.may.addClosures">
      <h2>Add days without classes</h2>
      <p class="small">
        The days you mark become closures of a term. Every plan into that term then moves work off them.
      </p>
      <label
        >Term<ElSelect v-model="term" aria-label="Term"
          ><ElOption
            v-for="entry in file.terms"
            :key="entry.code"
            :value="entry.code"
            :label="entry.name" /></ElSelect
      ></label>
      <button
        class="act"
        type="button"
        :disabled="busy || wantsColumns || !chosen.length"
        @click="take({ as: 'closures', term, events: chosen })"
      >
        {{
          wantsColumns
            ? 'Confirm the columns first'
            : chosen.length
              ? `Add ${counted(chosen.length, 'closure')}${termName ? ` to ${termName}` : ''}`
              : 'Mark the days first'
        }}
      </button>
    </div>
    <div v-else class="note">
      <h3>To look at only</h3>
      <p class="small">
        {{ formatText(report) }}s are brought in by the academic office, because every course of the term
        rests on them. Ask the office, and give them this file.
      </p>
    </div>
    <div v-if="problem" class="note buoy" role="alert">
      <h3>{{ problem.title }}</h3>
      <p v-if="problem.detail" class="small">{{ problem.detail }}</p>
      <p
        v-for="error in problem.errors.filter(entry => !listed.includes(entry.field))"
        :key="error.field"
        class="small"
      >
        {{ error.message }}
      </p>
    </div>
  </section>
</template>

<style scoped>
form,
section > div {
  display: grid;
  gap: 12px;
}
label {
  display: grid;
  gap: 3px;
  font-size: 12.5px;
  color: var(--ink-soft);
}
.pair {
  display: grid;
  grid-template-columns: 1fr 84px;
  gap: 12px;
}
.fault {
  color: var(--buoy);
}
.act {
  justify-self: start;
  white-space: normal;
  text-align: left;
}
p {
  margin: 0;
}
.buoy {
  margin-top: 14px;
}
</style>
