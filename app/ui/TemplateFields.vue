<script setup lang="ts">
import type { NewTemplate } from '~~/shared/api/shares'
import type { ApiProblem } from '~/composables/api'

/** What a template is called and says of itself. `problem`: what the server found wrong with it. */
const props = defineProps<{ problem: ApiProblem | null }>()
const template = defineModel<NewTemplate>({ required: true })
const fault = (field: string): string | undefined =>
  props.problem?.errors.find(error => error.field === field)?.message
</script>

<template>
  <FormField label="Name" :fault="fault('title')">
    <ElInput v-model="template.title" maxlength="200" />
  </FormField>
  <FormField label="Subject" :fault="fault('subject')">
    <ElInput v-model="template.subject" maxlength="100" />
  </FormField>
  <FormField label="Arranged">
    <ElSelect v-model="template.arrangement" aria-label="Arranged">
      <ElOption value="weeks" label="by week" />
      <ElOption value="units" label="by unit" />
    </ElSelect>
  </FormField>
  <FormField label="About it" :fault="fault('about')">
    <ElInput v-model="template.about" type="textarea" autosize maxlength="1000" />
  </FormField>
  <ElCheckbox v-model="template.colleagues">Colleagues who see it may improve it</ElCheckbox>
</template>
