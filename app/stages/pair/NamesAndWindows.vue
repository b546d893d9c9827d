<script setup lang="ts">
import { cleanTitle, nameFaults, sectionLabels } from '~~/core/pairing/names'
import { defaultWindows, type Windows } from '~~/core/pairing/windows'
import type { PlanReply } from '~~/shared/api/plans'
import { useDayContext } from '~/composables/today'
import { usePlan } from '../plan/store'
import WindowFields from './WindowFields.vue'

/** What the shell is called and when students may enrol and enter: decisions of the plan, written by Run. */
const props = defineProps<{ plan: PlanReply }>()
const store = usePlan()
const shell = computed(() =>
  props.plan.mode === 'in-place' ? props.plan.source.course : props.plan.target.course,
)
const names = computed(() => store.document!.names)
const title = computed(() => names.value.title ?? shell.value.title)
const label = computed(() => names.value.label ?? shell.value.label ?? '')
const faults = computed(() =>
  nameFaults(
    {
      id: shell.value.id,
      title: title.value,
      label: label.value || null,
      term: props.plan.target.course.term.name,
    },
    props.plan.siblings,
  ),
)
const proposed = computed(
  () =>
    sectionLabels([
      { ...props.plan.target.course, id: shell.value.id },
      ...props.plan.siblings.filter(course => course.id !== shell.value.id && course.origin !== 'awaited'),
    ]).get(shell.value.id) ?? '',
)
const clean = computed(() => cleanTitle(title.value, props.plan.target.course.term.name))
/** As they are being written; they become decisions when the field is left. */
const written = reactive({ title: '', label: '' })
watch([title, label], () => Object.assign(written, { title: title.value, label: label.value }), {
  immediate: true,
})
const setTitle = (text: string): void => {
  if (text.trim()) store.changeIn('names', { title: text === shell.value.title ? null : text })
  else written.title = title.value
}
const setLabel = (text: string): void =>
  store.changeIn('names', { label: text === (shell.value.label ?? '') ? null : text })
const windows = computed((): Windows => store.document!.windows ?? shell.value.windows)
const changeWindow = (field: keyof Windows, value: string | null): void =>
  store.changePart('windows', { ...windows.value, [field]: value })
const term = computed(() => props.plan.target.calendar)
const context = useDayContext(() => store.terms?.target ?? null)
const normal = computed(() => JSON.stringify(windows.value) === JSON.stringify(defaultWindows(term.value)))
</script>

<template>
  <section class="names">
    <div>
      <h2>Names</h2>
      <FormField label="Title that students see">
        <ElInput v-model="written.title" :disabled="!plan.may.edit" maxlength="200" @change="setTitle" />
      </FormField>
      <p
        v-for="fault in faults.filter(entry => entry.field === 'title')"
        :key="fault.message"
        class="small settle"
      >
        {{ fault.message }}
        <button v-if="clean !== title && plan.may.edit" class="link" type="button" @click="setTitle(clean)">
          Use “{{ clean }}”
        </button>
      </p>
      <FormField label="Label of the section">
        <ElInput
          v-model="written.label"
          :disabled="!plan.may.edit"
          maxlength="200"
          placeholder="none"
          @change="setLabel"
        />
      </FormField>
      <p
        v-for="fault in faults.filter(entry => entry.field === 'label')"
        :key="fault.message"
        class="small settle"
      >
        {{ fault.message }}
      </p>
      <p v-if="proposed && proposed !== label && plan.may.edit" class="small soft">
        From its meeting times:
        <button class="link" type="button" @click="setLabel(proposed)">Use “{{ proposed }}”</button>
      </p>
    </div>
    <div>
      <h2>Windows</h2>
      <WindowFields
        :windows="windows"
        :term="term"
        :context="context"
        :may-edit="plan.may.edit"
        @change="changeWindow"
      />
      <p class="small soft">
        {{
          normal
            ? 'Use the term’s dates: open a week before classes, enrolment to the end of teaching week 4, for those who start on temporary access.'
            : ''
        }}<button
          v-if="!normal && plan.may.edit"
          class="link"
          type="button"
          @click="store.changePart('windows', defaultWindows(term))"
        >
          Use the term’s dates
        </button>
      </p>
    </div>
  </section>
</template>

<style scoped>
.names {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 40px;
  margin-top: 22px;
  padding-top: 14px;
  border-top: 1.5px solid var(--rule-strong);
}
.names > div {
  display: grid;
  gap: 8px;
  align-content: start;
}
.names p {
  margin: 0;
}
@media (max-width: 700px) {
  .names {
    grid-template-columns: minmax(0, 1fr);
    gap: 22px;
  }
}
</style>
