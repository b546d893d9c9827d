<script setup lang="ts">
import type { ItemKind } from '~~/core/course/model'
import type { CourseLine } from '~~/shared/api/courses'
import type { NewTemplate, ShareLine, SharesReply, TemplatesReply } from '~~/shared/api/shares'
import { emptyTemplate } from '~/shells/template-words'

/** Lets others take from a course: by a code, or a department; and makes a template of it. */
const props = defineProps<{
  course: CourseLine
  kinds: ItemKind[]
  units: readonly { lineage: string; title: string }[]
}>()
const { data, problem, refresh } = useLoaded(() => api.get<SharesReply>(`/courses/${props.course.id}/shares`))
watch(
  () => props.course.id,
  () => void refresh(),
  { immediate: true },
)
const form = ref<'code' | 'department' | 'template' | null>(null)
const withheld = ref<ItemKind[]>([])
/** Days that a share holds; 0: until it is taken back. */
const days = ref(30)
const org = ref('')
const template = ref<NewTemplate>(emptyTemplate())
/** What stands on a shelf that it can be a new version of; and which of them, or something new. */
const shelved = useLoaded(() => api.get<TemplatesReply>('/templates'))
const improvable = computed(
  () =>
    shelved.data.value?.templates.filter(each => each.mayImprove && each.course.id !== props.course.id) ?? [],
)
const versionOf = ref('new')
const note = ref('')
const told = ref('')

const noteFault = computed(() => acting.problem.value?.errors.find(error => error.field === 'note')?.message)
/** A unit is named after itself, as long as nobody named it. */
function takeUnit(unit: string): void {
  const title = props.units.find(each => each.lineage === unit)?.title ?? props.course.title
  template.value = { ...template.value, unit: unit === 'all' ? null : unit, title }
}
const acting = useAction(async (work: () => Promise<string>) => {
  told.value = ''
  told.value = await work()
  form.value = null
  await refresh()
})
const share = asAct(async () => {
  const asked = {
    withheld: withheld.value,
    days: days.value || null,
    org: form.value === 'department' ? org.value : null,
  }
  const { code } = await api.post<{ code: string | null }>(`/courses/${props.course.id}/shares`, asked)
  return code
    ? `The code is ${code}. Whoever has it may take from this course.`
    : 'The department may take from this course now.'
})
const makeTemplate = asAct(async () => {
  if (versionOf.value === 'new') {
    await api.post(`/courses/${props.course.id}/template`, template.value)
    return 'It is on the shelf.'
  }
  await api.post(`/templates/${versionOf.value}/versions`, {
    note: note.value,
    from: props.course.id,
    unit: template.value.unit,
  })
  return 'The new version is on the shelf. The one before is kept there.'
})
const revoke = (entry: ShareLine): Promise<boolean> =>
  acting.run(async () => {
    await api.delete(`/courses/${props.course.id}/shares/${entry.id}`)
    return 'The share is taken back. Courses already rolled from it stay as they are.'
  })
function asAct(work: () => Promise<string>): () => Promise<boolean> {
  return () => acting.run(work)
}
function open(which: typeof form.value): void {
  form.value = which
  acting.problem.value = null
  told.value = ''
  withheld.value = []
  org.value = data.value?.departments[0]?.id ?? ''
  template.value = { ...emptyTemplate(), title: props.course.title }
  versionOf.value = 'new'
  note.value = ''
  if (which === 'template') void shelved.refresh()
}

const states = { holds: 'holds', expired: 'has run out', revoked: 'taken back' }
const nameOf = (entry: ShareLine): string => entry.code ?? entry.org?.name ?? ''
/** `holds until 3 Sep, 10:00, without quizzes, used by 2` */
function stateText(entry: ShareLine): string {
  const until = entry.expiresAt && entry.state === 'holds' ? ` until ${instantText(entry.expiresAt)}` : ''
  const uses = entry.uses ? `used by ${entry.uses}` : 'not used yet'
  return [
    `${states[entry.state]}${until}`,
    entry.withheld.length && `without ${entry.withheld.map(kind => kindWords(kind)[1]).join(', ')}`,
    entry.code && uses,
  ]
    .filter(Boolean)
    .join(', ')
}
const { busy, problem: actProblem } = acting
</script>

