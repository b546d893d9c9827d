<script setup lang="ts">
import type { SectionFacts } from '~~/core/plan/parts/sections'
import type { Windows } from '~~/core/pairing/windows'
import type { CourseLine } from '~~/shared/api/courses'
import type { PlanReply } from '~~/shared/api/plans'
import { useDayContext } from '~/composables/today'
import { usePlan } from '../plan/store'
import WindowFields from './WindowFields.vue'

/** A section that shows this shell's content: its label and its windows, which Run writes with the rest. */
const props = defineProps<{ plan: PlanReply; section: CourseLine; proposed: string }>()
const store = usePlan()
const facts = computed(
  (): SectionFacts => store.document?.sections[props.section.id] ?? { label: null, windows: null },
)
const label = computed(() => facts.value.label ?? props.section.label ?? '')
const written = ref('')
watch(
  label,
  text => {
    written.value = text
  },
  { immediate: true },
)
const windows = computed((): Windows => facts.value.windows ?? props.section.windows)
const context = useDayContext(() => store.terms?.target ?? null)
const change = (changed: Partial<SectionFacts>): void =>
  store.changeSection(props.section.id, { ...facts.value, ...changed })
const name = computed(() => codeText(props.section))
</script>

<template>
  <div class="facts">
    <FormField :label="`Label of ${name}`">
      <ElInput
        v-model="written"
        :disabled="!plan.may.edit"
        maxlength="200"
        placeholder="none"
        @change="text => change({ label: text === (section.label ?? '') ? null : text })"
      />
    </FormField>
    <p v-if="proposed && proposed !== label && plan.may.edit" class="small soft">
      From its meeting times:
      <button class="link" type="button" @click="change({ label: proposed })">Use “{{ proposed }}”</button>
    </p>
    <WindowFields
      :windows="windows"
      :term="plan.target.calendar"
      :context="context"
      :may-edit="plan.may.edit"
      :of="name"
      @change="(field, at) => change({ windows: { ...windows, [field]: at } })"
    />
  </div>
</template>

<style scoped>
.facts {
  display: grid;
  gap: 6px;
  padding: 4px 0 8px 22px;
  width: 100%;
}
.facts p {
  margin: 0;
}
</style>
