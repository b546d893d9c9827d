<script setup lang="ts">
import type { NewTemplate, TemplateLine } from '~~/shared/api/shares'
import { emptyTemplate } from './template-words'

/** What one may do with a template of one's own: rename it, retire it, delete it. What was rolled from it stays. */
const props = defineProps<{ template: TemplateLine }>()
const emit = defineEmits<{ changed: [] }>()
const doing = ref<'rename' | 'delete' | null>(null)
const draft = ref<NewTemplate>(emptyTemplate())
const address = computed(() => `/templates/${props.template.course.id}`)
function rename(): void {
  const { course, subject, arrangement, about, colleagues } = props.template
  draft.value = { ...emptyTemplate(), title: course.title, subject, arrangement, about, colleagues }
  doing.value = 'rename'
}
const acting = useAction(async (work: () => Promise<unknown>) => {
  await work()
  doing.value = null
  emit('changed')
})
const { busy, problem } = acting
const save = (): Promise<boolean> => acting.run(() => api.put(address.value, draft.value))
const retire = (retired: boolean): Promise<boolean> =>
  acting.run(() => api.put(`${address.value}/retired`, { retired }))
const remove = (): Promise<boolean> => acting.run(() => api.delete(address.value))
</script>

<template>
  <p v-if="!doing" class="small ways">
    <button class="link" type="button" @click="rename">Rename or describe it</button>
    <button v-if="template.retired" class="link" type="button" :disabled="busy" @click="retire(false)">
      Offer it again
    </button>
    <button v-else class="link" type="button" :disabled="busy" @click="retire(true)">Retire it</button>
    <button class="link lost" type="button" @click="doing = 'delete'">Delete the template</button>
  </p>
  <form v-else-if="doing === 'rename'" @submit.prevent="save">
    <TemplateFields v-model="draft" :problem="problem" />
    <p class="ways">
      <button class="act" type="submit" :disabled="busy">Save the template</button>
      <button class="link" type="button" @click="doing = null">Cancel</button>
    </p>
  </form>
  <p v-else class="note buoy" role="alert">
    <bdi>{{ template.course.title }}</bdi> and its {{ counted(template.course.items, 'item') }} go away for
    good. Courses that were rolled from it stay as they are. Plans from it need another source.
    <span class="ways">
      <button class="act" type="button" :disabled="busy" @click="remove">Delete the template</button>
      <button class="link" type="button" @click="doing = null">Keep it</button>
    </span>
  </p>
  <ActionProblem v-if="!problem?.errors.length" :problem="problem" />
</template>

<style scoped>
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 16px;
  margin: 6px 0 0;
  align-items: center;
}
.lost {
  color: var(--buoy);
}
form {
  max-width: 420px;
  margin-top: 8px;
  display: grid;
  gap: 8px;
}
</style>
