<script setup lang="ts">
import type { TemplateLine, VersionsReply } from '~~/shared/api/shares'

/** The versions of what stands on a shelf: one can be kept now, and one of before brought back. */
const props = defineProps<{ template: TemplateLine }>()
const emit = defineEmits<{ changed: [] }>()
const isOpen = ref(false)
const address = computed(() => `/templates/${props.template.course.id}/versions`)
const { data, problem, refresh } = useLoaded(() => api.get<VersionsReply>(address.value))
function open(): void {
  isOpen.value = !isOpen.value
  if (isOpen.value) void refresh()
}
const note = ref('')
const acting = useAction(async (work: () => Promise<unknown>) => {
  await work()
  note.value = ''
  emit('changed')
  await refresh()
})
const keep = (): Promise<boolean> => acting.run(() => api.post(address.value, { note: note.value }))
const bringBack = (number: number): Promise<boolean> => acting.run(() => api.put(address.value, { number }))
</script>

<template>
  <div class="versions small">
    <NuxtLink v-if="template.mayImprove" :to="`/courses/${template.course.id}/arrange`"
      >Rename, move or add something in it</NuxtLink
    >
    <button class="link" type="button" :aria-expanded="isOpen" @click="open">
      {{ isOpen ? 'Hide its versions' : 'Show its versions' }}
    </button>
    <div v-if="isOpen" class="list">
      <ProblemNote v-if="problem" :problem="problem" @retry="refresh" />
      <template v-else-if="data">
        <p>
          Now: version {{ template.version }}<template v-if="template.note">, {{ template.note }}</template
          >. Whoever rolls from it gets this one.
        </p>
        <ul aria-label="Earlier versions">
          <li v-for="version in data.versions" :key="version.number">
            <b>Version {{ version.number }}</b>
            <span class="soft">
              {{ version.note ? `${version.note} · ` : '' }}{{ counted(version.items, 'item') }} · until
              {{ instantText(version.at) }}, {{ version.by }}
            </span>
            <button
              v-if="template.mayImprove"
              class="link"
              type="button"
              :disabled="acting.busy.value"
              @click="bringBack(version.number)"
            >
              Bring version {{ version.number }} back
            </button>
          </li>
        </ul>
        <form v-if="template.mayImprove" @submit.prevent="keep">
          <ElInput
            v-model="note"
            size="small"
            maxlength="200"
            placeholder="what changes from here on"
            aria-label="What changes with the next version"
          />
          <button class="link" type="submit" :disabled="acting.busy.value">
            Keep it as version {{ template.version }} and go on
          </button>
        </form>
        <ActionProblem :problem="acting.problem.value" />
      </template>
    </div>
  </div>
</template>

<style scoped>
.versions {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  margin-top: 6px;
}
.list {
  flex-basis: 100%;
}
ul {
  list-style: none;
  margin-bottom: 6px;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  padding: 3px 0;
  border-bottom: 1px solid var(--rule);
  max-width: 720px;
}
form {
  display: flex;
  gap: 12px;
  align-items: center;
  max-width: 560px;
}
p {
  margin: 4px 0;
}
</style>