<template>
  <section>
    <h2>Shared</h2>
    <ProblemNote v-if="problem" :problem="problem" @retry="refresh" />
    <ul v-if="data?.shares.length">
      <li v-for="entry in data.shares" :key="entry.id" :class="{ off: entry.state !== 'holds' }">
        <b>{{ nameOf(entry) }}</b>
        <span class="soft small">{{ stateText(entry) }}</span>
        <button
          v-if="entry.state === 'holds'"
          class="link small"
          type="button"
          :disabled="busy"
          :aria-label="`Take back ${nameOf(entry)}`"
          @click="revoke(entry)"
        >
          Take back
        </button>
      </li>
    </ul>
    <p v-else-if="data" class="soft small">Nobody else may take from this course.</p>
    <p v-if="told" class="small kept" role="status">{{ told }}</p>

    <div v-if="!form && (data || problem)" class="ways">
      <button class="link" type="button" @click="open('code')">Make a share code …</button>
      <button class="link" type="button" @click="open('department')">Share with a department …</button>
      <button v-if="course.items" class="link" type="button" @click="open('template')">
        Keep it on the shelf …
      </button>
    </div>

    <form v-else-if="form === 'template'" @submit.prevent="makeTemplate">
      <FormField label="What">
        <ElSelect
          :model-value="template.unit ?? 'all'"
          aria-label="What is kept"
          @change="unit => takeUnit(unit)"
        >
          <ElOption value="all" label="the whole course" />
          <ElOption v-for="unit in units" :key="unit.lineage" :value="unit.lineage" :label="unit.title" />
        </ElSelect>
      </FormField>
      <FormField v-if="improvable.length" label="As">
        <ElSelect v-model="versionOf" aria-label="As what it is kept">
          <ElOption value="new" label="something new" />
          <ElOption
            v-for="each in improvable"
            :key="each.course.id"
            :value="each.course.id"
            :label="`a new version of “${each.course.title}”`"
          />
        </ElSelect>
      </FormField>
      <template v-if="versionOf === 'new'">
        <TemplateFields v-model="template" :problem="actProblem" />
        <FormField v-if="data?.departments.length" label="Shelf">
          <ElSelect
            :model-value="template.org ?? 'own'"
            aria-label="On whose shelf"
            @change="org => (template = { ...template, org: org === 'own' ? null : org })"
          >
            <ElOption value="own" label="yours alone" />
            <ElOption
              v-for="entry in data.departments"
              :key="entry.id"
              :value="entry.id"
              :label="entry.name"
            />
          </ElSelect>
        </FormField>
      </template>
      <FormField v-else label="What changes" :fault="noteFault">
        <ElInput v-model="note" maxlength="200" />
      </FormField>
      <p class="small soft">Everything about students stays out. No text or file is stored a second time.</p>
      <div class="ways">
        <button class="act" type="submit" :disabled="busy">
          {{ versionOf === 'new' ? 'Keep it on the shelf' : 'Keep it as a new version' }}
        </button>
        <button class="link" type="button" @click="form = null">Cancel</button>
      </div>
    </form>

    <form v-else @submit.prevent="share">
      <FormField v-if="form === 'department'" label="Department">
        <ElSelect v-model="org" aria-label="Department">
          <ElOption
            v-for="entry in data?.departments ?? []"
            :key="entry.id"
            :value="entry.id"
            :label="entry.name"
          />
        </ElSelect>
      </FormField>
      <FormField label="Not included">
        <ElSelect
          v-model="withheld"
          multiple
          placeholder="They may take everything."
          aria-label="Not included"
        >
          <ElOption v-for="kind in kinds" :key="kind" :value="kind" :label="kindWords(kind)[1]" />
        </ElSelect>
      </FormField>
      <FormField label="Valid for">
        <ElSelect v-model="days" aria-label="Valid for">
          <ElOption :value="7" label="a week" />
          <ElOption :value="30" label="30 days" />
          <ElOption :value="180" label="half a year" />
          <ElOption :value="0" label="until taken back" />
        </ElSelect>
      </FormField>
      <p class="small soft">
        Students and their work are never shared. You can take the share back at any time.
      </p>
      <div class="ways">
        <button class="act" type="submit" :disabled="busy">
          {{ form === 'code' ? 'Make the code' : 'Share it' }}
        </button>
        <button class="link" type="button" @click="form = null">Cancel</button>
      </div>
    </form>
    <p v-if="actProblem && !actProblem.errors.length" class="small settle" role="alert">
      {{ actProblem.title }}. {{ actProblem.detail }}
    </p>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  margin-bottom: 6px;
}
li {
  padding: 5px 0;
  border-bottom: 1px solid var(--rule);
}
li button,
li .small {
  margin-left: 8px;
}
li.off b {
  text-decoration: line-through;
  font-weight: 400;
  color: var(--ink-soft);
}
form {
  display: grid;
  gap: 10px;
}
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: center;
}
b {
  font-weight: 600;
}
p {
  margin: 4px 0;
}
</style>
